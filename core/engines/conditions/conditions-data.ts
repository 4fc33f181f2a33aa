import type { Vehicle } from '../../model/vehicle/schema'

/** Mass that takes part in warming, kg, by body style (assumed: typed for the job where it is known). */
export const MASS_KG: Record<Vehicle['kind'], number> = {
  city_car: 1050,
  saloon: 1500,
  estate: 1600,
  roadster: 1300,
  suv: 1850,
  pickup: 2000,
  small_van: 1500,
  high_van: 2200,
  minibus: 2400,
  box_body: 1800,
  trailer: 700,
  tank: 1500,
  motorcycle: 200,
  boat: 650,
  other: 1500,
}
/** Specific heat of a vehicle's mixture of steel, glass and plastics, J/kgK (assumed; steel alone has 470-490). */
export const HEAT_J_PER_KG_K = 500
/** Heat taken up from still indoor air by its movement and by radiation, W/m²K (assumed). */
export const SURFACE_W_PER_M2_K = 8
/** A surface this much above the dew point stays dry, K. Source: docs/sources.md#iso-8502-4. */
export const DEW_MARGIN_K = 3
/** A wet vehicle dries indoors overnight, minutes. Common practice, no source. */
export const DRYING_MIN = 720
