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
  type Sheet,
  type BeamWeights,
} from './beam'

interface Node extends Part {
  /** Corners of the outline: x and y of each step from left to right. */
  sx: Int32Array
  sy: Int32Array
}
const NOTHING = new Int32Array(0)
const NO_HAND = new Uint32Array(0)

/** A step of the outline lower than those beside it: how wide, how high up to its walls and the end of the sheet. */
interface Niche {
  s: number
  room: number
  most: number
  wallL: number
  wallR: number
  /** The narrowest and the tallest item that is left. */
  least: number
  tallest: number
}

interface Child {
  node: Node
  s: number
  item: number
  turned: number
  score: number
}

/**
 * Fills a sheet of a set length niche by niche, the lowest first, keeping so many of the most promising part plans side
 * by side: those that lost least for what they hold. The plan, or null where all of them lost too much.
 * Source of the idea: docs/sources.md#libralesso-2021.
 */
export function niches(job: BeamJob, target: number, wide: number, taste: BeamWeights): Band | null {
  const sheet = sheetOf(job, target)
  return sheet.budget < 0 ? null : new NicheBeam(job, sheet, taste).run(wide)
}

class NicheBeam {
  private readonly byHigh: Int32Array
  private readonly children: Child[] = []

  constructor(
    private readonly job: BeamJob,
    private readonly sheet: Sheet,
    private readonly taste: BeamWeights,
  ) {
    this.byHigh = sheet.byLow.slice().reverse()
  }

  run(wide: number): Band | null {
    const { job, sheet, children } = this
    const { n } = job.items
    let generation: Node[] = [{ ...nothingLaid(n), sx: Int32Array.of(0, sheet.width), sy: Int32Array.of(0) }]
    for (let depth = 0; depth < n; depth++) {
      children.length = 0
      for (const node of generation) {
        if (job.spent()) return null
        this.grow(node)
      }
      if (children.length === 0) return null
      const next = chosen(
        children,
        wide,
        (c) => this.lay(c),
        ({ sx, sy, placed }) => `${sx.join()}|${sy.join()}|${placed}`,
      )
      // Of what came before only its choices are needed.
      for (const node of generation) {
        node.sx = NOTHING
        node.sy = NOTHING
        node.laid = NO_HAND
      }
      generation = next
    }
    return bandOf(generation[0], job, sheet)
  }

  /** What may be laid next onto a part plan, in its lowest niche that takes anything; niches that nothing fits are lost. */
  private grow(node: Node): void {
    const { sheet, children } = this
    const tallest = firstLeft(this.byHigh, node.laid)
    const least = sheet.narrow(firstLeft(sheet.byNarrow, node.laid))
    for (;;) {
      const { sx, sy } = node
      let s = 0
      for (let k = 1; k < sy.length; k++) if (sy[k] < sy[s]) s = k
      const y = sy[s]
      const room = sx[s + 1] - sx[s]
      const wallL = (s > 0 ? sy[s - 1] : sheet.length) - y
      const wallR = (s + 1 < sy.length ? sy[s + 1] : sheet.length) - y
      const before = children.length
      // What is tallest would find no room any more.
      if (sheet.length - y < sheet.low(tallest)) return
      if (room >= least) this.fit(node, { s, room, most: sheet.length - y, wallL, wallR, least, tallest })
      if (children.length > before) return
      const up = Math.min(wallL, wallR)
      node.loss += up * room
      if (node.loss > sheet.budget || y + up >= sheet.length) return
      this.raise(node, s, y + up)
    }
  }

  /** Everything that fits one niche, largest first; what matches nothing only so many times. */
  private fit(node: Node, { s, room, most, wallL, wallR, least, tallest }: Niche): void {
    const { sheet, taste, children, job } = this
    const { w, h, turn, bySize, budget } = sheet
    let loose = 0
    for (let o = 0; o < bySize.length; o++) {
      const i = bySize[o]
      if (has(node.laid, i)) continue
      for (let t = 0; t < (turn[i] ? 2 : 1); t++) {
        const a = t ? h[i] : w[i]
        const b = t ? w[i] : h[i]
        const spare = room - a
        if (spare < 0 || b > most) continue
        const atWall = b === wallL || b === wallR
        let segs = node.sy.length
        let trapped = 0
        if (spare === 0) {
          if (b === wallL) segs--
          if (b === wallR) segs--
        } else if (spare < least) {
          trapped = spare * Math.min(b, Math.max(wallL, wallR) === wallL ? wallR : wallL)
          if (node.loss + trapped > budget || (loose >= taste.looseTries && i !== tallest)) continue
          segs++
          loose++
        } else {
          if (!atWall) {
            if (loose >= taste.looseTries && i !== tallest) continue
            loose++
          }
          segs += atWall ? 0 : 1
        }
        const score = scoreOf({ part: node, sheet, item: i, lost: trapped, steps: segs, taste, random: job.random })
        children.push({ node, s, item: i, turned: t, score })
      }
    }
  }

  private raise(node: Node, s: number, y: number): void {
    const xs: number[] = []
    const ys: number[] = []
    node.sy.forEach((v, k) => {
      const at = k === s ? y : v
      if (ys.length > 0 && ys[ys.length - 1] === at) return
      xs.push(node.sx[k])
      ys.push(at)
    })
    xs.push(this.sheet.width)
    node.sx = Int32Array.from(xs)
    node.sy = Int32Array.from(ys)
  }

  private lay(c: Child): Node {
    const { sheet } = this
    const { w, h, length: T } = sheet
    const { node, s, item, turned } = c
    const { sx, sy } = node
    const a = turned ? h[item] : w[item]
    const b = turned ? w[item] : h[item]
    const x = sx[s]
    const y = sy[s]
    const spare = sx[s + 1] - x - a
    const wallL = s > 0 ? sy[s - 1] - y : T - y
    const wallR = s + 1 < sy.length ? sy[s + 1] - y : T - y
    const right = spare > 0 && b !== wallL && (b === wallR || wallR > wallL)
    const xs: number[] = []
    const ys: number[] = []
    const put = (px: number, py: number) => {
      if (ys.length > 0 && ys[ys.length - 1] === py) return
      xs.push(px)
      ys.push(py)
    }
    for (let k = 0; k < sy.length; k++) {
      if (k !== s) put(sx[k], sy[k])
      else if (spare === 0) put(x, y + b)
      else if (right) {
        put(x, y)
        put(x + spare, y + b)
      } else {
        put(x, y + b)
        put(x + a, y)
      }
    }
    xs.push(sheet.width)
    return {
      ...laidOnto(node, sheet, { item, turned, x: right ? x + spare : x, y }),
      sx: Int32Array.from(xs),
      sy: Int32Array.from(ys),
    }
  }
}
