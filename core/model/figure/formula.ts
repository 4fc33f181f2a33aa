/**
 * What a formula computes that no arithmetic sign stands for, as functions over its named inputs. `web/words` says each
 * as people would; the command line prints the symbols.
 */
export const FORMULA_FUNCTIONS = [
  'area_of_panels',
  'area_past',
  'area_squeezed',
  'area_stretched',
  'best_place',
  'blades_for',
  'bought_less',
  'cheapest_for',
  'curved_one_way',
  'far_edge',
  'fed',
  'fewest_strips',
  'flat',
  'gun_solved',
  'inlaid',
  'largest_again',
  'laid_even',
  'laid_tightest',
  'least_length',
  'max_over_panels',
  'max_over_triangles',
  'mean_over_area',
  'meet_nowhere',
  'no_edge_taped',
  'no_panel_measured',
  'no_panel_split',
  'no_rests',
  'handed_over',
  'no_start_set',
  'none_risky',
  'nothing_to_buy',
  'open_hours',
  'packs_for',
  'price_of',
  'profile',
  'quick_plan',
  'relaxed',
  'rounded_up',
  'rolls_less',
  'shelf_covers',
  'shingle_sheets',
  'solved_on_scan',
  'solved_on_tape',
  'sum_of_areas',
  'unknown_while',
  'warm_enough',
  'worst_as_is',
  'worst_with_it',
] as const
export type FormulaFunction = (typeof FORMULA_FUNCTIONS)[number]

/** A function over inputs by their keys: `call('fed', 'depth')` is `fed({depth})`. */
export const call = (name: FormulaFunction, ...keys: string[]): string =>
  `${name}(${keys.map((key) => `{${key}}`).join(', ')})`
