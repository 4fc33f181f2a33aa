import { nth } from '../../kit/known'
/** A rectangle on the roll, mm: x across, y along. */
export interface OnRoll {
  pieceId: string
  xMm: number
  yMm: number
  widthMm: number
  lengthMm: number
}
/** One straight cut from edge to edge of the part it divides. */
export interface Cut {
  number: number
  /** `across` the roll or `lengthwise` along it. */
  runs: 'across' | 'lengthwise'
  /** Depth of the cut: 1 are the cuts that take a part off the roll. */
  stage: number
  /** Where it runs on the roll. */
  from: { xMm: number; yMm: number }
  to: { xMm: number; yMm: number }
  /** Distance from the end of the part as it lies there now: the reading of the tape. */
  tapeMm: number
  /** Pieces that lie in what this cut takes off. */
  pieceIds: string[]
  /** Pieces that are whole and free after this cut. */
  done: string[]
}
export interface Offcut {
  xMm: number
  yMm: number
  widthMm: number
  lengthMm: number
}
/** What is left over smaller than this, mm, is scrap; common practice, no source. */
export const LEAST_REST = { short: 150, long: 250 }

export interface CutPlan {
  cuts: Cut[]
  /** What is left over within the used length, largest first. */
  offcuts: Offcut[]
  /** Pieces that no straight cut can part. */
  knots: string[][]
}

const EPS = 1e-4

interface Part {
  x: number
  y: number
  w: number
  l: number
}

/**
 * The order of straight cuts that frees every piece: across the roll first, then within each part lengthwise, across …
 * Parts are cut off from the roll's end one by one, and each is finished before the next is touched.
 */
export function cutPlan(pieces: readonly OnRoll[], widthMm: number): CutPlan {
  const plan = new CutSequence()
  // On the roll itself: each part is cut off at its far edge, however long the roll is.
  const bands = splitIntoBands(
    pieces,
    (p) => p.yMm,
    (p) => p.lengthMm,
  )
  let at = 0
  for (const band of bands) {
    const from = Math.min(...band.map((p) => p.yMm))
    const to = Math.max(...band.map((p) => p.yMm + p.lengthMm))
    const part: Part = { x: 0, y: from, w: widthMm, l: to - from }
    if (from - at > LEAST_TRIM_MM) {
      const waste = { x: 0, y: at, w: widthMm, l: from - at }
      plan.cut({ runs: 'across', stage: 1, at: from, part: waste, tapeMm: from - at, pieceIds: [] })
      plan.leaveOver(waste)
      at = from
    }
    plan.cut({ runs: 'across', stage: 1, at: to, part, tapeMm: to - at, pieceIds: band.map((p) => p.pieceId) })
    at = to
    if (!(band.length === 1 && fills(nth(band, 0), part))) plan.divide(band, part, 'lengthwise', 2)
  }
  const { cuts, offcuts, knots } = plan
  finish(cuts, pieces)
  return { cuts, offcuts: offcuts.sort((x, y) => y.widthMm * y.lengthMm - x.widthMm * x.lengthMm), knots }
}

/** A gap narrower than this goes with the next cut [mm]. */
const LEAST_TRIM_MM = 1

/** Cuts in their order, and what they leave over. */
class CutSequence {
  readonly cuts: Cut[] = []
  readonly offcuts: Offcut[] = []
  readonly knots: string[][] = []

  leaveOver(p: Part): void {
    if (p.w > EPS && p.l > EPS) this.offcuts.push({ xMm: p.x, yMm: p.y, widthMm: p.w, lengthMm: p.l })
  }

  cut({ at, part, ...own }: Pick<Cut, 'runs' | 'stage' | 'tapeMm' | 'pieceIds'> & { at: number; part: Part }): void {
    const across = own.runs === 'across'
    this.cuts.push({
      number: this.cuts.length + 1,
      ...own,
      done: [],
      from: across ? { xMm: part.x, yMm: at } : { xMm: at, yMm: part.y },
      to: across ? { xMm: part.x + part.w, yMm: at } : { xMm: at, yMm: part.y + part.l },
    })
  }

  /** Frees the pieces of one part. `tried`: the other way was tried, and no cut runs that way. */
  divide(here: readonly OnRoll[], part: Part, runs: Cut['runs'], stage: number, tried = false): void {
    if (here.length === 0) return this.leaveOver(part)
    const across = runs === 'across'
    const other = across ? 'lengthwise' : 'across'
    const start = (p: OnRoll) => (across ? p.yMm : p.xMm)
    const size = (p: OnRoll) => (across ? p.lengthMm : p.widthMm)
    const groups = splitIntoBands(here, start, size)
    const begin = across ? part.y : part.x
    const end = begin + (across ? part.l : part.w)
    const lead = Math.min(...nth(groups, 0).map(start))
    const far = Math.max(...here.map((p) => start(p) + size(p)))
    const trims = lead - begin > EPS || end - far > EPS
    if (groups.length === 1 && !trims) {
      if (here.length === 1) return
      if (tried) this.knots.push(here.map((p) => p.pieceId))
      else this.divide(here, part, other, stage, true)
      return
    }
    let at = begin
    const slice = (to: number): Part =>
      across ? { x: part.x, y: at, w: part.w, l: to - at } : { x: at, y: part.y, w: to - at, l: part.l }
    groups.forEach((group, i) => {
      const from = Math.min(...group.map(start))
      const to = Math.max(...group.map((p) => start(p) + size(p)))
      // A gap or a trim before the group is cut away by itself.
      if (from - at > LEAST_TRIM_MM) {
        this.cut({ runs, stage, at: from, part, tapeMm: from - at, pieceIds: [] })
        this.leaveOver(slice(from))
      }
      if (from - at > EPS) at = from
      const mine = slice(to)
      const last = i === groups.length - 1 && end - to <= EPS
      if (!last) this.cut({ runs, stage, at: to, part, tapeMm: to - at, pieceIds: group.map((p) => p.pieceId) })
      at = to
      if (!(group.length === 1 && fills(nth(group, 0), mine))) this.divide(group, mine, other, stage + 1)
    })
    if (end - at > EPS) this.leaveOver(slice(end))
  }
}

/** A piece is free after the last cut along any of its sides. */
function finish(cuts: Cut[], pieces: readonly OnRoll[]): void {
  for (const c of cuts) c.done = []
  for (const p of pieces) {
    const last = cuts.findLast((c) => touches(c, p) || c.pieceIds.includes(p.pieceId))
    last?.done.push(p.pieceId)
  }
}
const near = (a: number, b: number): boolean => Math.abs(a - b) < EPS
function touches(c: Cut, p: OnRoll): boolean {
  return c.runs === 'across'
    ? (near(c.from.yMm, p.yMm) || near(c.from.yMm, p.yMm + p.lengthMm)) &&
        c.from.xMm < p.xMm + p.widthMm - EPS &&
        c.to.xMm > p.xMm + EPS
    : (near(c.from.xMm, p.xMm) || near(c.from.xMm, p.xMm + p.widthMm)) &&
        c.from.yMm < p.yMm + p.lengthMm - EPS &&
        c.to.yMm > p.yMm + EPS
}
const fills = (p: OnRoll, part: Part): boolean =>
  Math.abs(p.xMm - part.x) < EPS &&
  Math.abs(p.yMm - part.y) < EPS &&
  Math.abs(p.widthMm - part.w) < EPS &&
  Math.abs(p.lengthMm - part.l) < EPS

function splitIntoBands(
  here: readonly OnRoll[],
  start: (p: OnRoll) => number,
  size: (p: OnRoll) => number,
): OnRoll[][] {
  const groups: OnRoll[][] = []
  let end = -Infinity
  for (const p of [...here].sort((a, b) => start(a) - start(b))) {
    if (start(p) >= end - EPS) groups.push([])
    nth(groups, groups.length - 1).push(p)
    end = Math.max(end, start(p) + size(p))
  }
  return groups
}
