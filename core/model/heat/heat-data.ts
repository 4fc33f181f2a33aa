import type { Panel } from '../vehicle/schema'

/** A material as heat sees it: W/(m K), kg/m³, J/(kg K), and how thick it usually is on a vehicle, mm. */
export interface Matter {
  conductivity: number
  density: number
  specificHeat: number
  usualMm: number
}

/** From memory: handbook values, rounded; thicknesses assumed. A material that nobody named is taken for sheet steel. */
export const MATTER: Record<Panel['surface']['material'], Matter> = {
  unknown: { conductivity: 50, density: 7850, specificHeat: 470, usualMm: 0.8 },
  steel: { conductivity: 50, density: 7850, specificHeat: 470, usualMm: 0.8 },
  aluminium: { conductivity: 200, density: 2700, specificHeat: 900, usualMm: 1.1 },
  plastic: { conductivity: 0.2, density: 1000, specificHeat: 1900, usualMm: 3 },
  glass_fibre: { conductivity: 0.3, density: 1700, specificHeat: 1100, usualMm: 4 },
}
/** Film with its adhesive; its thickness is the sheet's. From memory. */
export const FILM_MATTER = { conductivity: 0.17, density: 1350, specificHeat: 1200 }

/** A source of heat as the sum sees it: air with its heat transfer, W/(m² K), or flux, W/m²; how wide it is, mm. */
export interface HeatSource {
  airC: number
  coefficient: number
  flux: number
  sigmaMm: number
}
/**
 * Sources that no shop measures: a medium-wave heater held at 150 mm, and a hand steamer, whose vapour gives its heat as
 * it settles. Assumed; the heater's own sheet first.
 */
export const OTHER_SOURCES = {
  infra_red: { airC: 20, coefficient: 10, flux: 9000, sigmaMm: 90 },
  steamer: { airC: 100, coefficient: 350, flux: 0, sigmaMm: 35 },
} as const satisfies Record<string, HeatSource>
export type OtherSource = keyof typeof OTHER_SOURCES

/** Film may be lifted again, and touched, under these, °C. Common practice, no source. */
export const SAFE_C = { lift: 40, touch: 45 }

/** Air that touches a panel in a shop, W/(m² K), in front and behind, and how warm it is, °C. Assumed. */
export const ROOM = { airC: 20, front: 10, behind: 5 }
/** What of a panel beside its edge takes part, mm. Assumed. */
export const EDGE_STRIP_MM = 200
/** What a hand can do: mm/s, passes, s, and mm past the ends. Assumed. */
export const HAND = { slowest: 2, fastest: 60, passes: 3, gapS: 30, holdS: 12, reachMm: 100 }

/**
 * How the gun goes along an edge by what is under the film: seconds it is held at the start, pace in mm/s, passes, and
 * seconds between them. Rounded from `cuirass heat-plan` at the usual thickness; test/core/run-sheet.test.ts holds them to it.
 */
export const GUN_PACE: Record<
  Panel['surface']['material'],
  { holdS: number; mmS: number; passes: number; gapS: number }
> = {
  unknown: { holdS: 5, mmS: 9, passes: 1, gapS: 0 },
  steel: { holdS: 5, mmS: 9, passes: 1, gapS: 0 },
  aluminium: { holdS: 4, mmS: 8, passes: 1, gapS: 0 },
  plastic: { holdS: 0, mmS: 20, passes: 1, gapS: 0 },
  glass_fibre: { holdS: 0, mmS: 18, passes: 1, gapS: 0 },
}
