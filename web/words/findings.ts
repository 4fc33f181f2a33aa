import type { FindingCode, FindingFacts, WayOutCode, WayOutFacts } from '@/core/model/finding/finding-facts'
import type { Said, WayOut } from '@/core/model/finding/finding'
import type { Formatter } from './format'
import { word } from './names'

const mm = <F extends object>(f: F, key: keyof F & string, fmt: Formatter) =>
  fmt.text(fmt.quantity(Number(f[key]), 'mm'))
const pct = <F extends object>(f: F, key: keyof F & string, fmt: Formatter) => fmt.text(fmt.percent(Number(f[key])))
const deg = <F extends object>(f: F, key: keyof F & string, fmt: Formatter) => fmt.text(fmt.temp(Number(f[key])))

/** How wide the parts overlap and which of them goes on first. */
const overlap = (f: { overlap_mm?: number; first?: string }, fmt: Formatter): string =>
  f.first ? `; ${mm(f, 'overlap_mm', fmt)} overlap, the ${f.first} part first` : ''

/** How a wrong figure may have come about. */
const SLIPS: Record<string, string> = {
  tenth: 'A nought may be missing.',
  tenfold: 'There may be a nought too many.',
  inches: 'It may have been read in inches.',
  digits: 'Two digits may be the wrong way round.',
}
const slip = (f: { slip: string }): string => SLIPS[f.slip] ?? ''

const FINDINGS: { [C in FindingCode]: (f: FindingFacts[C], fmt: Formatter) => string } = {
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
  unfit_flat_only: (f) =>
    `${f.film} takes flat and simply curved panels only. ${f.panels} panels are more than that, ${f.first} first.`,
  unfit_shows_through: (f) =>
    `${f.film} lets light through: the dark body will show. Lay a test piece, or take an opaque film.`,
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
  veto_tack: (f) =>
    `${f.film} grabs at first touch: its liner comes off in halves, with two people and more masking beside it.`,
  veto_slack_stays: (f, fmt) =>
    `${f.film} shrinks ${pct(f, 'shrinks', fmt)} under heat: slack inside a tacked rim would stay as wrinkles.`,
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
  corner_relief: (f, fmt) =>
    `${f.panel}: ${corners(f)} a pull of ${pct(f, 'value', fmt)}, this film bears ${pct(f, 'limit', fmt)}. Cut underneath, from the edge toward the corner, one flap over the other; never on the visible face.`,
  heat_no_way: (f) =>
    `${f.first}${Number(f.count) > 1 ? ` and ${Number(f.count) - 1} more` : ''}: ` +
    {
      limit_below_band: 'the film’s limit lies below its post-heat range. Look at its sheet.',
      cannot_reach: 'no gun of the shop gets the edges hot enough. A hotter gun, or infra-red.',
      band_too_narrow:
        'no way of moving the shop’s guns brings a whole edge into the film’s range. Go by hand, and read often.',
    }[f.why],
  corner_seam: (f, fmt) =>
    `${f.panel}: ${corners(f)} a pull of ${pct(f, 'value', fmt)}, this film bears ${pct(f, 'limit', fmt)}, and no side is hidden to cut on. Part the film there, or choose one that shrinks or bears more.`,
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
  lot_residue: (f, fmt) =>
    `Strips of lot ${f.lot} of ${f.film} lost ${pct(f, 'residue', fmt)} (${f.tests === 1 ? 'one strip' : `${f.tests} strips`}); this job reckons with ${pct(f, 'sheet', fmt)}. Cut sizes and stretch follow the lot once it is taken.`,
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
  supply_short: (f, fmt) => {
    const amount = (n: number) => (Number(f.tape) === 1 ? fmt.text(fmt.longLength(n * 1000)) : String(Math.ceil(n)))
    return `${word('supply', String(f.supply))}: ${amount(Number(f.need))} needed, ${amount(Number(f.shelf))} on the shelf${Number(f.packs) > 0 ? `. Order ${f.packs} ${Number(f.packs) === 1 ? 'pack' : 'packs'}` : ''}.`
  },
  crew_short: (f) =>
    `${f.count} ${f.count === 1 ? 'step needs' : 'steps need'} ${f.need} people (${f.first} first); the crew has ${f.crew}. Get a hand for those, or split the pieces.`,
  crew_alone: (f) =>
    `${f.count} ${f.count === 1 ? 'step wants' : 'steps want'} one more pair of hands (${f.first} first) and may be done without: about ${f.percent} % longer each.`,
  promise_late: (f, fmt) =>
    `Promised for ${fmt.text(fmt.wallTime(String(f.promised)))}; by these steps it is ready ${fmt.text(fmt.wallTime(String(f.ready)))}.`,
  lock_broken: (f, fmt) =>
    `${f.first} is locked to ${fmt.text(fmt.wallTime(String(f.at)))}${Number(f.count) > 1 ? `, and ${Number(f.count) - 1} more` : ''}: these hours, people and waits do not allow that. It stands where it falls.`,
  window_missed: () =>
    'Some panel cannot be post-heated within its film’s window by these hours. Begin it on another day, or stay late.',
  pre_stretch_past_bound: (f, fmt) =>
    `${f.panel} is planned with a pre-stretch of ${pct(f, 'value', fmt)}; ${f.film} bears ${pct(f, 'limit', fmt)}. Choose less, or another film.`,
  pre_stretch_warm: (f, fmt) =>
    `${f.panel}: a pre-stretch of ${pct(f, 'value', fmt)} is more than ${f.film} takes cold (${pct(f, 'limit', fmt)}). Warm the piece first.`,
  tuck_too_deep: (f, fmt) =>
    `${f.panel}, ${f.at}: ${mm(f, 'leave_mm', fmt)} of film are to go where there is room for ${mm(f, 'room_mm', fmt)}. Leave less, or take the gap or seal again.`,
  cut_not_there: (f) =>
    `${f.panel}, ${f.at}: the cut is set to “${word('cutSide', String(f.cut))}”, and an edge like this (${word('edge', String(f.meets))}) has none. Choose another cut, or say what it meets.`,
  fewer_parts_than_usual: (f) =>
    `${f.panel} is planned in ${Number(f.parts) === 1 ? 'one piece' : `${f.parts} pieces`} of ${f.film}; hands go round it in ${f.usual}.`,
  defect_logged: (f) => `${f.panel}: ${word('defect', String(f.defect))}${f.note ? ` (${f.note})` : ''}.`,
  lots_mixed: (f) => `${f.film} was cut from lots ${f.lots}. Look at the shade where they meet.`,
  more_film_than_planned: (f, fmt) => `${f.film}: ${mm(f, 'used_mm', fmt)} used, ${mm(f, 'planned_mm', fmt)} planned.`,
  recheck_overdue: (f, fmt) =>
    `Recheck was due ${fmt.moment(String(f.due))}. Every recess, bumper underside, convex and concave zone, mirror and pillar again.`,
  recheck_waits: (f, fmt) => `Recheck falls due ${fmt.moment(String(f.due))}.`,
}

/** `spot:top:left` in words. */
/** "2 corners ask for" */
const corners = (f: { count: number }): string =>
  Number(f.count) === 1 ? 'a corner asks for' : `${f.count} corners ask for up to`

function spotText(where: string | number | undefined): string {
  const [, row, column] = String(where).split(':')
  if (row === 'middle') return column === 'middle' ? 'its middle' : `its ${column} side`
  return column === 'middle' ? `its ${row}` : `its ${row} ${column} corner`
}

export const findingText = (f: Pick<Said, 'code' | 'facts'>, fmt: Formatter): string =>
  // Code and facts belong together, which a look-up in a table of sentences cannot show.
  (FINDINGS[f.code] as (facts: Said['facts'], fmt: Formatter) => string)(f.facts, fmt)

const WAYS: { [C in WayOutCode]: (f: WayOutFacts[C], fmt: Formatter) => string } = {
  feed: (f) => `Feed ${f.recess} from its open side`,
  wider_gap: (f, fmt) => `Leave ${mm(f, 'gap_mm', fmt)} free on each side of ${f.recess}`,
  inlay: (f) => `Inlay ${f.recess}`,
  seam_on_line: (f, fmt) => `2 pieces, seam on ${f.line} at ${mm(f, 'at_mm', fmt)}${overlap(f, fmt)}`,
  one_length: () => 'Cut both from one length',
  seam: (f, fmt) => `${f.parts} pieces, seam${Number(f.parts) > 2 ? 's' : ''} across the ${f.along}${overlap(f, fmt)}`,
  pre_stretch: (f, fmt) => `Pre-stretch ${pct(f, 'stretch', fmt)}, then shrink on`,
  relax_first: () => 'Relax first (whole job)',
  more_people: (f, fmt) => `A crew of ${f.crew}: ready ${fmt.text(fmt.wallTime(String(f.ready)))}`,
  start_earlier: (f, fmt) =>
    `Start ${fmt.text(fmt.wallTime(String(f.at)))}: ready ${fmt.text(fmt.wallTime(String(f.ready)))}`,
  locks_go: (f) => (Number(f.count) > 1 ? `Let these ${f.count} locks go` : 'Let the lock go'),
  take_residue: (f, fmt) => `Reckon with ${pct(f, 'residue', fmt)} for this job`,
  lay_again: () => 'Lay it out again',
}

export const wayOutText = (w: Pick<WayOut, 'code' | 'facts'>, fmt: Formatter): string =>
  (WAYS[w.code] as (facts: WayOut['facts'], fmt: Formatter) => string)(w.facts, fmt)
