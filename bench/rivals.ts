import { createRequire } from 'node:module'
import type * as Guillotine from 'guillotine-packer'
import type * as MaxRects from 'maxrects-packer'
import type { PackItem } from '@/core/solve/pack'
import type { Instance } from './instances'

// Its package names a module that Node does not take as one.
const { packer } = createRequire(import.meta.url)('guillotine-packer') as typeof Guillotine
const { MaxRectsPacker, PACKING_LOGIC } = createRequire(import.meta.url)('maxrects-packer') as typeof MaxRects

/** Its own rectangles keep the rule in a field of their own, and it looks for that one. */
const turns = (may: boolean) => ({ allowRotation: may, _allowRotation: may })

/** A general rectangle packer with no cutting rule, arrows or lots: its own best over orders, on the same strip. */
export function library({ items, width }: Instance): number {
  let best = Infinity
  const orders: ((i: PackItem) => number)[] = [
    (i) => i.width * i.length,
    (i) => i.length,
    (i) => i.width,
    (i) => Math.max(i.width, i.length),
  ]
  for (const order of orders)
    for (const rotate of [false, true]) {
      // Its bins have a height: the least that still takes all in one bin, by halving.
      let [low, high] = [0, items.reduce((s, i) => s + Math.max(i.length, i.width), 0)]
      while (high - low > 2) {
        const middle = Math.ceil((low + high) / 2)
        const packer = new MaxRectsPacker(width, middle, 0, {
          smart: false,
          pot: false,
          square: false,
          allowRotation: rotate,
          logic: PACKING_LOGIC.MAX_EDGE,
        })
        for (const i of [...items].sort((a, b) => order(b) - order(a))) {
          // What may not turn keeps its way; what fits no other way is given so.
          const upright = i.width <= width
          const [w, h] = upright ? [i.width, i.length] : [i.length, i.width]
          packer.add({ width: w, height: h, x: 0, y: 0, ...turns(rotate && i.turn === 'quarter') } as never)
        }
        if (packer.bins.length === 1 && packer.bins[0]?.rects.every((r) => !r.oversized)) high = middle
        else low = middle
      }
      best = Math.min(best, high)
    }
  return best
}

/**
 * The shortest strip that a general packer with straight cuts finds at its best of all its strategies; null where
 * there are too many pieces for it.
 */
export function ruled({ width, items }: Instance): number | null {
  if (items.length > MOST_RULED) return null
  const longest = Math.max(...items.map((i) => i.length))
  let best = Infinity
  // Turning is for all of its pieces or for none.
  for (const allowRotation of items.every((i) => i.turn === 'quarter') ? [false, true] : [false]) {
    if (!allowRotation && items.some((i) => i.width > width)) continue
    let [low, high] = [longest - 1, items.reduce((s, i) => s + Math.max(i.length, i.width), 0)]
    while (high - low > 2) {
      const middle = Math.ceil((low + high) / 2)
      const bins = fitted(() =>
        packer(
          {
            binWidth: width,
            binHeight: middle,
            items: items.map((i) => ({ name: i.id, width: i.width, height: i.length })),
          },
          { allowRotation },
        ),
      )
      if (bins?.length === 1) high = middle
      else low = middle
    }
    best = Math.min(best, high)
  }
  return best === Infinity ? null : best
}
const MOST_RULED = 60
/** It throws where an item fits no bin. */
function fitted<T>(work: () => T): T | null {
  try {
    return work()
  } catch {
    return null
  }
}
