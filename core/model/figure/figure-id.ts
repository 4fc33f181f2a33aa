/** Figures of the rail, in its order. */
export const RAIL = [
  'film_order',
  'film_used',
  'yield',
  'worst_stretch',
  'seams',
  'edges',
  'tape',
  'heat_points',
  'crew_minutes',
  'ready_at',
  'cost',
] as const
export type RailCode = (typeof RAIL)[number]

/** What a film's layout is told by, or one way of getting the film. */
export const ROLL_PARTS = [
  'used',
  'bound',
  'yield',
  'order',
  'cost',
  'reserve',
  'join',
  'above',
  'cuts',
  'rests',
  'takes',
  'leaves',
  'area',
] as const
export type RollPart = (typeof ROLL_PARTS)[number]

export type ConditionCode = 'air' | 'dew_point' | 'area' | 'tau' | 'target' | 'warming' | 'lead' | 'in_by'
export type SurfacePart = 'map' | 'worst' | 'mean' | 'area' | 'post_heat' | 'residual'
export type WayOutPart = 'worst' | 'over' | 'seam' | 'film' | 'minutes'
/** How the gun goes along a panel's edges, how hot they become, how long it moves, and the minutes of it all. */
export type HeatPart = 'pace' | 'hold' | 'gap' | 'peak_low' | 'peak_high' | 'in_band' | 'moving' | 'minutes'
type Film = string
type PanelId = string

/** Every id of a figure. What it names (a film, a panel, a recess) stands between the strokes. */
export type FigureId =
  | 'walkaround/contrast'
  | `rail/${RailCode}`
  | `conditions/${ConditionCode}`
  | `panel/${PanelId}/${'area' | 'minutes'}`
  | `tape/${PanelId}/${string}`
  | `piece/${string}/${'width' | 'height'}`
  | `stretch/${PanelId}/${string}`
  | `corner/${string}/${string}/${'squeeze' | 'pull'}`
  | `heat/${PanelId}/${HeatPart}`
  | `supply/${string}`
  | `surface/${PanelId}/${SurfacePart}`
  | `way/${PanelId}/${number | 'now'}/${WayOutPart}`
  | `roll/${Film}/${RollPart}`
  | `roll/${Film}/source:${string}/${RollPart}`
  | `roll/${Film}/rest:${string}/area`
  | `fleet/${'used' | 'bound' | 'above' | 'yield'}`
  | `drops/${Film}/${string}/${string}`
  | `shingles/${Film}/${PanelId}/${'strip' | 'sheets'}`
  | `fitness/${Film}/${'contrast' | 'cost'}`
  | `fitness/${Film}/${PanelId}/cost`
