import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import type { Point } from '@/core/kit/plane'

/** A section through an edge, true to scale in mm: x away from the panel, y down into the body. */
export interface SectionMarks {
  view: { x: number; y: number; w: number; h: number }
  /** Sheet metal and what stands beside it. */
  bodies: { id: 'panel' | 'neighbour' | 'seal'; points: Point[] }[]
  /** The film, from where it lies flat to where it is cut. */
  film: Point[]
  /** Blade from its grip to its point. */
  blade: [Point, Point] | null
  tape: [Point, Point] | null
  /** Something wider than fits lies here: the gap is drawn shorter than it is. */
  broken: boolean
  /** `label`: the middle of where its figure stands. */
  measures: { id: 'leave' | 'gap'; from: Point; to: Point; label: Point; mm: number }[]
}

const SHEET_MM = 1.2
const FLAT_MM = 34
const FLANGE_MM = 22
/** Film lies so far off the sheet in the drawing, so that both can be told apart. */
const OFF_MM = 1
const DRAWN_GAP_MM = 26
const BLADE_MM = 14

export function sectionMarks(e: EdgeDecision): SectionMarks {
  const broken = e.gapMm > DRAWN_GAP_MM
  const gap = Math.min(e.gapMm, DRAWN_GAP_MM)
  const isTurned = e.cut === 'own_underside'
  const panel = panelBody(isTurned)
  const open = e.meets === 'free' || e.meets === 'wheel_arch' || e.meets === 'bumper_underside'
  const film = filmLine(e, gap)
  const end = film[film.length - 1] ?? { x: 0, y: 0 }
  const bodies: SectionMarks['bodies'] = [{ id: 'panel', points: panel }]
  if (e.cut === 'seal_middle') bodies.push({ id: 'seal', points: box(0.6, -2.5, Math.max(4, gap) - 0.6, 7) })
  if (!open && !isTurned) bodies.push({ id: 'neighbour', points: neighbourBody(gap) })
  if (e.meets === 'opening') bodies.push({ id: 'neighbour', points: neighbourBody(gap + SHEET_MM) })
  return {
    view: { x: -FLAT_MM - 4, y: -20, w: FLAT_MM + DRAWN_GAP_MM + 40, h: 52 },
    bodies,
    film,
    blade: e.cut === 'none' || e.cut === 'flush' ? null : blade(e, end),
    tape: tapeOf(e, gap, end),
    broken,
    measures: [
      ...(e.cut !== 'none'
        ? [{ id: 'leave' as const, from: edgeOf(film), to: end, label: leaveLabel(e, end), mm: e.leaveMm }]
        : []),
      // Nought too: whoever types 0.5 passes by it.
      ...(!open
        ? [
            {
              id: 'gap' as const,
              from: { x: 0, y: -6 },
              to: { x: gap, y: -6 },
              label: { x: gap / 2, y: -12 },
              mm: e.gapMm,
            },
          ]
        : []),
    ],
  }
}

/** Below where the film ends, clear of sheet and blade. */
const leaveLabel = (e: EdgeDecision, end: Point): Point =>
  e.cut === 'own_underside' ? { x: end.x, y: end.y + 8 } : { x: -10, y: Math.min(26, end.y + 3) }

/** Where the film leaves the flat: its second corner. */
const edgeOf = (film: readonly Point[]): Point => film[1] ?? { x: 0, y: 0 }

const box = (x: number, y: number, w: number, h: number): Point[] => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + h },
  { x, y: y + h },
]

/** A sheet that ends in a hem, or that goes down into the body as a flange. */
function panelBody(isTurned: boolean): Point[] {
  if (isTurned)
    return [
      { x: -FLAT_MM, y: 0 },
      { x: 0, y: 0 },
      { x: 0, y: 2 * SHEET_MM },
      { x: -FLAT_MM / 2, y: 2 * SHEET_MM },
      { x: -FLAT_MM / 2, y: SHEET_MM },
      { x: -FLAT_MM, y: SHEET_MM },
    ]
  return [
    { x: -FLAT_MM, y: 0 },
    { x: 0, y: 0 },
    { x: 0, y: FLANGE_MM },
    { x: -SHEET_MM, y: FLANGE_MM },
    { x: -SHEET_MM, y: SHEET_MM },
    { x: -FLAT_MM, y: SHEET_MM },
  ]
}
const neighbourBody = (gap: number): Point[] => [
  { x: gap + FLAT_MM, y: 0 },
  { x: gap, y: 0 },
  { x: gap, y: FLANGE_MM },
  { x: gap + SHEET_MM, y: FLANGE_MM },
  { x: gap + SHEET_MM, y: SHEET_MM },
  { x: gap + FLAT_MM, y: SHEET_MM },
]

/** Flat, over the edge, and on as far as film is left: its length past the edge is that figure. */
function filmLine(e: EdgeDecision, gap: number): Point[] {
  const flat = { x: -FLAT_MM, y: -OFF_MM }
  const over = { x: OFF_MM, y: -OFF_MM }
  if (e.cut === 'filament' || e.leaveMm === 0) return [flat, { x: gap / 2, y: -OFF_MM }]
  if (e.cut !== 'own_underside') return [flat, over, { x: OFF_MM, y: -OFF_MM + e.leaveMm }]
  // Round the hem, then back below it.
  const down = 2 * SHEET_MM + 2 * OFF_MM
  const first = Math.min(down, e.leaveMm)
  const turned = { x: OFF_MM, y: -OFF_MM + first }
  return e.leaveMm > down ? [flat, over, turned, { x: OFF_MM - (e.leaveMm - down), y: turned.y }] : [flat, over, turned]
}

function blade(e: EdgeDecision, end: Point): [Point, Point] {
  const turn = (e.bladeDeg * Math.PI) / 180
  const up = e.cut === 'own_underside' ? -1 : 1
  return [{ x: end.x + BLADE_MM * Math.cos(turn), y: end.y - up * BLADE_MM * Math.sin(turn) }, end]
}

function tapeOf(e: EdgeDecision, gap: number, end: Point): [Point, Point] | null {
  if (e.cut === 'tape_on_neighbour')
    return [
      { x: gap, y: -0.6 },
      { x: gap + 8, y: -0.6 },
    ]
  if (e.cut === 'filament')
    return [
      { x: end.x - 0.6, y: 0.1 },
      { x: end.x + 0.6, y: 0.1 },
    ]
  return null
}

/** Length of the film past the panel's edge as it is drawn, mm. */
export function drawnPastEdge({ film }: SectionMarks): number {
  let mm = 0
  for (let i = 2; i < film.length; i++) {
    const [a, b] = [film[i - 1], film[i]]
    if (a && b) mm += Math.hypot(b.x - a.x, b.y - a.y)
  }
  return mm
}
