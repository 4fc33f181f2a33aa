import { PACK_TOLERANCE, type PackItem } from './types'

/**
 * Equal items taken together. Sizes carry the clear gap on two sides, so that a bin of width W holds what adds up to
 * W + gap, and nothing else needs to know of the gap.
 */
export interface Kind {
  /** Width and length as the item comes, gap included. */
  w: number
  l: number
  turn: boolean
  items: PackItem[]
}

/** Items by equal size and turn rule, largest first. `width`: the bin's width with its gap. */
export function kindsOf(items: readonly PackItem[], gap: number, width: number): Kind[] {
  const byKey = new Map<string, Kind>()
  for (const item of items) {
    const [w, l] = [item.width + gap, item.length + gap]
    const upright = w <= width + PACK_TOLERANCE
    const across = item.turn === 'quarter' && Math.abs(w - l) > PACK_TOLERANCE && l <= width + PACK_TOLERANCE
    // What can lie one way only is written as a fixed item that way, marked by its own sizes.
    const turn = upright && across
    const size: [number, number] = turn ? [Math.min(w, l), Math.max(w, l)] : upright ? [w, l] : [l, w]
    const key = `${size[0].toFixed(6)}|${size[1].toFixed(6)}|${turn}`
    const kind = byKey.get(key)
    if (kind) kind.items.push(item)
    else byKey.set(key, { w: size[0], l: size[1], turn, items: [item] })
  }
  return [...byKey.values()].sort((a, b) => b.w * b.l - a.w * a.l || b.w - a.w)
}

/** The largest step of which all sizes are whole multiples, or 0 where there is none worth using. */
export function commonStep(sizes: readonly number[]): number {
  for (const step of [100, 50, 25, 10, 5, 2, 1, 0.5, 0.25, 0.2, 0.1, 0.05, 0.01])
    if (sizes.every((s) => Math.abs(s / step - Math.round(s / step)) < 1e-7)) return step
  return 0
}

/**
 * So many of each kind as kinds of their own, those of which there is none left out; `from` names the whole's kind of
 * each.
 */
export function partOf(kinds: readonly Kind[], left: ArrayLike<number>): { kinds: Kind[]; from: number[] } {
  const from = [...kinds.keys()].filter((k) => left[k] > 0)
  return {
    from,
    kinds: from.map((k) => ({ ...kinds[k], items: kinds[k].items.slice(0, left[k]) })),
  }
}

/**
 * Whether only what is `small` fits beside an item, however it lies, and nothing longer than it: in a band of its own
 * it then loses little.
 */
export function aloneInBand(kinds: readonly Kind[], i: number, width: number, small: ReadonlySet<number>): boolean {
  const { w, l, turn, items } = kinds[i]
  const lies = turn && l <= width + PACK_TOLERANCE ? [[w, l] as const, [l, w] as const] : [[w, l] as const]
  return lies.every(([across, along]) => {
    const room = width - across + PACK_TOLERANCE
    return kinds.every((k, j) => {
      if (j === i && items.length === 1) return true
      const fits = k.w <= room || (k.turn && k.l <= room)
      const longer = (k.w <= room && k.l > along) || (k.turn && k.l <= room && k.w > along)
      return !fits || (small.has(j) && !longer)
    })
  })
}
