import { textHash } from '../../kit/random'
import type { FilmSheet } from '../film/schema'
import type { ShopSettings } from '../shop/shop'
import type { Panel } from '../vehicle/schema'

/** Raised whenever the same edge would be heated otherwise. */
const HEAT_VERSION = 2
/** Solved alike wherever it is: none is finer than another. */
export const HEAT_FINENESS = 1

/** Guns whose air at the film was measured: only by those is anything worked out. */
export const measuredGuns = (guns: ShopSettings['guns']) =>
  guns.flatMap(({ id, airC, coefficient, sigmaMm }) =>
    airC === null || coefficient === null || sigmaMm === null ? [] : [{ id, airC, coefficient, sigmaMm }],
  )

/**
 * What the gun's sweep along an edge hangs on: what lies under it, the film's band and limit, the shop's guns. Edges of one
 * material and film share it. Null where no gun was measured.
 */
export function heatKey(
  { material, thicknessMm }: Panel['surface'],
  film: Pick<FilmSheet, 'thicknessUm' | 'postHeatC' | 'heatLimitC'>,
  guns: ShopSettings['guns'],
): string | null {
  const measured = measuredGuns(guns)
  if (measured.length === 0) return null
  const { thicknessUm, postHeatC, heatLimitC } = film
  return textHash(
    JSON.stringify([
      HEAT_VERSION,
      material,
      thicknessMm,
      thicknessUm,
      [postHeatC.min, postHeatC.max, heatLimitC],
      measured.map((g) => [g.id, g.airC, g.coefficient, g.sigmaMm]),
    ]),
  )
}
