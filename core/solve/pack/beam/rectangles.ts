import type { Band } from '../model/band'
import {
  bandOf,
  chosen,
  firstLeft,
  has,
  laidOnto,
  nothingLaid,
  scoreOf,
  sheetOf,
  type BeamJob,
  type Part,
  type BeamWeights,
} from './beam'

interface Node extends Part {
  /** Free rectangles: x, y, width, height of each. */
  free: Int32Array
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
 * The same by straight cuts alone: the smallest free rectangle is filled first, what is left beside and behind an item
 * is parted by one cut, either way. Answers as `niches` does.
 */
export function rectangles(job: BeamJob, target: number, wide: number, taste: BeamWeights): Band | null {
  const { n } = job.items
  const sheet = sheetOf(job, target)
  const { width: W, length: T, w, h, turn, budget, bySize, byNarrow, byLow, narrow, low } = sheet
  if (budget < 0) return null
  const demanding = [bySize, byNarrow.slice().reverse(), byLow.slice().reverse()]
  let generation: Node[] = [{ ...nothingLaid(n), free: Int32Array.of(0, 0, W, T) }]
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
          const [fw, fh] = [free[k + 2], free[k + 3]]
          const key = fw * fh
          if (key < bestKey) {
            bestKey = key
            f = k
          }
        }
        if (f < 0) break
        const [FW, FH] = [free[f + 2], free[f + 3]]
        const before = children.length
        const rects = free.length / 4
        let loose = 0
        if (FW >= leastW && FH >= leastH)
          for (let o = 0; o < n; o++) {
            const i = bySize[o]
            if (has(node.laid, i)) continue
            for (let t = 0; t < (turn[i] ? 2 : 1); t++) {
              const iw = t ? h[i] : w[i]
              const ih = t ? w[i] : h[i]
              const [dw, dh] = [FW - iw, FH - ih]
              if (dw < 0 || dh < 0) continue
              const exact = (dw === 0 ? 1 : 0) + (dh === 0 ? 1 : 0)
              if (exact === 0) {
                if (loose >= taste.looseTries) continue
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
                const steps = rects + more
                const score = scoreOf({ part: node, sheet, item: i, lost, steps, taste, random: job.random })
                children.push({ node, f, item: i, turned: t, across: c === 1, score })
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
    const next = chosen(children, wide, lay, ({ free, placed }) => `${free.join()}|${placed}`)
    // Of what came before only its choices are needed.
    for (const node of generation) {
      node.free = NOTHING
      node.laid = NO_HAND
    }
    generation = next
  }
  return bandOf(generation[0], job, sheet)
  /** Whether the largest, the longest or the widest item that is left fits no rectangle any more. */
  function dead(node: Node): boolean {
    for (const list of demanding) {
      const i = firstLeft(list, node.laid)
      let fits = false
      for (let k = 0; k < node.free.length && !fits; k += 4) {
        const [fw, fh] = [node.free[k + 2], node.free[k + 3]]
        fits = (fw >= w[i] && fh >= h[i]) || (turn[i] === 1 && fw >= h[i] && fh >= w[i])
      }
      if (!fits) return true
    }
    return false
  }
  function lay(c: Child): Node {
    const { node, f, item, turned, across } = c
    const { free } = node
    const [x, y, FW, FH] = [...free.subarray(f, f + 4)] as [number, number, number, number]
    const iw = turned ? h[item] : w[item]
    const ih = turned ? w[item] : h[item]
    const list: number[] = [...free.subarray(0, f), ...free.subarray(f + 4)]
    if (FW > iw) list.push(x + iw, y, FW - iw, across ? ih : FH)
    if (FH > ih) list.push(x, y + ih, across ? FW : iw, FH - ih)
    return { ...laidOnto(node, sheet, { item, turned, x, y }), free: Int32Array.from(list) }
  }
}
