export const FILM_KINDS = [
  'cast',
  'calendered',
  'hybrid_chrome',
  'colour_shift',
  'printed_cast',
  'sheet_goods',
] as const

/** Surfaces that a panel is reckoned by; a sheet may name others too. */
export const SURFACES = ['vertical', 'horizontal'] as const
/** Climate zones to begin with; sheets name their own. */
export const ZONES = ['mild', 'hot'] as const

/** Fields of a sheet that carry a standing of their own. */
export const STANDED_FIELDS = [
  'thicknessUm',
  'widthsMm',
  'rollLengthsMm',
  'soldBy',
  'directional',
  'postHeatOver',
  'stretchLimit',
  'heatShrink',
  'rollResidue',
  'shapingC',
  'postHeatC',
  'overlapC',
  'overlapMm',
  'waitBeforeCutMin',
  'postHeatFromMin',
  'postHeatUntilMin',
  'cureHours',
  'gasOutHours',
  'capSheet',
  'airC',
  'surfaceMinC',
  'edgeOrder',
  'warrantyMonths',
  'care',
  'colour',
  'heatLimitC',
  'preStretchMax',
  'recovers',
  'firstTack',
  'airRelease',
  'layers',
  'opaque',
  'adhesiveColour',
  'adhesiveLife',
  'lamination',
  'conforms',
  'heals',
  'wax',
  'seamLapMm',
  'longLapMm',
  'inlayLapMm',
] as const
