import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import { spotsOver } from './spots'
import type { ReliefAt, ReliefPlace } from './relief-places'
import type { SurfaceMap } from './surface-map'

/**
 * A way to part a film, by straight lines on the panel. `seam`: across the whole of it; `slits`: cuts in from its
 * rim.
 */
export interface Proposal {
  kind: 'seam' | 'slits'
  lines: [Point, Point][]
  /** For cuts: whence they run in. */
  where?: 'corners' | 'top_corners' | 'bottom_corners' | 'top_and_bottom' | 'both_sides' | ReliefAt
  /** For seams: the way the panel is divided, and where. */
  along?: 'width' | 'height'
  atMm?: number[]
}

/** Lengths of relief cuts from a corner, as shares of the shorter side; and from the middle of a side. */
const CORNER_CUTS = [0.16, 0.3, 0.45]
const SIDE_CUTS = [0.3]
/** Cuts at measured places: under the edge's own shadow [mm], and as shares of the shorter side. */
const HIDDEN_CUT_MM = 40
const PLACE_CUTS = [0.1, 0.2]
/** A piece takes no more. */
const MOST_SLITS = 12
/** Seams are tried at these shares of a side, beside its worst places and body lines. */
const SEAMS = [1 / 2, 1 / 4, 3 / 4]
/** A seam nearer to the rim than this share of a side parts off no piece worth the name. */
const LEAST_PART = 0.08

/**
 * Ways to part a panel's film worth solving: seams at even shares, through its worst places and along given lines;
 * cuts from its corners and sides, and at the places where hands make them.
 */
export function proposals(
  map: SurfaceMap,
  lines: readonly { along: 'width' | 'height'; atMm: number }[] = [],
  reliefs: readonly { where: ReliefAt; places: readonly ReliefPlace[] }[] = [],
): Proposal[] {
  const [x0, x1, y0, y1] = boxOf(map.taped)
  const [W, H] = [x1 - x0, y1 - y0]
  const worst = spotsOver(map, 0.85 * map.report.stretch.max).slice(0, 3)
  const seams: Proposal[] = []
  const seam = (along: 'width' | 'height', at: number[]) => {
    const [from, size] = along === 'width' ? [x0, W] : [y0, H]
    const kept = at.map((mm) => mm - from).filter((mm) => mm > LEAST_PART * size && mm < (1 - LEAST_PART) * size)
    if (kept.length !== at.length) return
    const same = (s: Proposal) =>
      s.along === along &&
      s.atMm?.length === at.length &&
      s.atMm.every((mm, i) => Math.abs(mm - nth(at, i)) < 0.03 * size)
    if (seams.some(same)) return
    seams.push({
      kind: 'seam',
      along,
      atMm: at,
      lines: at.map((mm): [Point, Point] =>
        along === 'width'
          ? [
              { x: mm, y: y0 - 1 },
              { x: mm, y: y1 + 1 },
            ]
          : [
              { x: x0 - 1, y: mm },
              { x: x1 + 1, y: mm },
            ],
      ),
    })
  }
  // `along` of a body line is the way it runs; a seam on it divides the other way.
  for (const l of lines) seam(l.along === 'width' ? 'height' : 'width', [l.atMm])
  for (const s of worst) {
    seam('height', [s.yMm])
    seam('width', [s.xMm])
  }
  for (const share of SEAMS) {
    seam('height', [y0 + share * H])
    seam('width', [x0 + share * W])
  }
  for (const [a, b] of [
    [1 / 3, 2 / 3],
    [0.15, 0.85],
  ] as const) {
    seam('width', [x0 + a * W, x0 + b * W])
    seam('height', [y0 + a * H, y0 + b * H])
  }
  const short = Math.min(W, H)
  const corners = cornersOf(map, [x0, x1, y0, y1])
  const cut = (from: Point, way: Point, share: number): [Point, Point] => [
    { x: from.x - way.x, y: from.y - way.y },
    { x: from.x + way.x * share * short, y: from.y + way.y * share * short },
  ]
  const diagonal = Math.SQRT1_2
  const slits: Proposal[] = []
  for (const share of CORNER_CUTS)
    for (const [where, own] of [
      ['corners', corners],
      ['top_corners', corners.slice(0, 2)],
      ['bottom_corners', corners.slice(2)],
    ] as const)
      slits.push({
        kind: 'slits',
        where,
        lines: own.map((c) => cut(c.at, { x: c.x * diagonal, y: c.y * diagonal }, share)),
      })
  for (const share of SIDE_CUTS)
    slits.push(
      {
        kind: 'slits',
        where: 'top_and_bottom',
        lines: [
          cut({ x: x0 + W / 2, y: y0 }, { x: 0, y: 1 }, share),
          cut({ x: x0 + W / 2, y: y1 }, { x: 0, y: -1 }, share),
        ],
      },
      {
        kind: 'slits',
        where: 'both_sides',
        lines: [
          cut({ x: x0, y: y0 + H / 2 }, { x: 1, y: 0 }, share),
          cut({ x: x1, y: y0 + H / 2 }, { x: -1, y: 0 }, share),
        ],
      },
    )
  for (const { where, places } of reliefs)
    for (const mm of [HIDDEN_CUT_MM, ...PLACE_CUTS.map((share) => share * short)])
      slits.push({
        kind: 'slits',
        where,
        lines: places.slice(0, MOST_SLITS).map((p) => cut(p.at, p.inward, mm / short)),
      })
  return [...seams, ...slits]
}

/** The places nearest to the four corners of the box, top two first, and the way inward from each. */
function cornersOf(
  map: SurfaceMap,
  [x0, x1, y0, y1]: [number, number, number, number],
): { at: Point; x: number; y: number }[] {
  return (
    [
      [1, 1],
      [-1, 1],
      [1, -1],
      [-1, -1],
    ] as const
  ).map(([x, y]) => {
    let best = { value: Infinity, at: { x: 0, y: 0 } }
    for (let v = 0; v < map.taped.length / 2; v++) {
      const p = { x: nth(map.taped, 2 * v), y: nth(map.taped, 2 * v + 1) }
      const value = (x > 0 ? p.x - x0 : x1 - p.x) + (y > 0 ? p.y - y0 : y1 - p.y)
      if (value < best.value) best = { value, at: p }
    }
    return { at: best.at, x, y }
  })
}
export function boxOf(places: Float64Array): [number, number, number, number] {
  const out: [number, number, number, number] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let i = 0; i < places.length; i += 2) {
    const [x, y] = [nth(places, i), nth(places, i + 1)]
    out[0] = Math.min(out[0], x)
    out[1] = Math.max(out[1], x)
    out[2] = Math.min(out[2], y)
    out[3] = Math.max(out[3], y)
  }
  return out
}

/** Two ways taken together: a seam and the cuts of another, as far as they do not cross. */
export const seamWithSlits = (seam: Proposal, slits: Proposal): Proposal => ({
  ...seam,
  lines: [...seam.lines, ...slits.lines],
})
