import type { Method } from '../method/schema'
import { CUT_SIDES } from '../vehicle/kinds'
import type { Edge } from '../vehicle/schema'

export { CUT_SIDES } from '../vehicle/kinds'
export type CutSide = (typeof CUT_SIDES)[number]

/** How wide what lies between two parts is; a span is no gap: glass, a wheel, nothing at all. */
export const GAP_CLASSES = ['narrow', 'open', 'span'] as const
export type GapClass = (typeof GAP_CLASSES)[number]
/** How film takes to edges: drawn and shrunk, stiff, or a mirror layer that bears neither. */
export const FILM_CLASSES = ['formable', 'stiff', 'mirror'] as const
export type FilmClass = (typeof FILM_CLASSES)[number]

/** Gaps up to this have no room for a blade, mm. Common practice, no source. */
export const NARROW_GAP_MM = 2.5

/** What a row of the decision table looks at. */
export interface CutCase {
  meets: Edge['meets']
  gap: GapClass
  film: FilmClass
  arch: Method['wheelArch']
  seals: Method['seals']
  wish: Method['coverage']
  opens: 'panel' | 'neighbour' | 'none'
  seal: 'sound' | 'brittle'
}

/** One row of the decision table: it holds where all of its lists do; an absent list holds always. */
export type CutRule = { [K in keyof CutCase]?: readonly CutCase[K][] } & {
  id: string
  cut: CutSide
  /** Point of the blade, degrees: 30 for detail, 45 for straight runs. */
  bladeDeg: 30 | 45
}

/** What film is tucked under: how it sits decides how deep. */
export const SEALS: readonly Edge['meets'][] = ['rubber_seal', 'window_trim', 'glass']
const PULLED: readonly FilmClass[] = ['formable', 'stiff']
const NOT_FLUSH: readonly CutCase['wish'][] = ['full', 'quick']

/**
 * Where each edge is cut. Common practice, no source; every combination of what a row may look at hits exactly one of
 * them (test/core/edges.test.ts goes through all).
 */
export const CUT_RULES: readonly CutRule[] = [
  { id: 'opened_panel', meets: ['opening'], wish: ['full'], cut: 'own_underside', bladeDeg: 45 },
  { id: 'closed_lid', meets: ['opening'], wish: ['quick'], cut: 'closed_gap', bladeDeg: 45 },
  { id: 'turned_edge', meets: ['bumper_underside', 'free'], wish: NOT_FLUSH, cut: 'own_underside', bladeDeg: 45 },
  { id: 'arch_turned', meets: ['wheel_arch'], wish: NOT_FLUSH, arch: ['turned'], cut: 'own_underside', bladeDeg: 45 },
  { id: 'arch_shrunk', meets: ['wheel_arch'], wish: NOT_FLUSH, arch: ['shrunk'], cut: 'flush', bladeDeg: 45 },
  { id: 'arch_flush', meets: ['wheel_arch'], wish: NOT_FLUSH, arch: ['flush'], cut: 'flush', bladeDeg: 45 },
  {
    id: 'wished_flush',
    meets: ['opening', 'bumper_underside', 'free', 'wheel_arch'],
    wish: ['flush'],
    cut: 'flush',
    bladeDeg: 30,
  },
  {
    id: 'reached_when_open',
    meets: ['fixed_gap'],
    film: PULLED,
    wish: ['full'],
    opens: ['panel', 'neighbour'],
    cut: 'own_underside',
    bladeDeg: 45,
  },
  {
    id: 'gap_with_room',
    meets: ['fixed_gap'],
    gap: ['open', 'span'],
    film: PULLED,
    wish: ['full'],
    opens: ['none'],
    cut: 'far_side',
    bladeDeg: 45,
  },
  {
    id: 'gap_without_room',
    meets: ['fixed_gap'],
    gap: ['narrow'],
    film: PULLED,
    wish: ['full'],
    opens: ['none'],
    cut: 'tape_on_neighbour',
    bladeDeg: 45,
  },
  { id: 'quick_in_gap', meets: ['fixed_gap'], film: PULLED, wish: ['quick'], cut: 'tape_on_neighbour', bladeDeg: 45 },
  { id: 'gap_wished_flush', meets: ['fixed_gap'], film: PULLED, wish: ['flush'], cut: 'flush', bladeDeg: 30 },
  { id: 'mirror_by_wire', meets: ['fixed_gap', 'lamp'], film: ['mirror'], cut: 'filament', bladeDeg: 30 },
  { id: 'round_a_lamp', meets: ['lamp'], film: PULLED, cut: 'far_side', bladeDeg: 30 },
  { id: 'brittle_seal', meets: SEALS, seal: ['brittle'], cut: 'flush', bladeDeg: 30 },
  { id: 'under_a_seal', meets: SEALS, seal: ['sound'], seals: ['tucked'], cut: 'seal_middle', bladeDeg: 30 },
  { id: 'in_the_seals_gap', meets: SEALS, seal: ['sound'], seals: ['cut_in_gap'], cut: 'far_side', bladeDeg: 30 },
  { id: 'beside_a_rail', meets: ['drip_rail'], cut: 'tape_on_neighbour', bladeDeg: 45 },
  { id: 'along_a_bead', meets: ['bead'], cut: 'filament', bladeDeg: 30 },
]

/** What an edge usually leaves between its panel and the next, mm, where nobody took it. Common practice, no source. */
export const USUAL_GAP_MM: Record<Edge['meets'], number> = {
  opening: 4,
  fixed_gap: 4,
  rubber_seal: 8,
  window_trim: 8,
  glass: 500,
  wheel_arch: 500,
  drip_rail: 8,
  bumper_underside: 500,
  lamp: 4,
  free: 500,
  bead: 3,
}

/** How deep film goes under a seal by its width, mm: tight, normal, loose. Common practice, no source. */
export const SEAL_TUCK: readonly {
  fits: 'tight' | 'normal' | 'loose'
  upToGapMm: number
  tuckMm: number
  code: 'tight_seal' | 'normal_seal' | 'loose_seal'
}[] = [
  { fits: 'tight', upToGapMm: 5, tuckMm: 3, code: 'tight_seal' },
  { fits: 'normal', upToGapMm: 12, tuckMm: 10, code: 'normal_seal' },
  { fits: 'loose', upToGapMm: Infinity, tuckMm: 19, code: 'loose_seal' },
]
/** Edges that meet the wind go this much deeper, mm. Common practice, no source. */
export const FRONT_DEEPER_MM = 5
/** And this much more while roads are salted, where the shop says so, mm. Assumed. */
export const WINTER_DEEPER_MM = 3
/** A tool's stroke along an edge, mm: bites under a seal, runs on a turned edge. Common practice, no source. */
export const STROKE_MM = { seal: 40, tight: 25, turned: 50 }

/** Tape longer than its edge: an end to pull by, or an overlap, mm. Common practice, no source. */
export const TAPE_LEAD_MM = 100
export const MASKING_SPARE_MM = 50

/** Film left at a corner, and how far it is trimmed so either way, mm. Common practice, no source. */
export const CORNER_LEAVE_MM = 3
export const CORNER_TRIM_MM = 25
/** A pull over a corner begins this far back, mm. Common practice, no source. */
export const PULL_REACH_MM = 300
/** Corner radius where nobody took it, mm. Assumed. */
export const ASSUMED_CORNER_MM = 40
/** Film thicker than this stays stiff at corners: it is formed before it is laid. Assumed. */
export const THICK_FILM_UM = 150
/** A radius under this is too tight for a pull alone, mm. Assumed. */
export const TIGHT_CORNER_MM = 8

/** A recess deeper than this, with no open side, wants thin primer, mm. Common practice, no source. */
export const PRIMER_FROM_MM = 20
/** One blade's point for a panel, and for so many metres of edge. Common practice, no source. */
export const EDGE_M_PER_BLADE = 5
/** One felt for so many square metres. Assumed. */
export const M2_PER_FELT = 10

/** Film beyond a seam for a hand to hold while it is laid and trimmed, mm. Common practice, no source. */
export const SEAM_GRIP_MM = 45
/** A seam this near a body line lies on it, mm. Assumed. */
export const ON_LINE_MM = 5
