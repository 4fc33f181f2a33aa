import { nth } from '../../kit/known'
import { arcPoints, boxOf, chordMm, polygonAreaMm2, segmentAreaMm2, type Point } from '../../kit/plane'
import { ATS } from './kinds'
import type { Edge, Panel } from './schema'

/** A panel's outline in its own plane: origin at the top left of its box, x right, y down. */
export interface Outline {
  edges: { edge: Edge; from: Point; to: Point }[]
  /** Corner points and points along curved edges, clockwise. */
  path: Point[]
  widthMm: number
  heightMm: number
  areaMm2: number
  /** How far the measured edges and angles are from closing; 0 where the angles were not taken. */
  closureMm: number
  /** True where every angle was given, so that the outline is the measured one and not a guess from the sizes. */
  measured: boolean
}

export const edgesInOrder = (panel: Panel): Edge[] => ATS.flatMap((at) => panel.edges.filter((e) => e.at === at))

/** Chord of an edge; its whole length where the rise cannot be. */
export const edgeChordMm = (edge: Edge): number => chordMm(edge.lengthMm, edge.riseMm) ?? edge.lengthMm

/**
 * The outline from edges and inside angles by traverse, its misclosure shared out in proportion to length (the
 * surveyors' compass rule, docs/sources.md#compass-rule); from the sizes alone where angles are missing.
 */
export function outlineOf(panel: Panel): Outline {
  const known = outlines.get(panel)
  if (known) return known
  const outline = computeOutline(panel)
  outlines.set(panel, outline)
  return outline
}
/**
 * Surface of a panel that takes film, mm²: within its outline where that was measured (stretched to the width and
 * height along the surface), else width times height; its holes taken out.
 */
export function panelAreaMm2(panel: Panel): number {
  const { measured, areaMm2, widthMm, heightMm } = outlineOf(panel)
  const box = panel.widthMm * panel.heightMm
  const holes = panel.holes.reduce((s, h) => s + h.widthMm * h.heightMm, 0)
  return Math.max(0, (measured ? (areaMm2 * box) / (widthMm * heightMm) : box) - holes)
}

/** Panels are never changed in place, so an outline holds as long as its panel. */
const outlines = new WeakMap<Panel, Outline>()

function computeOutline(panel: Panel): Outline {
  const edges = edgesInOrder(panel)
  const measured = edges.every((e) => e.cornerDeg !== null)
  const raw = measured ? traverse(edges) : null
  const { corners, closureMm } = raw ?? { corners: fromSizes(panel, edges), closureMm: 0 }
  const sides = edges.map((edge, i) => ({
    edge,
    from: nth(corners, i),
    to: nth(corners, (i + 1) % corners.length),
  }))
  const path = sides.flatMap((s) => [...arcPoints(s.from, s.to, s.edge.riseMm)])
  const box = boxOf(path)
  const shift = (p: Point): Point => ({ x: p.x - box.left, y: p.y - box.top })
  const area = sides.reduce(
    (sum, s) => sum + segmentAreaMm2(Math.hypot(s.to.x - s.from.x, s.to.y - s.from.y), s.edge.riseMm),
    polygonAreaMm2(corners),
  )
  return {
    edges: sides.map((s) => ({ ...s, from: shift(s.from), to: shift(s.to) })),
    path: path.map(shift),
    widthMm: box.right - box.left,
    heightMm: box.bottom - box.top,
    areaMm2: area,
    closureMm,
    measured,
  }
}

function traverse(edges: readonly Edge[]): { corners: Point[]; closureMm: number } {
  const corners: Point[] = [{ x: 0, y: 0 }]
  let heading = 0
  let [x, y] = [0, 0]
  const lengths = edges.map(edgeChordMm)
  edges.forEach((edge, i) => {
    x += Math.cos(heading) * (lengths[i] ?? 0)
    y += Math.sin(heading) * (lengths[i] ?? 0)
    corners.push({ x, y })
    heading += Math.PI - ((edge.cornerDeg ?? 90) * Math.PI) / 180
  })
  const total = lengths.reduce((a, b) => a + b, 0)
  let run = 0
  const closed = corners.slice(0, -1).map((p, i) => {
    const out = { x: p.x - (x * run) / total, y: p.y - (y * run) / total }
    run += lengths[i] ?? 0
    return out
  })
  return { corners: level(closed, edges), closureMm: Math.hypot(x, y) }
}

/**
 * Turned so that most of the outline, by length, stands level or upright: the weighted middle of its sides' leanings.
 */
function level(corners: Point[], edges: readonly Edge[]): Point[] {
  const leanings = edges.map((edge, i) => {
    const [a, b] = [nth(corners, i), nth(corners, (i + 1) % corners.length)]
    const [dx, dy] = [b.x - a.x, b.y - a.y]
    // Each side turned back to lie along the top.
    const [x, y] = (
      [
        [dx, dy],
        [dy, -dx],
        [-dx, -dy],
        [-dy, dx],
      ] as const
    )[ATS.indexOf(edge.at)] as [number, number]
    return { angle: Math.atan2(y, x), weight: Math.hypot(x, y) }
  })
  leanings.sort((a, b) => a.angle - b.angle)
  const half = leanings.reduce((s, l) => s + l.weight, 0) / 2
  let seen = 0
  const angle = -(leanings.find((l) => (seen += l.weight) >= half)?.angle ?? 0)
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  return corners.map((p) => ({ x: p.x * c - p.y * s, y: p.x * s + p.y * c }))
}

/** Corners from width, height and the edges' chords: each side centred on the box, as far as it reaches. */
function fromSizes(panel: Panel, edges: readonly Edge[]): Point[] {
  const sum = (at: Edge['at']) => edges.filter((e) => e.at === at).reduce((s, e) => s + edgeChordMm(e), 0)
  const [w, h] = [panel.widthMm, panel.heightMm]
  const [t, b] = [Math.min(sum('top') || w, w), Math.min(sum('bottom') || w, w)]
  const ends: Record<Edge['at'], [Point, Point]> = {
    top: [
      { x: (w - t) / 2, y: 0 },
      { x: (w + t) / 2, y: 0 },
    ],
    right: [
      { x: (w + t) / 2, y: 0 },
      { x: (w + b) / 2, y: h },
    ],
    bottom: [
      { x: (w + b) / 2, y: h },
      { x: (w - b) / 2, y: h },
    ],
    left: [
      { x: (w - b) / 2, y: h },
      { x: (w - t) / 2, y: 0 },
    ],
  }
  return ATS.flatMap((at) => {
    const own = edges.filter((e) => e.at === at)
    const total = own.reduce((s, e) => s + edgeChordMm(e), 0) || 1
    const [a, z] = ends[at]
    let run = 0
    return own.map((e) => {
      const p = { x: a.x + ((z.x - a.x) * run) / total, y: a.y + ((z.y - a.y) * run) / total }
      run += edgeChordMm(e)
      return p
    })
  })
}
