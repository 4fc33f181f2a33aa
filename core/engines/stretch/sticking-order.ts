import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import type { Result } from '../../kit/result'
import type { Method } from '../../model/method/schema'
import type { PieceChoice } from '../../model/plan/schema'
import type { Panel, Recess } from '../../model/vehicle/schema'
import { chainsOn } from './mesh-ways'
import { mouth, type Box } from './mouth'
import type { ScanSurface } from '../../solve/mesh/scan'
import { mapOf, surfaceMap, type SurfaceMap, type SurfaceOptions } from './surface-map'

/** Film pressed into a recess first is stuck a little past its mouth, mm. Assumed. */
const PAST_MOUTH_MM = 8

const inside = (b: Box, p: Point): boolean => p.x > b.x0 && p.x < b.x1 && p.y > b.y0 && p.y < b.y1

/**
 * Film that is still free when a recess is pressed in: its gap all round for a bridge; for film that is fed, all on the
 * open side of its closed wall, whence it comes: only what lies behind that wall is stuck by then.
 */
export function freeRound(panel: Panel, r: Recess): Box {
  const box = mouth(panel, r, r.way === 'bridge' ? r.gapMm : PAST_MOUTH_MM)
  if (r.way !== 'feed') return box
  const far = 1e6
  const at = r.openAt
  return {
    x0: at === 'right' ? box.x0 : -far,
    x1: at === 'left' ? box.x1 : far,
    y0: at === 'bottom' ? box.y0 : -far,
    y1: at === 'top' ? box.y1 : far,
  }
}

/**
 * What is stuck first by the method: the flats but for what each recess keeps free, or the recesses. Null where
 * nothing is.
 */
export function stuckFirst(panel: Panel, order: Method['order']): ((p: Point) => boolean) | null {
  const own = panel.recesses.filter((r) => r.way !== 'inlay')
  if (own.length === 0) return null
  if (order === 'recesses_first') {
    const boxes = own.map((r) => mouth(panel, r, PAST_MOUTH_MM))
    return (p) => boxes.some((b) => inside(b, p))
  }
  const free = own.map((r) => freeRound(panel, r))
  return (p) => !free.some((b) => inside(b, p))
}

/** Straight lines along which the film of a panel is parted: its seams, its relief cuts, and round each inlay. */
export function linesOf(panel: Panel, choice: PieceChoice): [Point, Point][] {
  const { widthMm: W, heightMm: H } = panel
  const at =
    choice.parts > 1
      ? choice.seamsAtMm.length === choice.parts - 1
        ? choice.seamsAtMm
        : Array.from(
            { length: choice.parts - 1 },
            (_, i) => ((i + 1) * (choice.along === 'width' ? W : H)) / choice.parts,
          )
      : []
  const seams = at.map((mm): [Point, Point] =>
    choice.along === 'width'
      ? [
          { x: mm, y: 0 },
          { x: mm, y: H },
        ]
      : [
          { x: 0, y: mm },
          { x: W, y: mm },
        ],
  )
  const slits = choice.slits.map((s): [Point, Point] => [
    { x: s.fromXMm, y: s.fromYMm },
    { x: s.toXMm, y: s.toYMm },
  ])
  const inlays = panel.recesses.flatMap((r) => {
    if (r.way !== 'inlay') return []
    const { x0, y0, x1, y1 } = mouth(panel, r, 0)
    const ring = [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ]
    return ring.map((p, i): [Point, Point] => [p, nth(ring, (i + 1) % 4)])
  })
  return [...seams, ...slits, ...inlays]
}

export interface LayingOptions extends Omit<SurfaceOptions, 'lines' | 'laid'> {
  order: Method['order']
  /** All film moves until the last stroke: what no order can better. */
  atOnce?: boolean
  /** Film turned over the edge all round, mm: all at once then, heat shrinking what it can. */
  flangeMm?: number
  /** The panel as it was scanned, in place of the surface made of the tape. */
  scan?: ScanSurface | null
}

/** Places of a scan as shares of the taped sides: a scan is seen from the front, a tape runs over the surface. */
function onTape(panel: Panel, { taped }: ScanSurface): Float64Array {
  const most = [0, 1].map((d) => taped.reduce((m, v, i) => (i % 2 === d ? Math.max(m, v) : m), 0)) as [number, number]
  const by = [panel.widthMm / (most[0] || 1), panel.heightMm / (most[1] || 1)] as const
  return taped.map((v, i) => v * by[(i % 2) as 0 | 1])
}
/** A line on a scan is followed by vertices no further off than this, mm. */
const SCAN_REACH_MM = 60

/**
 * The map of a panel as its pieces and the method have it: parted along its seams and cuts, laid in the method's
 * order. Errors: those of `surfaceMap`.
 */
export function laidPanel(panel: Panel, choice: PieceChoice, options: LayingOptions): Result<SurfaceMap> {
  const { order, atOnce = false, scan, ...rest } = options
  const lines = linesOf(panel, choice)
  const edges = rest.flangeMm ? { shrink: rest.restShrink ?? rest.shrink } : {}
  const stuck = atOnce || rest.flangeMm ? null : stuckFirst(panel, order)
  const laid = stuck ? { laid: stuck } : {}
  if (scan) {
    const places = onTape(panel, scan)
    return mapOf(scan, places, { ...rest, ...laid, chains: chainsOn(places, lines, SCAN_REACH_MM) })
  }
  return surfaceMap(panel, { ...rest, ...edges, ...(lines.length > 0 ? { lines } : {}), ...laid })
}
