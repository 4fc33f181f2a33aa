import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { EdgeSetting } from '../../model/edge/edge-leave'
import type { ShopSettings } from '../../model/shop/shop'
import type { Plan } from '../../model/plan/schema'
import { STRONG_CONTRAST_DE } from '../../model/vehicle/paint-data'
import { figure, input, type Figure } from '../../model/figure/figure'
import type { FigureId } from '../../model/figure/figure-id'
import { hexDifference } from '../../model/vehicle/colour'

/** Colour difference of body and film with its working, ΔE00. */
export const contrastFigure = (id: FigureId, plan: Plan, film: FilmSheet, value: number): Figure =>
  figure({
    id,
    value,
    unit: 'delta_e',
    formula: 'CIEDE2000({body}, {film})',
    inputs: [
      // Picked by eye, not read by an instrument.
      input('body', plan.vehicle.colour.hex, 'delta_e', 'assumed', 'vehicle/colour'),
      input('film', film.colour.hex, 'delta_e', filmStanding(film, 'colour'), `film/${film.id}/colour`),
    ],
    source: 'docs/sources.md#sharma-2005',
    standing: 'published',
    limit: { value: STRONG_CONTRAST_DE, unit: 'delta_e', kind: 'max', standing: 'assumed', at: 'data/contrast' },
  })
/** What of a job every edge of it hangs on beside its method. */
export function aroundOf(
  plan: Pick<Plan, 'film' | 'vehicle'>,
  { winter, edgeLeave, edgeCut }: Pick<ShopSettings, 'winter' | 'edgeLeave' | 'edgeCut'>,
): Omit<EdgeSetting, 'method'> {
  const contrast = bodyContrast(plan)
  const strongContrast = contrast !== null && contrast >= STRONG_CONTRAST_DE
  return { strongContrast, winter, own: { leave: edgeLeave, cut: edgeCut } }
}

export function bodyContrast(plan: Pick<Plan, 'film' | 'vehicle'>): number | null {
  const main = plan.film.sheets.find((s) => s.id === plan.film.mainId)
  return main ? hexDifference(plan.vehicle.colour.hex, main.colour.hex) : null
}
