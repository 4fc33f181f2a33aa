import type { Edge } from '../vehicle/schema'

/** A code that says all by itself. */
export type NoFacts = Record<never, never>

interface Counted {
  count: number
  /** Name of the first of them. */
  first: string
}

interface InFilm {
  film: string
  /** Named where the finding is about one panel in the film. */
  panel?: string
}

interface OnPanel {
  panel: string
}

/** 1 for yes, 0 for no: facts are text and numbers, so that they can be kept and sent as they are. */
type Flag = 0 | 1
type Slip = '' | 'tenth' | 'tenfold' | 'inches' | 'digits'
interface Reading extends OnPanel {
  point: string
  kind: string
  c: number
  limit_c: number
  min_c: number
  max_c: number
}

interface Disagreement extends OnPanel {
  other: string
  a_mm: number
  b_mm: number
  /** Name of the panel whose figure is probably wrong; empty where neither stands out. */
  wrong: string
  guessed: Flag
  slip: Slip
}

/**
 * Every code of a finding with its facts, in base units (suffix of the name). A code that is added here and has no
 * sentence in `web/words/findings.ts` does not compile.
 */
export interface FindingFacts {
  // Walkaround
  paint_unknown: NoFacts
  condition_unknown: NoFacts
  repaint_undated: NoFacts
  repaint_in_future: { date: string }
  repaint_fresh: { days: number; need: number; wait: number }
  repaint_may_lift: NoFacts
  paint_old: { years: number; clean: number }
  paint_dull: NoFacts
  paint_unsound: { condition: string }
  damage_blocks: { kind: string; panel: string }
  damage_waived: { kind: string; panel: string; by: string; reason: string }
  panel_repaint_undated: OnPanel
  panel_repaint_fresh: { panel: string; days: number; wait: number }
  panel_repaint_may_lift: OnPanel
  never_cover_listed: { count: number }
  signed_before_change: { name: string }
  panels_blocked: Counted
  damage_recorded: { count: number }
  hardware_without_minutes: { count: number }
  strong_contrast: { delta_e: number; extra_mm: number }
  // Tape
  no_panels: NoFacts
  panel_too_large: { panel: string; size_mm: number; plausible_mm: number }
  figures_assumed: Counted
  edge_missing: { panel: string; at: Edge['at'] }
  against_style: {
    panel: string
    field: 'widthMm' | 'heightMm'
    value_mm: number
    expected_mm: number
    slip: Slip
    guessed: Flag
  }
  edge_against_size: {
    panel: string
    at: Edge['at']
    edge_mm: number
    size_mm: number
    guess: '' | 'size' | 'edge'
    slip: Slip
  }
  rise_too_large: { panel: string; at: Edge['at']; rise_mm: number; length_mm: number }
  outline_impossible: { panel: string; at: Edge['at']; edge_mm: number; others_mm: number }
  outline_open: {
    panel: string
    gap_mm: number
    guessed: Flag
    at: Edge['at'] | ''
    edge_mm: number
    likely_mm: number
  }
  straightedge_too_long: { panel: string; over_mm: number; size_mm: number }
  feature_off_panel: { panel: string; what: string }
  holes_take_all: OnPanel
  area_impossible: { panel: string; area_mm2: number; box_mm2: number }
  girth_impossible: {
    side: 'left' | 'right'
    sum_mm: number
    length_mm: number
    panel: string
    value_mm: number
    likely_mm: number
  }
  edges_meet_nothing: Counted
  neighbour_missing: { panel: string; at: Edge['at']; neighbour: string }
  neighbour_itself: { panel: string; at: Edge['at'] }
  edges_disagree: Disagreement & { at: Edge['at']; likely_mm: number }
  mirror_differs: Disagreement & { field: 'widthMm' | 'heightMm' }
  // Film: what speaks against a film, on the vehicle or on one panel
  no_film: NoFacts
  unfit_paint: InFilm & { condition: string }
  unfit_fresh_repaint: InFilm & { days: number; need: number }
  unfit_calendered_curves: InFilm & { panels: number; first: string }
  unfit_sheet_curves: InFilm & { panels: number; first: string }
  unfit_flat_only: InFilm & { panels: number; first: string }
  unfit_shows_through: InFilm
  unfit_deep_recess: InFilm & { panels: number; first: string }
  chrome_needs_seams: InFilm & { panels: number; first: string }
  chrome_law: InFilm
  print_gas_out: InFilm & { min: number; max: number }
  short_warranty: InFilm & { months: number }
  no_warranty_zone: InFilm & { zone: string }
  fit_blocked: InFilm & { why: 'rust' | 'peeling_clear' | 'repaint' }
  fit_stretch: InFilm & { value: number; limit: number }
  fit_calendered_curve: InFilm
  fit_sheet_curve: InFilm
  fit_chrome_curve: InFilm
  fit_deep_recess: InFilm
  fit_width: InFilm & { piece_mm: number; roll_mm: number }
  fit_length: InFilm & { piece_mm: number; roll_mm: number }
  fit_direction: InFilm
  fit_air: InFilm & { c: number; min_c: number; max_c: number }
  fit_plastic_heat: InFilm & { min_c: number }
  fit_contrast: InFilm & { delta_e: number }
  fit_no_warranty: InFilm & { zone: string; surface: string }
  // Method: what a film's sheet rules out
  torch_gloss_only: InFilm
  veto_edges: InFilm & { order: string }
  veto_too_warm: InFilm & { max_c: number; want_c: number }
  veto_too_cool: InFilm & { min_c: number; want_c: number }
  veto_nothing_to_relax: InFilm
  veto_tack: InFilm
  veto_slack_stays: InFilm & { shrinks: number }
  // Conditions
  no_climate: NoFacts
  air_out_of_range: { film: string; c: number; min_c: number; max_c: number }
  surface_near_dew: { surface_c: number; dew_c: number; margin: number }
  surface_too_cold: { film: string; c: number; min_c: number }
  room_never_warms: { air_c: number; target_c: number }
  vehicle_sweats: { vehicle_c: number; dew_c: number }
  bring_in_by: { at: string; minutes: number }
  // Pieces
  stretch_over_limit: { panel: string; value: number; limit: number; where: string }
  stretch_needs_post_heat: { panel: string; value: number; limit: number; min_c: number; max_c: number }
  stretch_wrinkles: { panel: string; area_mm2: number; limit: number }
  /** Corners that are neither pulled nor shrunk: cut on the hidden side, or parted by a seam. */
  corner_relief: { panel: string; count: number; value: number; limit: number }
  heat_no_way: { count: number; first: string; why: 'limit_below_band' | 'cannot_reach' | 'band_too_narrow' }
  corner_seam: { panel: string; count: number; value: number; limit: number }
  pre_stretch_past_bound: { panel: string; film: string; value: number; limit: number }
  tuck_too_deep: { panel: string; at: Edge['at']; leave_mm: number; room_mm: number }
  cut_not_there: { panel: string; at: Edge['at']; meets: Edge['meets']; cut: Exclude<Edge['cutAs'], null> }
  fewer_parts_than_usual: { panel: string; film: string; parts: number; usual: number }
  pre_stretch_warm: { panel: string; film: string; value: number; limit: number }
  // Roll
  piece_wider_than_roll: { piece: string; across_mm: number; roll_mm: number; film: string; why: string }
  layout_stale: { film: string }
  stock_short: { label: string; left_mm: number; need_mm: number }
  cut_spoiled: { piece: string; across_mm: number; along_mm: number; gone: Flag }
  knot: { film: string; pieces: string }
  two_lots: { film: string; lots: number }
  several_rolls: { film: string; rolls: number }
  lots_joined: { film: string; first: string; second: string; length_mm: number; where: string; panels: string }
  lot_residue: { film: string; lot: string; residue: number; sheet: number; tests: number }
  bumpers_together: { front: string; rear: string; length_mm: number }
  roof_two_pieces: { panel: string; line: string }
  // Run sheet and bay
  supply_short: { supply: string; tape: Flag; need: number; shelf: number; packs: number }
  crew_short: Counted & { need: number; crew: number }
  crew_alone: Counted & { crew: number; percent: number }
  promise_late: { promised: string; ready: string }
  window_missed: NoFacts
  lock_broken: Counted & { at: string }
  reading_under: Reading
  reading_over: Reading
  reading_too_hot: Reading
  defect_logged: { panel: string; defect: string; note: string }
  lots_mixed: { film: string; lots: string }
  more_film_than_planned: { film: string; used_mm: number; planned_mm: number }
  // Handover
  recheck_overdue: { due: string }
  recheck_waits: { due: string }
}

export type FindingCode = keyof FindingFacts

/** Facts of each way out of a finding. */
export interface WayOutFacts {
  feed: { recess: string }
  wider_gap: { recess: string; gap_mm: number }
  inlay: { recess: string }
  seam_on_line: { line: string; at_mm: number; overlap_mm: number; first: 'lower' | 'rear' }
  one_length: NoFacts
  seam: { parts: number; along: 'width' | 'height'; overlap_mm?: number; first?: 'lower' | 'rear' }
  pre_stretch: { stretch: number }
  relax_first: NoFacts
  lay_again: NoFacts
  take_residue: { residue: number }
  more_people: { crew: number; ready: string }
  start_earlier: { at: string; ready: string }
  locks_go: { count: number }
}

export type WayOutCode = keyof WayOutFacts
