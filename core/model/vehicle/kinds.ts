export const PANEL_KINDS = [
  'bonnet',
  'roof',
  'door',
  'wing',
  'quarter',
  'front_bumper',
  'rear_bumper',
  'boot_lid',
  'hatch',
  'tailgate',
  'bed_side',
  'mirror',
  'handle',
  'aerial',
  'pillar',
  'sill',
  'spoiler',
  'van_side',
  'box_side',
  'fuel_flap',
  'hull_side',
  'fairing',
  'tank_shell',
  'other',
] as const

export const SIDES = ['left', 'right', 'centre', 'front', 'rear'] as const
export const EDGE_MEETS = [
  'opening',
  'fixed_gap',
  'rubber_seal',
  'window_trim',
  'glass',
  'wheel_arch',
  'drip_rail',
  'bumper_underside',
  'lamp',
  'free',
  'bead',
] as const

export const VEHICLE_KINDS = [
  'city_car',
  'saloon',
  'estate',
  'roadster',
  'suv',
  'pickup',
  'small_van',
  'high_van',
  'minibus',
  'box_body',
  'trailer',
  'tank',
  'motorcycle',
  'boat',
  'other',
] as const

export const MATERIALS = ['unknown', 'steel', 'aluminium', 'plastic', 'glass_fibre'] as const
export const BEHIND = ['tucked', 'inlay', 'overlay'] as const
export const RAISED_KINDS = [
  'handle',
  'moulding',
  'aerial',
  'badge',
  'jet',
  'fuel_cap',
  'lamp',
  'sensor',
  'other',
] as const

export const ATS = ['top', 'right', 'bottom', 'left'] as const

/** How often hands take hold of an edge. */
export const GRABS = ['low', 'usual', 'high'] as const
/** What can be opened so that hands reach an edge. */
export const OPENS = ['panel', 'neighbour', 'none'] as const
export const TIGHTNESS = ['tight', 'normal', 'loose', 'brittle'] as const
/** Where the blade goes, the same seven everywhere; `none`: nothing is cut there. */
export const CUT_SIDES = [
  'far_side',
  'own_underside',
  'tape_on_neighbour',
  'filament',
  'seal_middle',
  'closed_gap',
  'flush',
  'none',
] as const
/** Wider than a hand's gap is a span: glass, a wheel, nothing at all. mm, common practice, no source. */
export const WIDEST_GAP_MM = 40

/** No body part is longer than this; a larger figure is a slip of the pen (assumed). */
export const MAX_PANEL_MM = 15000
export const MAX_PANELS = 500
