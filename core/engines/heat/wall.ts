import type { FilmSheet } from '../../model/film/schema'
import { FILM_MATTER, MATTER } from '../../model/heat/heat-data'
import type { Panel } from '../../model/vehicle/schema'

const MM = 1000

/** What lies under the gun, from the film inwards; two films where they lap. */
export function wallOf(
  surface: Panel['surface'],
  film: Pick<FilmSheet, 'thicknessUm'>,
  films = 1,
): { thicknessM: number; conductivity: number; heatCapacity: number }[] {
  const matter = MATTER[surface.material]
  return [
    {
      thicknessM: (films * film.thicknessUm) / 1e6,
      conductivity: FILM_MATTER.conductivity,
      heatCapacity: FILM_MATTER.density * FILM_MATTER.specificHeat,
    },
    {
      thicknessM: (surface.thicknessMm ?? matter.usualMm) / MM,
      conductivity: matter.conductivity,
      heatCapacity: matter.density * matter.specificHeat,
    },
  ]
}
