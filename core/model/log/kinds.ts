export const DEFECT_KINDS = [
  'bubble',
  'fold',
  'fingers',
  'wrinkle',
  'adhesive_line',
  'recess_lifts',
  'lifted_edge',
  'dirt',
  'cut',
  'cut_in_paint',
  'torn',
  'whitened',
  'wrong_way_up',
  'colour_differs',
  'short',
  'other',
] as const
/** What was gone on with although something spoke against it. */
export const GUARDS = ['inside_wait', 'points_open', 'steps_open', 'early_recheck', 'hot_unread'] as const
/** How a place stood when it was looked at all round, or again a day later. */
export const PLACE_RESULTS = ['holds', 'pressed', 'redo'] as const
export const USED_KINDS = [
  'filament',
  'wire',
  'masking',
  'sealing',
  'holding',
  'primer',
  'blades',
  'felts',
  'alcohol',
] as const
