import { FORMULA_FUNCTIONS, type FormulaFunction } from '@/core/model/figure/formula'

/** What a function of many inputs is given, by name; `names` in the order of its inputs. */
const byName =
  <Name extends string>(names: readonly Name[], say: (given: Record<Name, string>) => string) =>
  (...given: string[]): string =>
    say(Object.fromEntries(names.map((name, i) => [name, given[i]])) as Record<Name, string>)

/** Each function of a formula as people say it; what it is given stands in the order of its inputs. */
const SAID: { [F in FormulaFunction]: (...given: string[]) => string } = {
  area_of_panels: (panels) => `the areas of all ${panels} together`,
  area_past: (limit) => `area stretched past ${limit}`,
  area_squeezed: (area, over) => `of a surface of ${area}: what is squeezed past the ${over} that heat takes`,
  area_stretched: (area, over) => `of a surface of ${area}: what is stretched past ${over}`,
  best_place: (printable) => `the best place that no zone forbids, with strips of at most ${printable}`,
  bought_less: (takes) => `what is there and bought, less ${takes}`,
  cheapest_for: (...need) => `the cheapest that holds ${need.join(' + ')}`,
  curved_one_way: (down) => `${down} down: curved one way only, so film lies on it without stretch`,
  far_edge: (roll) => `far edge of the last band: ${roll}`,
  fed: (depth) => `fed from the open side: ${depth} deep, no stretch`,
  fewest_strips: (printable, side, overlap) =>
    `fewest strips of ${printable} over ${side} with ${overlap}, seams kept off`,
  flat: (crown) => `${crown} is taken as flat`,
  gun_solved: byName(
    ['air', 'transfer', 'footprint', 'film', 'wall', 'room', 'low', 'high', 'limit'],
    ({ air, transfer, footprint, film, wall, room, low, high, limit }) =>
      `solved as heat that goes into ${film} and ${wall} while air of ${air} (${transfer}, over ${footprint}) moves along, in a room of ${room}: the quickest sweep that brings the edge to ${low} to ${high} and nothing over ${limit}`,
  ),
  inlaid: (depth) => `inlay: a piece of its own, ${depth} deep`,
  largest_again: (again, risky) => `film for the largest ${again} of ${risky} pieces that may be done twice`,
  laid_even: () => 'worst stretch of the most even pull over the surface',
  laid_tightest: () => 'least worst stretch over the surface, no film squeezed beyond what heat shrinks',
  least_length: (pieces, width) => `no plan of all ${pieces} on ${width} can be shorter`,
  blades_for: (covered, edges, each) =>
    `one for each of ${covered} panels, or one for every ${each} of ${edges}: whichever is more`,
  rounded_up: (total, each) => `${total} ÷ ${each}, rounded up`,
  max_over_panels: (panels, worst) => `greatest of all ${panels}: ${worst}`,
  max_over_triangles: () => 'greatest anywhere of',
  mean_over_area: (worst) => `mean over the area of what is greatest at ${worst}`,
  meet_nowhere: () => 'the two lots meet nowhere',
  no_edge_taped: () => 'no edge asks for tape',
  no_panel_measured: () => 'no panel measured',
  no_panel_split: () => 'no panel is split',
  no_rests: () => 'no rest worth keeping',
  handed_over: () => 'handed over: nothing is waited for',
  no_start_set: () => 'no start set',
  none_risky: () => 'no piece is likely to be done twice',
  nothing_to_buy: () => 'nothing to buy',
  open_hours: byName(
    ['start', 'chain', 'work', 'opens', 'closes', 'week', 'waits'],
    ({ start, chain, work, opens, closes, week, waits }) =>
      `${start} + ${work} along the ${chain} steps that decide, on open days between ${opens} and ${closes} after midnight (${week} open in a week), + ${waits} waited by the clock`,
  ),
  packs_for: byName(
    ['needed', 'used', 'least', 'shelf', 'pack', 'each'],
    ({ needed, used, least, shelf, pack, each }) =>
      `what is open of ${needed}${each ? ` (one for ${each})` : ''} less ${used}, and ${least} to keep, less ${shelf} on the shelf: in packs of ${pack}`,
  ),
  post_heat_for: byName(
    ['moving', 'slower', 'places', 'place', 'readings', 'read', 'length', 'press', 'pressed', 'plain', 'steam', 'pace'],
    ({ moving, slower, places, place, readings, read, length, press, pressed, plain, steam, pace }) =>
      `${moving} along the edges (× ${slower}), ${places} heated alone at ${place}, ${readings} to be read at ${read}, ${length} pressed again at ${press}, ${pressed} heated and pressed at ${plain}, ${steam} of steam: all together × ${pace} for the crew, rounded up to a minute`,
  ),
  price_of: (order) => `price of ${order}`,
  profile: (mouth, wall, depth) =>
    `across a mouth of ${mouth}: walls of ${wall}° down ${depth}, the floor between, and up again`,
  quick_plan: (pieces, width) => `a first plan of all ${pieces} on ${width}`,
  relaxed: (map, residue) => `${map}, ${residue} taken out along the roll`,
  rolls_less: (takes) => `what is on these rolls, less ${takes}`,
  shelf_covers: (used, shelf) => (shelf ? `${shelf} on the shelf covers ${used}` : `the shelf covers ${used}`),
  shingle_sheets: (length, height, overlap, setback) =>
    `strips for ${length} × ${height} with ${overlap}, ${setback} short of exposed edges, offcuts used again,`,
  solved_on_scan: (_, rule) =>
    `solved on the scanned surface, laid in the method’s order; the rule alone makes it ${rule}`,
  solved_on_tape: (_, rule) =>
    `solved on the taped surface, laid in the method’s order; the rule alone makes it ${rule}`,
  sum_of_areas: () => 'area of the surface, part by part',
  unknown_while: (missing) => `not known while ${missing} pieces fit no roll`,
  warm_enough: (vehicle) => `${vehicle} is warm enough: 0`,
  worst_as_is: () => 'greatest stretch over the surface as the plan has it',
  worst_with_it: (_, now) =>
    `greatest stretch over the surface, laid anew with this taken${now ? ` (${now} as it is)` : ''}`,
}

const CALL = new RegExp(`\\b(${FORMULA_FUNCTIONS.join('|')})\\(([^()]*)\\)`, 'g')

/** A value as it is put into a formula: a comma of its own, as in a date, parts no two inputs. */
export const asInput = (text: string): string => text.replaceAll(', ', ',\u00a0')

/** A formula, or one with its numbers put in, with its functions said in words. */
export const formulaInWords = (formula: string): string =>
  formula.replace(CALL, (_, name: FormulaFunction, given: string) =>
    SAID[name](...given.split(/, (?=\S)/).filter((part) => part !== '')),
  )
