import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import { textHash } from '../../kit/random'
import type { PieceChoice } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import { mouth } from './mouth'
import type { SurfaceMap } from './surface-map'

/** Outlines are kept to so many points, each no further off than this, mm, as long as that can be. */
const MOST_POINTS = 120
const OFF_MM = 0.5

/** For which panel and which cuts a flat outline holds: another mark now means that either has changed since. */
export function flatMark(panel: Panel, choice: Pick<PieceChoice, 'parts' | 'along' | 'seamsAtMm' | 'slits'>): string {
  const {
    widthMm,
    heightMm,
    crownMm,
    crownOverMm,
    crownDownMm,
    crownDownOverMm,
    cornerRadiusMm,
    nose,
    wraps,
    bodyLines,
    raised,
    holes,
  } = panel
  const edges = panel.edges.map((e) => [e.at, e.lengthMm, e.riseMm, e.cornerDeg, e.cornerRadiusMm])
  const recesses = panel.recesses.map((r) => ({ ...r, name: '' }))
  const { parts, along, seamsAtMm, slits } = choice
  return textHash(
    JSON.stringify([
      widthMm,
      heightMm,
      crownMm,
      crownOverMm,
      crownDownMm,
      crownDownOverMm,
      cornerRadiusMm,
      nose,
      wraps,
      bodyLines.map((l) => [l.along, l.atMm, l.foldDeg, l.radiusMm]),
      raised.map((r) => [r.xMm, r.yMm, r.widthMm, r.heightMm, r.riseMm, r.removable]),
      holes.map((h) => [h.xMm, h.yMm, h.widthMm, h.heightMm]),
      edges,
      recesses,
      parts,
      along,
      seamsAtMm,
      slits,
    ]),
  ).toString()
}

/** Outlines of the film's pieces, mm, each in its own frame with its box at 0, 0, lying as its panel does. */
export interface FlatOutlines {
  /** In the order of the plan's parts. */
  parts: [number, number][][]
  inlays: { recess: string; outline: [number, number][] }[]
}

/** Null where the film fell into other pieces than the plan has. */
export function flatOutlines(
  map: SurfaceMap,
  panel: Panel,
  choice: Pick<PieceChoice, 'parts' | 'along'>,
): FlatOutlines | null {
  const count = map.piece.reduce((m, p) => Math.max(m, p), 0) + 1
  const own = Array.from({ length: count }, (_, p) => {
    const ring = outerRing(map, p)
    const vertices = Array.from(map.triangles).filter((_, c) => map.piece[Math.floor(c / 3)] === p)
    const mean = (d: 0 | 1) => vertices.reduce((s, v) => s + nth(map.taped, 2 * v + d), 0) / vertices.length
    return { ring, x: mean(0), y: mean(1), area: area(ring) }
  })
  // An inlay is a piece of its own within another: the plan's parts are the largest.
  own.sort((a, b) => b.area - a.area)
  const along = choice.along === 'width' ? 'x' : 'y'
  const parts = own.slice(0, choice.parts).sort((a, b) => a[along] - b[along])
  const rest = own.slice(choice.parts)
  if (parts.length !== choice.parts) return null
  const inlays: FlatOutlines['inlays'] = []
  for (const recess of panel.recesses.filter((r) => r.way === 'inlay')) {
    const m = mouth(panel, recess, 0)
    const at = rest.findIndex((p) => p.x > m.x0 && p.x < m.x1 && p.y > m.y0 && p.y < m.y1)
    // An inlay that a seam parts has no outline of one piece: its box is cut.
    if (at >= 0) inlays.push({ recess: recess.id, outline: boxed(nth(rest.splice(at, 1), 0).ring) })
  }
  return { parts: parts.map((p) => boxed(p.ring)), inlays }
}

/** A ring of few points with its box at 0, 0, to a tenth of a millimetre. */
function boxed(ring: readonly Point[]): [number, number][] {
  const [x0, y0] = [Math.min(...ring.map((p) => p.x)), Math.min(...ring.map((p) => p.y))]
  let off = OFF_MM
  let thin = thinned(ring, off)
  while (thin.length > MOST_POINTS) thin = thinned(ring, (off *= 1.5))
  return thin.map((p): [number, number] => [Math.round((p.x - x0) * 10) / 10, Math.round((p.y - y0) * 10) / 10])
}

const area = (ring: readonly Point[]): number =>
  Math.abs(
    ring.reduce(
      (s, p, i) => s + p.x * nth(ring, (i + 1) % ring.length).y - p.y * nth(ring, (i + 1) % ring.length).x,
      0,
    ),
  ) / 2

/** The largest loop of a piece's rim in film places. */
function outerRing(map: SurfaceMap, piece: number): Point[] {
  const next = new Map<number, number>()
  const sides = new Set<string>()
  const corner = (t: number, k: number) => nth(map.triangles, 3 * t + (k % 3))
  const own = Array.from({ length: map.piece.length }, (_, t) => t).filter((t) => map.piece[t] === piece)
  for (const t of own) for (let k = 0; k < 3; k++) sides.add(`${corner(t, k)} ${corner(t, k + 1)}`)
  for (const t of own)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [corner(t, k), corner(t, k + 1)]
      if (!sides.has(`${b} ${a}`)) next.set(a, b)
    }
  let best: Point[] = []
  const seen = new Set<number>()
  for (const start of next.keys()) {
    const ring: Point[] = []
    for (let v: number | undefined = start; v !== undefined && !seen.has(v); v = next.get(v)) {
      seen.add(v)
      ring.push({ x: nth(map.film, 2 * v), y: nth(map.film, 2 * v + 1) })
    }
    if (area(ring) > area(best)) best = ring
  }
  return best
}

/** A ring with the points left out that lie within `off` of the line between those kept (Douglas and Peucker's way). */
function thinned(ring: readonly Point[], off: number): Point[] {
  if (ring.length < 4) return [...ring]
  const keep = new Uint8Array(ring.length)
  const far = ring.reduce(
    (m, p, i) =>
      Math.hypot(p.x - nth(ring, 0).x, p.y - nth(ring, 0).y) >
      Math.hypot(nth(ring, m).x - nth(ring, 0).x, nth(ring, m).y - nth(ring, 0).y)
        ? i
        : m,
    0,
  )
  keep[0] = keep[far] = 1
  const todo: [number, number][] = [
    [0, far],
    [far, ring.length],
  ]
  for (let span = todo.pop(); span; span = todo.pop()) {
    const [i, j] = span
    const [a, b] = [nth(ring, i), nth(ring, j % ring.length)]
    const long = Math.hypot(b.x - a.x, b.y - a.y) || 1
    let [worst, at] = [off, -1]
    for (let k = i + 1; k < j; k++) {
      const p = nth(ring, k)
      const d = Math.abs((b.x - a.x) * (a.y - p.y) - (a.x - p.x) * (b.y - a.y)) / long
      if (d > worst) [worst, at] = [d, k]
    }
    if (at < 0) continue
    keep[at] = 1
    todo.push([i, at], [at, j])
  }
  return ring.filter((_, i) => keep[i])
}
