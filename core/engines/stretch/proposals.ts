import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import { spotsOver } from './spots'
import type { ReliefAt, ReliefPlace } from './relief-places'
import type { SurfaceMap } from './surface-map'

/**
 * A cut that parts a film, by straight lines on the panel. `seam`: across the whole of it; `slits`: cuts in from its
 * rim.
 */
export interface Proposal {
  kind: 'seam' | 'slits'
  lines: [Point, Point][]
  /** For cuts: whence they run in. */
  where?: 'corners' | 'top_corners' | 'bottom_corners' | 'top_and_bottom' | 'both_sides' | ReliefAt
  /** For seams: along which side the panel is divided, and where. */
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
 * Cuts of a panel's film worth solving: seams at even shares, through its worst places and along given lines;
 * cuts from its corners and sides, and at the places where hands make them.
 */
export function proposals(
  map: SurfaceMap,
  lines: readonly { along: 'width' | 'height'; atMm: number }[] = [],
  reliefs: readonly { where: ReliefAt; places: readonly ReliefPlace[] }[] = [],
): Proposal[] {
  const [x0, x1, y0, y1] = boxOf(map.taped)
  const box: Box = { x0, y0, widthMm: x1 - x0, heightMm: y1 - y0 }
  const seams = new Seams(box)
  // `along` of a body line is the way it runs; a seam on it divides the other way.
  for (const l of lines) seams.add(l.along === 'width' ? 'height' : 'width', [l.atMm])
  for (const s of spotsOver(map, 0.85 * map.report.stretch.max).slice(0, 3)) {
    seams.add('height', [s.yMm])
    seams.add('width', [s.xMm])
  }
  seams.addEvenShares()
  return [...seams.list, ...cutsFromCorners(map, box), ...cutsFromSides(box), ...cutsAtPlaces(box, reliefs)]
}

interface Box {
  x0: number
  y0: number
  widthMm: number
  heightMm: number
}

/** Seams so far: no two at nearly the same places. */
class Seams {
  readonly list: Proposal[] = []
  constructor(private readonly box: Box) {}

  add(along: 'width' | 'height', at: number[]): void {
    const { x0, y0, widthMm, heightMm } = this.box
    const [from, size] = along === 'width' ? [x0, widthMm] : [y0, heightMm]
    if (!at.every((mm) => mm - from > LEAST_PART * size && mm - from < (1 - LEAST_PART) * size)) return
    const isSame = (s: Proposal) =>
      s.along === along &&
      s.atMm?.length === at.length &&
      s.atMm.every((mm, i) => Math.abs(mm - nth(at, i)) < 0.03 * size)
    if (this.list.some(isSame)) return
    const line = (mm: number): [Point, Point] =>
      along === 'width'
        ? [
            { x: mm, y: y0 - 1 },
            { x: mm, y: y0 + heightMm + 1 },
          ]
        : [
            { x: x0 - 1, y: mm },
            { x: x0 + widthMm + 1, y: mm },
          ]
    this.list.push({ kind: 'seam', along, atMm: at, lines: at.map(line) })
  }

  addEvenShares(): void {
    const { x0, y0, widthMm, heightMm } = this.box
    for (const share of SEAMS) {
      this.add('height', [y0 + share * heightMm])
      this.add('width', [x0 + share * widthMm])
    }
    for (const [a, b] of [
      [1 / 3, 2 / 3],
      [0.15, 0.85],
    ] as const) {
      this.add('width', [x0 + a * widthMm, x0 + b * widthMm])
      this.add('height', [y0 + a * heightMm, y0 + b * heightMm])
    }
  }
}

/** A cut from the rim inwards, `share` of the shorter side long; it begins a little outside. */
function cut({ widthMm, heightMm }: Box, from: Point, inward: Point, share: number): [Point, Point] {
  const short = Math.min(widthMm, heightMm)
  return [
    { x: from.x - inward.x, y: from.y - inward.y },
    { x: from.x + inward.x * share * short, y: from.y + inward.y * share * short },
  ]
}

function cutsFromCorners(map: SurfaceMap, box: Box): Proposal[] {
  const { x0, y0, widthMm, heightMm } = box
  const corners = cornersOf(map, [x0, x0 + widthMm, y0, y0 + heightMm])
  const groups = [
    ['corners', corners],
    ['top_corners', corners.slice(0, 2)],
    ['bottom_corners', corners.slice(2)],
  ] as const
  return CORNER_CUTS.flatMap((share) =>
    groups.map(([where, own]): Proposal => ({
      kind: 'slits',
      where,
      lines: own.map((c) => cut(box, c.at, { x: c.x * Math.SQRT1_2, y: c.y * Math.SQRT1_2 }, share)),
    })),
  )
}

function cutsFromSides(box: Box): Proposal[] {
  const { x0, y0, widthMm, heightMm } = box
  const [midX, midY] = [x0 + widthMm / 2, y0 + heightMm / 2]
  return SIDE_CUTS.flatMap((share): Proposal[] => [
    {
      kind: 'slits',
      where: 'top_and_bottom',
      lines: [
        cut(box, { x: midX, y: y0 }, { x: 0, y: 1 }, share),
        cut(box, { x: midX, y: y0 + heightMm }, { x: 0, y: -1 }, share),
      ],
    },
    {
      kind: 'slits',
      where: 'both_sides',
      lines: [
        cut(box, { x: x0, y: midY }, { x: 1, y: 0 }, share),
        cut(box, { x: x0 + widthMm, y: midY }, { x: -1, y: 0 }, share),
      ],
    },
  ])
}

function cutsAtPlaces(box: Box, reliefs: readonly { where: ReliefAt; places: readonly ReliefPlace[] }[]): Proposal[] {
  const hidden = HIDDEN_CUT_MM / Math.min(box.widthMm, box.heightMm)
  return reliefs.flatMap(({ where, places }) =>
    [hidden, ...PLACE_CUTS].map((share): Proposal => ({
      kind: 'slits',
      where,
      lines: places.slice(0, MOST_SLITS).map((p) => cut(box, p.at, p.inward, share)),
    })),
  )
}

/** The places nearest to the four corners of the box, top two first, and the direction inward from each. */
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

/** Two proposals taken together: a seam and the cuts of another, as far as they do not cross. */
export const seamWithSlits = (seam: Proposal, slits: Proposal): Proposal => ({
  ...seam,
  lines: [...seam.lines, ...slits.lines],
})
