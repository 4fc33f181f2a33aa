import type { Random } from '../../kit/random'
import type { Band } from './band'
import type { StripItems } from './decode'

interface Node {
  /** Corners of the outline: x and y of each step from left to right. */
  sx: Int32Array
  sy: Int32Array
  laid: Uint32Array
  loss: number
  placed: number
  parent: Node | null
  item: number
  turned: number
  x: number
  y: number
}
interface Child {
  node: Node
  s: number
  item: number
  turned: number
  score: number
}

export interface BeamJob {
  items: StripItems
  random: Random
  /** All sizes are whole multiples of it, or rounded up to one. */
  step: number
  bound: number
  spent: () => boolean
}

/** How part plans are judged and what is tried: found by trial on sheets cut up at random. */
interface Taste {
  /** How much more a plan that holds more is worth. */
  held: number
  /** How much each step of the outline counts against it. */
  steps: number
  /** Items tried in a niche that match nothing there, largest first. */
  loose: number
  /** Loss as a share of all that every plan is taken to have, so that plans without loss differ by what they hold. */
  given: number
}
const TASTES: readonly Taste[] = [
  { held: 2, steps: 0.1, loose: 6, given: 0.01 },
  { held: 1, steps: 0.1, loose: 3, given: 0.02 },
]
const FIRST_WIDTH = 4
const WIDER = 1.5
/** Part of the way from the best length known to the bound that the next plan is asked to be shorter by. */
const AIM = 0.2
const CHANCE = 0.02

/** Ever wider beams into a sheet a little shorter than the best plan known. */
export class BeamSearch {
  private wide = FIRST_WIDTH
  private turn = 0
  constructor(private readonly job: BeamJob) {}
  /** A plan shorter than `length`, or null; and the work it took, in items laid. */
  run(length: number): { band: Band | null; laid: number } {
    const { bound, step, items } = this.job
    const target = Math.max(bound, length - Math.max(step, AIM * (length - bound)))
    const band = beam(this.job, target, this.wide, TASTES[this.turn % TASTES.length] as Taste)
    const laid = this.wide * items.n
    if (!band && ++this.turn % TASTES.length === 0) this.wide = Math.ceil(this.wide * WIDER)
    return { band, laid }
  }
}

/**
 * Fills a sheet of a set length niche by niche, the lowest first, keeping so many of the most promising part plans side
 * by side: those that lost least for what they hold. The plan, or null where all of them lost too much.
 * Source of the idea: docs/sources.md#libralesso-2022.
 */
function beam(job: BeamJob, target: number, wide: number, taste: Taste): Band | null {
  const { items, step } = job
  const { n, turn } = items
  const whole = (v: number) => Math.ceil(v / step - 1e-6)
  const W = Math.floor(items.width / step + 1e-6)
  const T = Math.floor(target / step + 1e-6)
  const w = Int32Array.from(items.w, whole)
  const h = Int32Array.from(items.l, whole)
  let area = 0
  for (let i = 0; i < n; i++) area += (w[i] as number) * (h[i] as number)
  const budget = W * T - area
  if (budget < 0) return null
  const bySize = Int32Array.from({ length: n }, (_, i) => i).sort((a, b) => (w[b] as number) * (h[b] as number) - (w[a] as number) * (h[a] as number)) // prettier-ignore
  const narrow = (i: number) => (turn[i] && (h[i] as number) < (w[i] as number) ? h[i] : w[i]) as number
  const bySlim = Int32Array.from({ length: n }, (_, i) => i).sort((a, b) => narrow(a) - narrow(b))
  const high = (i: number) => (turn[i] && (w[i] as number) < (h[i] as number) ? w[i] : h[i]) as number
  const byHigh = Int32Array.from({ length: n }, (_, i) => i).sort((a, b) => high(b) - high(a))
  const has = (laid: Uint32Array, i: number) => ((laid[i >> 5] as number) >>> (i & 31)) & 1
  let generation: Node[] = [
    { sx: Int32Array.of(0, W), sy: Int32Array.of(0), laid: new Uint32Array((n >> 5) + 1), loss: 0, placed: 0, parent: null, item: -1, turned: 0, x: 0, y: 0 },
  ] // prettier-ignore
  const children: Child[] = []
  for (let depth = 0; depth < n; depth++) {
    children.length = 0
    for (const node of generation) {
      if (job.spent()) return null
      let slim = 0
      while (has(node.laid, bySlim[slim] as number)) slim++
      let tall = 0
      while (has(node.laid, byHigh[tall] as number)) tall++
      const tallest = byHigh[tall] as number
      const least = narrow(bySlim[slim] as number)
      // Niches that nothing fits are lost.
      for (;;) {
        const { sx, sy } = node
        let s = 0
        for (let k = 1; k < sy.length; k++) if ((sy[k] as number) < (sy[s] as number)) s = k
        const y = sy[s] as number
        const room = (sx[s + 1] as number) - (sx[s] as number)
        const wallL = (s > 0 ? (sy[s - 1] as number) : T) - y
        const wallR = (s + 1 < sy.length ? (sy[s + 1] as number) : T) - y
        const most = T - y
        const before = children.length
        // What is tallest would find no room any more.
        if (most < high(tallest)) break
        if (room >= least) {
          let exact = 0
          let loose = 0
          for (let o = 0; o < n; o++) {
            const i = bySize[o] as number
            if (has(node.laid, i)) continue
            for (let t = 0; t < (turn[i] ? 2 : 1); t++) {
              const a = (t ? h[i] : w[i]) as number
              const b = (t ? w[i] : h[i]) as number
              const spare = room - a
              if (spare < 0 || b > most) continue
              const atWall = b === wallL || b === wallR
              let segs = sy.length
              let trapped = 0
              if (spare === 0) {
                exact++
                if (b === wallL) segs--
                if (b === wallR) segs--
              } else if (spare < least) {
                trapped = spare * Math.min(b, Math.max(wallL, wallR) === wallL ? wallR : wallL)
                if (node.loss + trapped > budget || (loose >= taste.loose && i !== tallest)) continue
                segs++
                loose++
              } else {
                if (!atWall) {
                  if (loose >= taste.loose && i !== tallest) continue
                  loose++
                }
                segs += atWall ? 0 : 1
              }
              const placed = node.placed + a * b
              const score = ((node.loss + trapped + taste.given * area) * (1 + taste.steps * segs)) / placed ** taste.held
              children.push({ node, s, item: i, turned: t, score: score * (1 + CHANCE * job.random()) })
            }
          }
        }
        if (children.length > before) break
        const low = Math.min(wallL, wallR)
        node.loss += low * room
        if (node.loss > budget || y + low >= T) break
        raise(node, s, y + low)
      }
    }
    if (children.length === 0) return null
    children.sort((a, b) => a.score - b.score)
    const seen = new Set<string>()
    const next: Node[] = []
    for (const c of children) {
      if (next.length >= wide) break
      const made = lay(c)
      const key = made.sx.join() + '|' + made.sy.join() + '|' + made.placed
      if (seen.has(key)) continue
      seen.add(key)
      next.push(made)
    }
    generation = next
  }
  const best = generation[0] as Node
  const band: Band = { length: 0, kinds: [], x: [], y: [], turned: [] }
  for (let at: Node | null = best; at && at.item >= 0; at = at.parent) {
    band.kinds.push(items.kind[at.item] as number)
    band.x.push(at.x * step)
    band.y.push(at.y * step)
    band.turned.push(at.turned === 1)
    band.length = Math.max(band.length, (at.y + ((at.turned ? w[at.item] : h[at.item]) as number)) * step)
  }
  return band

  function raise(node: Node, s: number, y: number): void {
    const xs: number[] = []
    const ys: number[] = []
    node.sy.forEach((v, k) => {
      const at = k === s ? y : v
      if (ys.length > 0 && ys[ys.length - 1] === at) return
      xs.push(node.sx[k] as number)
      ys.push(at)
    })
    xs.push(W)
    node.sx = Int32Array.from(xs)
    node.sy = Int32Array.from(ys)
  }
  function lay(c: Child): Node {
    const { node, s, item, turned } = c
    const { sx, sy } = node
    const a = (turned ? h[item] : w[item]) as number
    const b = (turned ? w[item] : h[item]) as number
    const x = sx[s] as number
    const y = sy[s] as number
    const spare = (sx[s + 1] as number) - x - a
    const wallL = s > 0 ? (sy[s - 1] as number) - y : T - y
    const wallR = s + 1 < sy.length ? (sy[s + 1] as number) - y : T - y
    const right = spare > 0 && b !== wallL && (b === wallR || wallR > wallL)
    const xs: number[] = []
    const ys: number[] = []
    const put = (px: number, py: number) => {
      if (ys.length > 0 && ys[ys.length - 1] === py) return
      xs.push(px)
      ys.push(py)
    }
    for (let k = 0; k < sy.length; k++) {
      if (k !== s) put(sx[k] as number, sy[k] as number)
      else if (spare === 0) put(x, y + b)
      else if (right) {
        put(x, y)
        put(x + spare, y + b)
      } else {
        put(x, y + b)
        put(x + a, y)
      }
    }
    xs.push(W)
    const laid = node.laid.slice()
    laid[item >> 5] = (laid[item >> 5] as number) | (1 << (item & 31))
    return {
      sx: Int32Array.from(xs), sy: Int32Array.from(ys), laid, loss: node.loss, placed: node.placed + a * b, parent: node,
      item, turned, x: right ? x + spare : x, y,
    } // prettier-ignore
  }
}
