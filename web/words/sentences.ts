import type { Fault } from '@/core/kit/result'
import type { Finding, WayOut } from '@/core/reckon/finding'
import type { Standing } from '@/core/reckon/figure'
import type { StageState } from '@/core/reckon/stages'
import type { Step } from '@/core/run-sheet/steps'
import type { Formatter } from './format'
import { word } from './names'

type Facts = Record<string, string | number>
type Say = (f: Facts, fmt: Formatter) => string

const mm = (f: Facts, key: string, fmt: Formatter) => fmt.text(fmt.quantity(Number(f[key]), 'mm'))
const pct = (f: Facts, key: string, fmt: Formatter) => fmt.text(fmt.percent(Number(f[key])))
const deg = (f: Facts, key: string, fmt: Formatter) => fmt.text(fmt.temp(Number(f[key])))

const FINDINGS: Record<string, Say> = {
  paint_unknown: () =>
    'Paint origin is not recorded. Removal and warranty hang on it: ask the customer before anything is promised.',
  condition_unknown: () => 'Paint condition is not recorded yet.',
  repaint_undated: () => 'Repainted, but not when. Fresh paint has to gas out before film goes on; ask for the date.',
  repaint_in_future: (f) => `The repaint date ${f.date} lies in the future.`,
  repaint_fresh: (f) =>
    `Repainted ${f.days} days ago. Let it gas out ${f.wait} days more (${f.need} in all, unless the paint's own sheet says otherwise).`,
  repaint_may_lift: () =>
    'A repaint may lift when the film is removed one day. Say so to the customer and have it signed.',
  paint_old: (f) =>
    `Paint is ${f.years} years old. Film comes off clean from paint under about ${f.clean}; residue is to be expected.`,
  paint_dull: () => 'Dull paint: try adhesion on a hidden place first.',
  paint_unsound: (f) =>
    `${f.condition === 'rust' ? 'Rust' : 'Peeling clear coat'}: film will not hold and will take paint with it. Have it repaired first.`,
  damage_blocks: (f) =>
    `${f.kind === 'rust' ? 'Rust' : 'Peeling clear coat'}${f.panel ? ` on ${f.panel}` : ''} has to be repaired before that panel is wrapped.`,
  damage_recorded: (f) => `${f.count} damage ${f.count === 1 ? 'note' : 'notes'} recorded before the work.`,
  hardware_without_minutes: (f) =>
    `${f.count} part${f.count === 1 ? '' : 's'} to take off without minutes: the run sheet counts them as none.`,
  strong_contrast: (f, fmt) =>
    `Body and film differ strongly (ΔE ${f.delta_e}). It shows at every edge: separate pieces, ${mm(f, 'extra_mm', fmt)} more wrap-under. It is in the cut sizes already.`,
  no_panels: () => 'No panel is measured yet.',
  panel_too_large: (f, fmt) =>
    `${f.panel}: ${mm(f, 'size_mm', fmt)} is more than such a panel usually has (${mm(f, 'plausible_mm', fmt)}). Check the tape.`,
  figures_assumed: (f) =>
    `${f.count} ${f.count === 1 ? 'panel has' : 'panels have'} figures that are assumed, not taped (${f.first}${Number(f.count) > 1 ? ' and others' : ''}). They are hatched below.`,
  edge_missing: (f) => `${f.panel}: the ${f.at} edge is missing.`,
  edge_against_size: (f, fmt) =>
    `${f.panel}: ${f.at} edge ${mm(f, 'edge_mm', fmt)} does not go with ${mm(f, 'size_mm', fmt)} across. One of the two is probably wrong.`,
  neighbour_missing: (f) => `${f.panel}: the ${f.at} edge meets “${f.neighbour}”, which is no panel of this vehicle.`,
  edges_disagree: (f, fmt) =>
    `${f.panel} and ${f.other} share an edge but measure ${mm(f, 'a_mm', fmt)} and ${mm(f, 'b_mm', fmt)}.`,
  mirror_differs: (f, fmt) =>
    `${f.panel} and ${f.other} should mirror each other: ${mm(f, 'a_mm', fmt)} against ${mm(f, 'b_mm', fmt)}.`,
  no_film: () => 'No film is chosen yet.',
  unfit_paint: (f) =>
    `${f.film}: not on ${f.condition === 'rust' ? 'rust' : 'peeling clear coat'}. No film holds on it.`,
  unfit_fresh_repaint: (f) => `${f.film}: the repaint is ${f.days} days old and needs ${f.need} to gas out.`,
  unfit_calendered_curves: (f) =>
    `${f.film} is calendered: it shrinks back from compound curves. ${f.panels} panels have them, ${f.first} first. Cast film takes them.`,
  unfit_sheet_curves: (f) =>
    `${f.film} comes in sheets and takes flat or single-bent panels only. ${f.panels} panels are more than that, ${f.first} first.`,
  unfit_deep_recess: (f) =>
    `${f.film} will not stay in a bridged recess (${f.first}). Feed it, inlay it, or choose a cast film.`,
  chrome_needs_seams: (f) =>
    `${f.film}: curves that chrome will not take need inlays and seams (${f.panels} panels, ${f.first} first).`,
  chrome_law: () => 'Mirror-like film may be restricted on the road. Check local rules before it is ordered.',
  print_gas_out: (f) =>
    `Print stands ${f.min} to ${f.max} h to gas out before it is laminated. It is in the run sheet.`,
  short_warranty: (f) => `${f.film}: shortest warranty in this zone is ${f.months} months. Tell the customer.`,
  no_warranty_zone: (f) => `${f.film}: its sheet gives no warranty for this climate zone.`,
  torch_gloss_only: (f) => `A torch is for gloss film only, and never near solvent. ${f.film} is not gloss.`,
  stretch_over_limit: (f, fmt) =>
    `${f.panel} needs ${pct(f, 'value', fmt)} at the ${f.where === 'crown' ? 'crown' : f.where}, limit ${pct(f, 'limit', fmt)}. Film stretched past its limit lifts or tears.`,
  stretch_needs_post_heat: (f, fmt) =>
    `${f.panel}: ${pct(f, 'value', fmt)} is past ${pct(f, 'limit', fmt)}, so the area must be post-heated to ${deg(f, 'min_c', fmt)}–${deg(f, 'max_c', fmt)}.`,
  corner_needs_relief: (f, fmt) =>
    `${f.panel}: turning the corners in squeezes the film ${pct(f, 'value', fmt)}; heat takes ${pct(f, 'limit', fmt)}. Relief cuts at the corners.`,
  piece_wider_than_roll: (f, fmt) =>
    f.why === 'no_room_left'
      ? `${f.piece} found no room on the rolls.`
      : `${f.piece} is ${mm(f, 'across_mm', fmt)} across and the roll ${mm(f, 'roll_mm', fmt)}. It cannot be cut in one piece.`,
  layout_stale: (f) => `Pieces in ${f.film} changed after the layout was kept. What was kept no longer fits.`,
  two_lots: (f) =>
    `The shelf has enough ${f.film}, but over ${f.lots} lots. Shade varies between lots: one lot for one colour area.`,
  several_rolls: (f) => `${f.film} takes ${f.rolls} rolls. Order them of one lot.`,
  reading_under: (f, fmt) =>
    `${f.panel}, ${f.point || f.kind}: ${deg(f, 'c', fmt)} is under ${deg(f, 'min_c', fmt)}. Heat again and read with the gun away.`,
  reading_over: (f, fmt) =>
    `${f.panel}, ${f.point || f.kind}: ${deg(f, 'c', fmt)} is over ${deg(f, 'max_c', fmt)}. Look for a change of gloss.`,
  defect_logged: (f) => `${f.panel}: ${word('defect', String(f.defect))}${f.note ? ` (${f.note})` : ''}.`,
  lots_mixed: (f) => `${f.film} was cut from lots ${f.lots}. Look at the shade where they meet.`,
  more_film_than_planned: (f, fmt) => `${f.film}: ${mm(f, 'used_mm', fmt)} used, ${mm(f, 'planned_mm', fmt)} planned.`,
  recheck_overdue: (f, fmt) =>
    `Recheck was due ${fmt.moment(String(f.due))}. Every recess, bumper underside, convex and concave zone, mirror and pillar again.`,
  recheck_waits: (f, fmt) => `Recheck falls due ${fmt.moment(String(f.due))}.`,
}

export const findingText = (f: Pick<Finding, 'code' | 'facts'>, fmt: Formatter): string =>
  FINDINGS[f.code]?.(f.facts, fmt) ?? f.code

const WAYS: Record<string, Say> = {
  feed: (f) => `Feed ${f.recess} from its open side`,
  wider_gap: (f, fmt) => `Leave ${mm(f, 'gap_mm', fmt)} free on each side of ${f.recess}`,
  inlay: (f) => `Inlay ${f.recess}`,
  seam: (f) => `${f.parts} pieces, seam${Number(f.parts) > 2 ? 's' : ''} across the ${f.along}`,
  pre_stretch: (f, fmt) => `Pre-stretch ${pct(f, 'stretch', fmt)}, then shrink on`,
  relax_first: () => 'Relax first (whole job)',
  lay_again: () => 'Lay it out again',
}
export const wayText = (w: Pick<WayOut, 'code' | 'facts'>, fmt: Formatter): string =>
  WAYS[w.code]?.(w.facts, fmt) ?? w.code

const STAGE_WHY: Record<string, Say> = {
  paint_not_looked_at: () => 'paint not looked at',
  looked_at: () => 'looked at',
  film_chosen: () => 'film chosen',
  film_not_chosen: () => 'film not chosen',
  nothing_taped: () => 'nothing taped',
  some_assumed: (f) => `${f.count} panels partly assumed`,
  all_taped: (f) => `${f.count} panels taped`,
  no_pieces: () => 'no pieces yet',
  pieces_ready: (f) => `${f.count} pieces`,
  nothing_to_lay: () => 'nothing to lay out',
  layout_stale: () => 'kept layout out of date',
  layout_kept: () => 'layout kept',
  layout_not_kept: () => 'layout not kept yet',
  start_set: (f, fmt) => `starts ${fmt.text(fmt.wallTime(String(f.at)))}`,
  no_start: () => 'no start set',
  not_begun: () => 'not begun',
  in_bay: (f) => `${f.done} of ${f.of} steps, ${f.due} heat points due`,
  bay_done: () => 'work done',
  handed_over: () => 'handed over',
  not_ready: () => 'not ready',
  recheck_overdue: (f, fmt) => `recheck was due ${fmt.moment(String(f.due))}`,
  recheck_waits: (f, fmt) => `recheck due ${fmt.moment(String(f.due))}`,
  stops: (f) => `${f.count} ${f.count === 1 ? 'stop' : 'stops'}`,
}
export const stageWhy = (s: Pick<StageState, 'why' | 'facts'>, fmt: Formatter): string =>
  STAGE_WHY[s.why]?.(s.facts, fmt) ?? s.why

const STEPS: Record<string, [string, string]> = {
  bring_in: [
    'Bring the vehicle in',
    'The day before, to take up room temperature and to dry. No draught, no direct sun.',
  ],
  hardware_off: ['Hardware off', 'Dirt hides behind it. Bag and label the parts.'],
  wash: ['Wash', 'No wax. Mouldings and seams first.'],
  dry: ['Dry', 'Mouldings, seams and gaps; overnight indoors.'],
  decontaminate: ['Remove tar and adhesive, clay', 'Remover on the cloth, then clay.'],
  degrease: [
    'Degrease',
    '70 % isopropyl alcohol: edges, then surface, then recesses. Spray the cloth, not the panel. Tack cloth last.',
  ],
  mask: ['Mask and mark', 'Cover wheels, mask what stays free, mark concave and convex zones.'],
  gas_out: ['Print gases out, then laminate', 'Rolls stand loose and upright until laminated.'],
  cut: ['Cut pieces and label them', 'Arrow and label on each liner at once, scraps too.'],
  lay: ['Lay', 'Dry fit first. Glass the piece, high points first, then from the middle out.'],
  trim: [
    'Corners, edges, tuck, trim',
    'Corners first. Take the tension out of the last centimetres before the cut; cut on the far side.',
  ],
  post_heat: [
    'Post-heat and read',
    'Read after the gun is taken away: in its air stream the thermometer shows too much.',
  ],
  check_round: ['Check all round', 'Warm the surface: trapped air shows as bubbles. Every edge sealed.'],
  rest: ['Rest indoors', 'Overnight and longer, above 10 °C.'],
  recheck: [
    'Recheck',
    'Every recess, bumper underside, convex and concave zone, mirror and pillar. Press back with heat what has lifted.',
  ],
  hardware_on: ['Hardware on', ''],
  hand_over: ['Hand over', 'Walk round with the customer; papers and rests.'],
}
export const stepTitle = (s: Pick<Step, 'code' | 'name' | 'panelId'>): string =>
  `${STEPS[s.code]?.[0] ?? s.code}${s.name ? `: ${s.name}` : ''}`
export const stepHint = (s: Pick<Step, 'code'>): string => STEPS[s.code]?.[1] ?? ''

export const CAUTIONS: Record<string, string> = {
  hot: 'Hot film and metal burn at a touch.',
  blade: 'Keep blades off paint, seals, airbag covers and fingers; cut on tape where you can.',
  solvent: 'Ventilate. No flame, no torch, no spark near alcohol or cleaner.',
  torch: 'Torch: gloss film only, and never near solvent vapour.',
  never_cover:
    'Leave free: lamps, plates, sensors, radar and camera windows, reflectors, fuel cap labels, emergency-exit marks.',
  airbag_trim: 'Mirrors, aerials and airbag trims off and on by qualified people.',
}

export const STANDING_WORDS: Record<Standing, string> = {
  measured: 'measured',
  film_sheet: 'film sheet',
  published: 'published',
  common_practice: 'common practice',
  assumed: 'assumed',
}

const FAULTS: Record<string, Say> = {
  signed_out: () => 'You are signed out. Sign in again; what you typed is still here.',
  not_allowed: () => 'Your role does not cover this. Ask an owner or lead.',
  not_found: () => 'That is not here any more. Reload the page.',
  nothing_to_undo: () => 'Nothing to undo: this is how the job began.',
  went_wrong: (f) => `That did not work. Try again; if it happens twice, tell us reference ${f.reference}.`,
  offline: () => 'No connection. It is kept here and goes out by itself.',
  email_taken: () => 'Somebody already signs in with that address.',
  last_owner: () => 'A shop keeps at least one owner.',
  no_such_film: () => 'A film is named that is not among the sheets.',
  label_taken: () => 'Another roll has that label. Labels tell rolls apart: choose another.',
  not_enough_film: () => 'There is not that much left on this roll. Measure it, or cut from another.',
  no_such_stock: () => 'That roll is not on the rack.',
  id_taken: () => 'This entry clashes with another one. Enter it again.',
  not_a_valid_plan: () => 'The two changes do not go together. Reload and look at both.',
  later_version: (f) => `This job file is of a later version (${f.format}). This Cuirass reads ${f.reads}.`,
  not_a_job: (f) => `This is not a job file: its "format" should be "${f.reads}".`,
  truncated: () => 'The file breaks off in the middle. Export or copy it again.',
  too_large: (f) => `The file is too large (limit ${(Number(f.limit) / 1e6).toFixed(0)} MB).`,
  too_deep: () => 'The file is nested too deeply to be a job.',
  not_json: (f) => `The file is not readable as JSON${f.line ? ` (line ${f.line})` : ''}.`,
  empty: () => 'Nothing entered.',
  half_typed: () => 'Not finished: a number or fraction breaks off.',
  unknown_unit: (f) => `“${f.unit}” is no unit known here. Use mm, cm, m, in, ft, yd or mil.`,
  bad_number: () => 'Not a number that can be read. Try 37 1/2, 37.5in, 95cm or 0.95 m.',
  below_absolute_zero: () => 'Colder than anything can be.',
  too_small: (f) => `Too small: at least ${f.minimum}.`,
  too_big: (f) => `Too large: at most ${f.maximum}.`,
  unknown_key: () => 'An unknown key stands here.',
  invalid_type: (f) => `Missing or of the wrong kind (expected ${f.expected ?? 'another'}).`,
  invalid_value: () => 'Not one of the allowed words.',
  invalid_format: () => 'Not in the expected form.',
  duplicate_id: () => 'This id is used twice.',
  no_such_panel: () => 'It names a panel that is not there.',
  recess_larger_than_panel: () => 'A recess is larger than its panel.',
  crown_deeper_than_half: () => 'The crown is deeper than half its straightedge. Check both figures.',
  too_many_pieces: () => 'Too many pieces for one layout.',
  too_many_attempts: () => 'Too many attempts. Wait a few minutes, then try again.',
  wrong_sign_in: () => 'E-mail and password do not go together.',
}
export const faultText = (e: Fault, fmt: Formatter | null = null): string => {
  const said = FAULTS[e.code]?.(e.facts ?? {}, fmt as Formatter) ?? `Cannot be taken (${e.code}).`
  return e.at ? `${said} At: ${e.at}` : said
}
