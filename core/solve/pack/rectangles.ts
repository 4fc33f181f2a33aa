import type { Band } from './band'
import { CHANCE, emptyHand, firstLeft, has, plus, sheetOf, type BeamJob, type Taste } from './beam'

interface Node {
  /** Free rectangles: x, y, width, height of each. */
  free: Int32Array
  laid: Uint32Array
  loss: number
  placed: number
  worth: number
  parent: Node | null
  item: number
  turned: number
  x: number
  y: number
}
const NOTHING = new Int32Array(0)
const NO_HAND = new Uint32Array(0)

interface Child {
  node: Node
  /** Place of the rectangle in `free`. */
  f: number
  item: number
  turned: number
  /** Whether what is left is parted by a cut across, behind the item, or by one lengthwise beside it. */
  across: boolean
  score: number
}

/**
 * The same by straight cuts alone: the smallest free rectangle is filled first, what is left beside and behind an item is
 * parted by one cut, either way. Answers as `niches` does.
 */
export function rectangles(job: BeamJob, target: number, wide: number, taste: Taste): Band | null {
  const { items, step } = job
  const { n } = items
  const sheet = sheetOf(job, target)
  const { width: W, length: T, w, h, turn, area, budget, worth, bySize, byNarrow, byLow, narrow, low } = sheet
  if (budget < 0) return null
  const demanding = [bySize, byNarrow.slice().reverse(), byLow.slice().reverse()]
  let generation: Node[] = [
    {
      free: Int32Array.of(0, 0, W, T),
      laid: emptyHand(n),
      loss: 0,
      placed: 0,
      worth: 0,
      parent: null,
      item: -1,
      turned: 0,
      x: 0,
      y: 0,
    },
  ]
  const children: Child[] = []
  for (let depth = 0; depth < n; depth++) {
    children.length = 0
    for (const node of generation) {
      if (job.spent()) return null
      const leastW = narrow(firstLeft(byNarrow, node.laid))
      const leastH = low(firstLeft(byLow, node.laid))
      for (;;) {
        const { free } = node
        if (dead(node)) break
        let f = -1
        let bestKey = Infinity
        for (let k = 0; k < free.length; k += 4) {
          const [fw, fh] = [free[k + 2] as number, free[k + 3] as number]
          const key = fw * fh
          if (key < bestKey) {
            bestKey = key
            f = k
          }
        }
        if (f < 0) break
        const [FW, FH] = [free[f + 2] as number, free[f + 3] as number]
        const before = children.length
        const rects = free.length / 4
        let loose = 0
        if (FW >= leastW && FH >= leastH)
          for (let o = 0; o < n; o++) {
            const i = bySize[o] as number
            if (has(node.laid, i)) continue
            for (let t = 0; t < (turn[i] ? 2 : 1); t++) {
              const iw = (t ? h[i] : w[i]) as number
              const ih = (t ? w[i] : h[i]) as number
              const [dw, dh] = [FW - iw, FH - ih]
              if (dw < 0 || dh < 0) continue
              const exact = (dw === 0 ? 1 : 0) + (dh === 0 ? 1 : 0)
              if (exact === 0) {
                if (loose >= taste.loose) continue
                loose++
              }
              for (let c = 0; c < (exact === 0 ? 2 : 1); c++) {
                // across: the cut runs across the rectangle behind the item.
                const [rw, rh] = c ? [dw, ih] : [dw, FH]
                const [bw, bh] = c ? [FW, dh] : [iw, dh]
                let lost = 0
                let more = -1
                if (rw > 0) {
                  if (rw < leastW || rh < leastH) lost += rw * rh
                  else more++
                }
                if (bh > 0) {
                  if (bw < leastW || bh < leastH) lost += bw * bh
                  else more++
                }
                if (node.loss + lost > budget) continue
                const gone = node.loss + lost + node.placed + iw * ih
                const held = node.worth + (worth[i] as number)
                const score =
                  (Math.max(0, gone - held + taste.given * area) * (1 + taste.steps * (rects + more))) /
                  held ** taste.held
                children.push({
                  node,
                  f,
                  item: i,
                  turned: t,
                  across: c === 1,
                  score: score * (1 + CHANCE * job.random()),
                })
              }
            }
          }
        if (children.length > before) break
        node.loss += FW * FH
        if (node.loss > budget) break
        const next = new Int32Array(free.length - 4)
        next.set(free.subarray(0, f))
        next.set(free.subarray(f + 4), f)
        node.free = next
      }
    }
    if (children.length === 0) return null
    children.sort((p, q) => p.score - q.score)
    const seen = new Set<string>()
    const next: Node[] = []
    for (const c of children) {
      if (next.length >= wide) break
      const made = lay(c)
      const key = made.free.join() + '|' + made.placed
      if (seen.has(key)) continue
      seen.add(key)
      next.push(made)
    }
    // Of what came before only the way it went is needed.
    for (const node of generation) {
      node.free = NOTHING
      node.laid = NO_HAND
    }
    generation = next
  }
  const band: Band = { length: 0, kinds: [], x: [], y: [], turned: [] }
  for (let at: Node | null = generation[0] as Node; at && at.item >= 0; at = at.parent) {
    band.kinds.push(items.kind[at.item] as number)
    band.x.push(at.x * step)
    band.y.push(at.y * step)
    band.turned.push(at.turned === 1)
    band.length = Math.max(band.length, (at.y + ((at.turned ? w[at.item] : h[at.item]) as number)) * step)
  }
  return band
  /** Whether the largest, the longest or the widest item that is left fits no rectangle any more. */
  function dead(node: Node): boolean {
    for (const list of demanding) {
      const i = firstLeft(list, node.laid)
      let fits = false
      for (let k = 0; k < node.free.length && !fits; k += 4) {
        const [fw, fh] = [node.free[k + 2] as number, node.free[k + 3] as number]
        fits =
          (fw >= (w[i] as number) && fh >= (h[i] as number)) ||
          (turn[i] === 1 && fw >= (h[i] as number) && fh >= (w[i] as number))
      }
      if (!fits) return true
    }
    return false
  }
  function lay(c: Child): Node {
    const { node, f, item, turned, across } = c
    const { free } = node
    const [x, y, FW, FH] = [free[f], free[f + 1], free[f + 2], free[f + 3]] as unknown as [
      number,
      number,
      number,
      number,
    ]
    const iw = (turned ? h[item] : w[item]) as number
    const ih = (turned ? w[item] : h[item]) as number
    const list: number[] = [...free.subarray(0, f), ...free.subarray(f + 4)]
    if (FW > iw) list.push(x + iw, y, FW - iw, across ? ih : FH)
    if (FH > ih) list.push(x, y + ih, across ? FW : iw, FH - ih)
    const laid = plus(node.laid, item)
    return {
      free: Int32Array.from(list),
      laid,
      loss: node.loss,
      placed: node.placed + iw * ih,
      worth: node.worth + (worth[item] as number),
      parent: node,
      item,
      turned,
      x,
      y,
    }
  }
}
