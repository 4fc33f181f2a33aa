import type { Fault } from '@/core/kit/result'
import type { Finding, WayOut } from '@/core/model/finding/finding'
import type { Standing } from '@/core/model/figure/figure'
import type { StageState } from '@/core/reckon/stages'
import type { Step } from '@/core/engines/run-sheet/steps'
import type { Formatter } from './format'
import { word } from './names'

type Facts = Record<string, string | number>
type Say = (f: Facts, fmt: Formatter) => string

const mm = (f: Facts, key: string, fmt: Formatter) => fmt.text(fmt.quantity(Number(f[key]), 'mm'))
const pct = (f: Facts, key: string, fmt: Formatter) => fmt.text(fmt.percent(Number(f[key])))
const deg = (f: Facts, key: string, fmt: Formatter) => fmt.text(fmt.temp(Number(f[key])))

/** How wide the parts overlap and which of them goes on first. */
const overlap = (f: Facts, fmt: Formatter): string =>
  f.first ? `; ${mm(f, 'overlap_mm', fmt)} overlap, the ${f.first} part first` : ''

/** How a wrong figure may have come about. */
const SLIPS: Record<string, string> = {
  tenth: 'A nought may be missing.',
  tenfold: 'There may be a nought too many.',
  inches: 'It may have been read in inches.',
  digits: 'Two digits may be the wrong way round.',
}
const slip = (f: Facts): string => SLIPS[String(f.slip ?? '')] ?? ''

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
  damage_waived: (f) =>
    `${f.kind === 'rust' ? 'Rust' : 'Peeling clear coat'}${f.panel ? ` on ${f.panel}` : ''} waived by ${f.by}: ${f.reason}`,
  panel_repaint_undated: (f) => `${f.panel || 'A panel'} was repainted, but not when. Ask: fresh paint has to gas out.`,
  panel_repaint_fresh: (f) =>
    `${f.panel || 'A panel'} was repainted ${f.days} days ago. Let it gas out ${f.wait} days more, unless the paint’s own sheet says otherwise.`,
  panel_repaint_may_lift: (f) => `${f.panel || 'A panel'} was repainted: paint may lift there at removal.`,
  never_cover_listed: (f) => `${f.count} ${f.count === 1 ? 'place stays' : 'places stay'} free of film.`,
  signed_before_change: (f) => `${f.name} signed before something here was changed. Show it and have it signed again.`,
  panels_blocked: (f) =>
    `${f.count} ${f.count === 1 ? 'panel is' : 'panels are'} blocked by the walkaround (${f.first} first): repair it, waive it with a reason, or leave it unwrapped.`,
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
  against_style: (f, fmt) =>
    `${f.panel}: ${f.field === 'widthMm' ? 'width' : 'height'} ${mm(f, 'value_mm', fmt)}, where this vehicle’s key lengths give about ${mm(f, 'expected_mm', fmt)}. ${f.guessed ? 'Some of those are assumed: tape them, and this stands.' : slip(f) || 'Tape it once more.'}`,
  edge_against_size: (f, fmt) =>
    `${f.panel}: ${f.at} edge ${mm(f, 'edge_mm', fmt)} does not go with ${mm(f, 'size_mm', fmt)} across. ${f.guess ? `The ${f.guess === 'size' ? 'size' : 'edge'} is only assumed: tape it.` : slip(f) || 'One of the two is probably wrong.'}`,
  rise_too_large: (f, fmt) =>
    `${f.panel}: the ${f.at} edge rises ${mm(f, 'rise_mm', fmt)} on a length of ${mm(f, 'length_mm', fmt)}. No curve does that: measure the edge round its curve.`,
  outline_impossible: (f, fmt) =>
    `${f.panel}: the ${f.at} edge (${mm(f, 'edge_mm', fmt)}) is longer than all the others together (${mm(f, 'others_mm', fmt)}). The outline cannot close; correct that edge.`,
  outline_open: (f, fmt) =>
    `${f.panel}: the outline does not close by ${mm(f, 'gap_mm', fmt)}. The ${f.at} edge (${mm(f, 'edge_mm', fmt)}) ${f.guessed ? 'is only assumed' : 'is probably wrong'}: ${mm(f, 'likely_mm', fmt)} would close it.`,
  straightedge_too_long: (f, fmt) =>
    `${f.panel}: a straightedge of ${mm(f, 'over_mm', fmt)} does not lie on a panel ${mm(f, 'size_mm', fmt)} from corner to corner.`,
  feature_off_panel: (f) => `${f.panel}: ${f.what} lies partly off the panel. Check where it is.`,
  holes_take_all: (f) => `${f.panel}: its holes take up all of it. Check their sizes.`,
  area_impossible: (f, fmt) =>
    `${f.panel}: its outline has ${fmt.text(fmt.area(Number(f.area_mm2)))}, more than width times height (${fmt.text(fmt.area(Number(f.box_mm2)))}). A size or an edge is wrong.`,
  girth_impossible: (f, fmt) =>
    `The ${f.side} side’s panels add up to ${mm(f, 'sum_mm', fmt)}, more than the vehicle’s ${mm(f, 'length_mm', fmt)}. ${f.panel} (${mm(f, 'value_mm', fmt)}) is probably wrong: about ${mm(f, 'likely_mm', fmt)} is to be expected.`,
  edges_meet_nothing: (f) =>
    `${f.count} ${f.count === 1 ? 'edge meets' : 'edges meet'} a gap to a neighbour that is not named (${f.first} first). Name it, or say what is there.`,
  neighbour_missing: (f) => `${f.panel}: the ${f.at} edge meets “${f.neighbour}”, which is no panel of this vehicle.`,
  neighbour_itself: (f) => `${f.panel}: the ${f.at} edge meets the panel itself.`,
  edges_disagree: (f, fmt) =>
    `${f.panel} and ${f.other} share an edge but measure ${mm(f, 'a_mm', fmt)} and ${mm(f, 'b_mm', fmt)}. ${f.wrong ? (f.guessed ? `${f.wrong} is only assumed: tape it. ` : `${f.wrong} is probably wrong. `) : ''}${slip(f)}`,
  mirror_differs: (f, fmt) =>
    `${f.panel} and ${f.other} should mirror each other: ${mm(f, 'a_mm', fmt)} against ${mm(f, 'b_mm', fmt)}. ${f.wrong ? (f.guessed ? `${f.wrong} is only assumed: tape it. ` : `${f.wrong} is probably wrong. `) : ''}${slip(f)}`,
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
  veto_edges: (f) =>
    `${f.film}: its sheet sets edges ${f.order === 'press_then_heat' ? 'press, then heat' : 'heat, then press'}. The sheet wins.`,
  veto_too_warm: (f, fmt) =>
    `${f.film} is shaped up to ${deg(f, 'max_c', fmt)}; laying at ${deg(f, 'want_c', fmt)} and more is past its sheet.`,
  veto_too_cool: (f, fmt) =>
    `${f.film} is shaped from ${deg(f, 'min_c', fmt)}; warming to ${deg(f, 'want_c', fmt)} does not soften it.`,
  veto_nothing_to_relax: (f) => `${f.film} keeps no tension from the roll: relaxing it first changes nothing.`,
  fit_blocked: (f) =>
    `${f.panel} is blocked: ${f.why === 'rust' ? 'rust' : f.why === 'repaint' ? 'fresh repaint' : 'loose clear coat'}.`,
  fit_stretch: (f, fmt) => `${f.panel} takes ${pct(f, 'value', fmt)}; the film bears ${pct(f, 'limit', fmt)}.`,
  fit_calendered_curve: () => 'Calendered film shrinks back from compound curves.',
  fit_sheet_curve: () => 'Sheet goods take flat or single-bent panels only.',
  fit_chrome_curve: () => 'Chrome will not take every curve: inlays and seams.',
  fit_deep_recess: () => 'It will not stay in a bridged recess: feed it, inlay it, or take cast film.',
  fit_width: (f, fmt) =>
    `The piece is ${mm(f, 'piece_mm', fmt)}; the widest roll ${mm(f, 'roll_mm', fmt)}. A seam is needed.`,
  fit_length: (f, fmt) => `The piece is ${mm(f, 'piece_mm', fmt)} long; the longest roll ${mm(f, 'roll_mm', fmt)}.`,
  fit_direction: () => 'Directional: the same way up as the other sides.',
  fit_air: (f, fmt) =>
    `The shop has ${deg(f, 'c', fmt)}; the sheet asks for ${deg(f, 'min_c', fmt)} to ${deg(f, 'max_c', fmt)}.`,
  fit_plastic_heat: (f, fmt) => `Post-heat from ${deg(f, 'min_c', fmt)} softens plastic parts. Ask the part’s maker.`,
  fit_contrast: (f) =>
    `Strong contrast to the body (ΔE ${f.delta_e}): deeper wrap-under, separate pieces, cut on the far side.`,
  fit_no_warranty: (f) => `No warranty in the ${f.zone} zone on ${f.surface} panels.`,
  no_climate: () => 'Nobody has read the shop’s air yet. Log a reading to check the film’s range and the dew point.',
  air_out_of_range: (f, fmt) =>
    `The shop’s air is ${deg(f, 'c', fmt)}; ${f.film} asks for ${deg(f, 'min_c', fmt)} to ${deg(f, 'max_c', fmt)}.`,
  surface_near_dew: (f, fmt) =>
    `The surface is ${deg(f, 'surface_c', fmt)}, the dew point ${deg(f, 'dew_c', fmt)}: less than ${f.margin} °C apart, so it may be damp. Warm it or dry the air before anything is stuck.`,
  surface_too_cold: (f, fmt) =>
    `The surface is ${deg(f, 'c', fmt)}; ${f.film} asks for at least ${deg(f, 'min_c', fmt)}.`,
  room_never_warms: (f, fmt) =>
    `A room at ${deg(f, 'air_c', fmt)} never brings the vehicle to ${deg(f, 'target_c', fmt)}. Heat the room first.`,
  vehicle_sweats: (f, fmt) =>
    `The vehicle comes in at ${deg(f, 'vehicle_c', fmt)}, under the dew point of ${deg(f, 'dew_c', fmt)}: water will settle on it. Let it warm and dry.`,
  bring_in_by: (f, fmt) =>
    `Bring the vehicle in by ${fmt.text(fmt.wallTime(String(f.at)))} (${fmt.text(fmt.minutes(Number(f.minutes)))} to warm and dry).`,
  stretch_over_limit: (f, fmt) =>
    `${f.panel} needs ${pct(f, 'value', fmt)} at ${String(f.where).startsWith('spot:') ? spotText(f.where) : `the ${f.where}`}, limit ${pct(f, 'limit', fmt)}. Film stretched past its limit lifts or tears.`,
  stretch_needs_post_heat: (f, fmt) =>
    `${f.panel}: ${pct(f, 'value', fmt)} is past ${pct(f, 'limit', fmt)}, so the area must be post-heated to ${deg(f, 'min_c', fmt)}–${deg(f, 'max_c', fmt)}.`,
  stretch_wrinkles: (f, fmt) =>
    `${f.panel}: ${fmt.text(fmt.area(Number(f.area_mm2)))} of film is squeezed past the ${pct(f, 'limit', fmt)} that heat takes; it will wrinkle there.`,
  corner_needs_relief: (f, fmt) =>
    `${f.panel}: turning the corners in squeezes the film ${pct(f, 'value', fmt)}; heat takes ${pct(f, 'limit', fmt)}. Relief cuts at the corners.`,
  piece_wider_than_roll: (f, fmt) =>
    f.why === 'no_room_left'
      ? `${f.piece} found no room on the rolls.`
      : `${f.piece} is ${mm(f, 'across_mm', fmt)} across and the roll ${mm(f, 'roll_mm', fmt)}. It cannot be cut in one piece.`,
  layout_stale: (f) => `Pieces in ${f.film} changed after the layout was kept. What was kept no longer fits.`,
  cut_spoiled: (f, fmt) =>
    Number(f.gone) === 1
      ? `A piece was cut for ${f.piece}, ${mm(f, 'across_mm', fmt)} × ${mm(f, 'along_mm', fmt)}, and the plan no longer asks for it. Label it as a rest, or take the change back.`
      : `${f.piece} is cut at ${mm(f, 'across_mm', fmt)} × ${mm(f, 'along_mm', fmt)}, and the plan now asks for more. It has to be cut again, or take the change back.`,
  knot: (f) => `${f.film}: no straight cut parts ${f.pieces}. Move one of them, or lay it out again.`,
  stock_short: (f, fmt) =>
    `${f.label} has ${mm(f, 'left_mm', fmt)} left and this layout still takes ${mm(f, 'need_mm', fmt)} from it. Somebody cut from it since. Lay it out again.`,
  lots_joined: (f, fmt) =>
    `${f.film} comes from two lots (${f.first}, ${f.second === 'new' ? 'and one to be bought' : f.second}). They meet over ${mm(f, 'length_mm', fmt)}${f.where ? `: ${f.where}` : ''}; from the second: ${f.panels}. Lay a sample of each beside the other first: shade varies between lots.`,
  bumpers_together: (f, fmt) =>
    `${f.front} and ${f.rear} lie side by side across the roll: one length of ${mm(f, 'length_mm', fmt)} can serve both.`,
  roof_two_pieces: (f) =>
    `${f.panel} may be two pieces, with the seam on ${f.line}: sometimes less film, always a seam.`,
  two_lots: (f) =>
    `The shelf has enough ${f.film}, but over ${f.lots} lots. Shade varies between lots: one lot for one colour area.`,
  several_rolls: (f) => `${f.film} takes ${f.rolls} rolls. Order them of one lot.`,
  reading_under: (f, fmt) =>
    `${f.panel}, ${f.point || f.kind}: ${deg(f, 'c', fmt)} is under ${deg(f, 'min_c', fmt)}. Heat again and read with the gun away.`,
  reading_over: (f, fmt) =>
    `${f.panel}, ${f.point || f.kind}: ${deg(f, 'c', fmt)} is over ${deg(f, 'max_c', fmt)} and under the film’s ${deg(f, 'limit_c', fmt)}: done. Look for a change of gloss.`,
  reading_too_hot: (f, fmt) =>
    `${f.panel}, ${f.point || f.kind}: ${deg(f, 'c', fmt)} is past the film’s ${deg(f, 'limit_c', fmt)}. Look at the film there; it counts as a defect until somebody closes it.`,
  crew_short: (f) =>
    `${f.count} ${f.count === 1 ? 'step needs' : 'steps need'} ${f.need} people (${f.first} first); the crew has ${f.crew}. Get a hand for those, or split the pieces.`,
  pre_stretch_past_bound: (f, fmt) =>
    `${f.panel} is planned with a pre-stretch of ${pct(f, 'value', fmt)}; ${f.film} bears ${pct(f, 'limit', fmt)}. Choose less, or another film.`,
  pre_stretch_warm: (f, fmt) =>
    `${f.panel}: a pre-stretch of ${pct(f, 'value', fmt)} is more than ${f.film} takes cold (${pct(f, 'limit', fmt)}). Warm the piece first.`,
  defect_logged: (f) => `${f.panel}: ${word('defect', String(f.defect))}${f.note ? ` (${f.note})` : ''}.`,
  lots_mixed: (f) => `${f.film} was cut from lots ${f.lots}. Look at the shade where they meet.`,
  more_film_than_planned: (f, fmt) => `${f.film}: ${mm(f, 'used_mm', fmt)} used, ${mm(f, 'planned_mm', fmt)} planned.`,
  recheck_overdue: (f, fmt) =>
    `Recheck was due ${fmt.moment(String(f.due))}. Every recess, bumper underside, convex and concave zone, mirror and pillar again.`,
  recheck_waits: (f, fmt) => `Recheck falls due ${fmt.moment(String(f.due))}.`,
}

/** `spot:top:left` in words. */
function spotText(where: string | number | undefined): string {
  const [, row, column] = String(where).split(':')
  if (row === 'middle') return column === 'middle' ? 'its middle' : `its ${column} side`
  return column === 'middle' ? `its ${row}` : `its ${row} ${column} corner`
}

export const findingText = (f: Pick<Finding, 'code' | 'facts'>, fmt: Formatter): string =>
  FINDINGS[f.code]?.(f.facts, fmt) ?? f.code

const WAYS: Record<string, Say> = {
  feed: (f) => `Feed ${f.recess} from its open side`,
  wider_gap: (f, fmt) => `Leave ${mm(f, 'gap_mm', fmt)} free on each side of ${f.recess}`,
  inlay: (f) => `Inlay ${f.recess}`,
  seam_on_line: (f, fmt) => `2 pieces, seam on ${f.line} at ${mm(f, 'at_mm', fmt)}${overlap(f, fmt)}`,
  one_length: () => 'Cut both from one length',
  seam: (f, fmt) => `${f.parts} pieces, seam${Number(f.parts) > 2 ? 's' : ''} across the ${f.along}${overlap(f, fmt)}`,
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
  settling: () => 'being reckoned; open the yard again in a moment',
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
  gas_out: ['Print gases out', 'Rolls stand loose and upright until laminated.'],
  laminate: ['Laminate the print', 'Dust-free, slowly, edges square: what is trapped now stays.'],
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
export const stepHint = (s: Pick<Step, 'code' | 'facts'>, fmt: Formatter | null = null): string => {
  if (s.code !== 'lay') return STEPS[s.code]?.[1] ?? ''
  const { order, liner, wet, shape_min_c: from, shape_max_c: to } = s.facts
  return [
    order === 'recesses_first'
      ? 'Dry fit first. Glass the piece; shallow recesses first, then the flats from the middle out.'
      : (STEPS.lay?.[1] ?? ''),
    liner === 'halves' ? 'Liner off in halves, on a hinge.' : '',
    wet === 'glide' ? 'A little glide fluid on the felt.' : '',
    from !== undefined && fmt
      ? `At room temperature; where it is shaped, warm it to ${fmt.temp(Number(from)).text}–${fmt.text(fmt.temp(Number(to)))}.`
      : '',
  ]
    .filter((t) => t !== '')
    .join(' ')
}

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
  nothing_to_undo: () => 'Nothing of yours to undo here.',
  nothing_to_redo: () => 'Nothing to do again.',
  changed_since: (f) =>
    `${f.by || 'Somebody else'} changed the same thing since${f.what ? ` (${f.what})` : ''}. Change it by hand, or bring an older state back from the history.`,
  busy: () => 'Others hold this at the moment. Try again in a few seconds.',
  too_much_at_once: () => 'The server has its hands full at the moment. Try again in a few seconds.',
  took_too_long: () => 'This took too long and was stopped. Try again with fewer panels.',
  thread_ended: () => 'The work was cut off. Try again.',
  control_character: () => 'There is a character in it that is no text. Type it anew.',
  another_member: () => 'These entries were made by another person. They go out when that person signs in here.',
  in_the_future: () => 'This entry says it happened in the future. Set the clock of this device, then enter it again.',
  before_the_job: () =>
    'This entry says it happened before the job was taken in. Set the clock of this device, then enter it again.',
  cut_made_already: () => 'That cut was ticked on another device already. The film was taken off once.',
  device_full: () => 'This device cannot keep the entry: its storage is full. Note it on paper and tell the lead.',
  bad_input: () => 'Cannot be read.',
  scan_quota: () => 'The shop keeps all the scans it can. Remove one that is not needed.',
  photo_quota: () => 'The shop keeps all the photos it can. Ask whoever runs the server.',
  too_many_pixels: () => 'The picture has too many pixels. Send a smaller one.',
  pre_stretch_too_much: (f, fmt) => `The film bears a pre-stretch of ${pct(f, 'limit', fmt)} at most.`,
  too_many_columns: (f) => `${f.columns} columns are too many (limit ${f.limit}). Is it the right file?`,
  entry_id_twice: () => 'This id is used twice.',
  piece_twice: () => 'This panel has its pieces chosen twice.',
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
  bad_number: (f) =>
    f.vertex
      ? `Point ${f.vertex} of the file has no sound place. Export it anew.`
      : 'Not a number that can be read. Try 37 1/2, 37.5in, 95cm or 0.95 m.',
  below_absolute_zero: () => 'Colder than anything can be.',
  too_small: (f) =>
    f.more_than === undefined ? `Too small: at least ${f.minimum}.` : `Has to be more than ${f.more_than}.`,
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
  key_too_small: (f) =>
    `Shorter than this body style goes (at least ${f.limit}). Choose another body, or check the tape.`,
  key_too_big: (f) => `Longer than this body style goes (at most ${f.limit}). Choose another body, or check the tape.`,
  changed_meanwhile: () => 'Somebody else changed it meanwhile. Reload, look, and make your change again.',
  min_over_max: () => 'The lower end of a range is above its upper end.',
  empty_table: () => 'There are no rows in it.',
  too_many_rows: (f) => `${f.rows} rows are too many (limit ${f.limit}). Is it the right file?`,
  missing_columns: () => 'These columns are missing.',
  unknown_column: () => 'This column is not known. See the list of columns.',
  column_twice: () => 'This column is there twice.',
  ragged_row: (f) =>
    `This row has ${f.cells} cells where the first has ${f.columns}. A quote or separator may be lost.`,
  row_twice: (f) => `The same as in line ${f.other}.`,
  not_a_word: (f) => `“${f.text}” is not one of: ${f.allowed}.`,
  bad_panel: () => 'Cannot be taken as it is.',
  bad_recess: (f) => `“${f.text}” is no recess. Write: name: 130 x 70 x 22 wall=45 open feed gap=60`,
  bad_quotes: () => 'A quoted cell is not closed. Check the quotes.',
  not_a_photo: () => 'This is not a photo that can be read. Use JPEG, PNG or WebP.',
  photo_too_large: (f) =>
    `The photo is too large (limit ${(Number(f.limit) / 1e6).toFixed(0)} MB). Send a smaller one.`,
  too_many_photos: () => 'This job has all the photos it can hold.',
  table: (f) => String(f.said),
  paste_too_low: (f) => `${f.rows} rows were copied, but only ${f.room} panels follow here. Add panels first.`,
  paste_too_wide: () => 'More columns were copied than the sheet has from here.',
  too_many_attempts: (f) =>
    f.seconds
      ? `Too many tries. The next one is possible in ${f.seconds} s.`
      : 'Too many tries. Wait a little, then try again.',
  no_such_roll: () => 'That roll is no longer part of this layout. Reload the page.',
  no_such_cut: () => 'That cut is not in the record any more, so there is nothing to take back.',
  no_cutting_table: () => 'No cutting table is set up for this shop. Save the file and carry it there.',
  layout_not_kept: () => 'Keep the layout first: the table cuts what is kept.',
  past_the_end: () => 'That is past the end of the roll.',
  no_pieces: () => 'None of these vehicles has a piece in this film. Choose the film on the job, and measure a panel.',
  no_stock: () => 'There is no film to lay them on: put a roll on the rack, or allow new rolls.',
  too_many_fleet_pieces: (f) => `That is more than ${f.limit} pieces. Lay them out in several goes.`,
  queue_down: () => 'The queue does not answer. Nothing was begun; try again in a moment.',
  solver_ended: () => 'The search ended before it had a plan. Try again; with fewer pieces if it happens twice.',
  crown_too_deep: (f) =>
    `The crown (${f.crown_mm} mm) is deeper than half its straightedge (${f.over_mm} mm): no surface has that. Check both figures.`,
  recess_too_wide: (f) => `The recess ${f.recess} is larger than its panel. Check its mouth.`,
  recess_off_panel: (f) => `The recess ${f.recess} lies off its panel. Check where its middle is.`,
  raised_off_panel: (f) => `${f.object} lies off its panel. Check where it is.`,
  recess_too_deep: (f) =>
    `The walls of ${f.recess} meet before it is ${f.depth_mm} mm deep. Check its depth, its mouth or the slope of its walls.`,
  nose_too_long: (f) =>
    `The nose takes ${f.length_mm} mm, and the panel is ${f.side_mm} mm there. Check its radius and angle.`,
  turn_too_tight: (f) =>
    `The ${f.side} end turns round ${f.radius_mm} mm, but the panel reaches ${f.back_mm} mm back there: it would fold on itself. Check the radius, the crown and the nose.`,
  fold_off_panel: (f) => `The body line ${f.line} lies off its panel. Check its position.`,
  bad_file: (f) =>
    f.why === 'face_index_zero'
      ? `Face ${f.face} of the file names vertex 0; vertices are numbered from 1. Export it anew.`
      : f.why === 'face_too_few_corners'
        ? `A face of the file has ${f.corners} corners; it takes three. Export it anew.`
        : `This is no mesh that can be read (${String(f.why ?? 'unknown form').replaceAll('_', ' ')}). OBJ, STL and PLY are.`,
  scan_too_many: (f) =>
    `The scan has ${f.triangles} triangles; up to ${f.limit} can be taken. Thin it where it was made.`,
  scan_too_large: () => 'The scan is too large to be kept. Cut out the panel alone.',
  bad_scan: (f) => `The scan did not arrive whole (${f.why}). Send it again.`,
  nothing_within: () => 'No surface that faces you lies within these points. Turn it, or put them round the panel.',
  handles: () =>
    'The surface has a loop through it (a handle that stands off): cut it away, or lay the panel from its tape.',
  no_worker: () => 'The stretch could not be solved in this browser.',
  outline_impossible: () => 'The outline does not close. Check its edges.',
  cannot_flatten: () => 'No flat film was found for this surface. A seam may help; check the taped figures first.',
  not_one_piece: () => 'The panel falls into parts. Check its outline and holes.',
  closed_surface: () => 'The surface has no edge. Check the outline.',
  not_manifold: () => 'The surface is folded on itself. Check outline, holes and recesses.',
  degenerate: () => 'A part of the surface has no area. Check outline and holes.',
  empty_mesh: () => 'Nothing is left of the panel. Check outline and holes.',
  wrong_sign_in: () => 'E-mail and password do not go together.',
}
export const faultText = (e: Fault, fmt: Formatter | null = null): string => {
  const said = FAULTS[e.code]?.(e.facts ?? {}, fmt as Formatter) ?? `Cannot be taken (${e.code}).`
  return e.at ? `${said} At: ${e.at}` : said
}
