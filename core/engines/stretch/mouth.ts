import type { Panel, Recess } from '../../model/vehicle/schema'

/** A rectangle in the panel's own plane [mm]. */
export interface Box {
  x0: number
  y0: number
  x1: number
  y1: number
}
/** The rectangle of a recess's mouth on its panel, `more` wider on every side [mm]. */
export const mouth = (panel: Panel, r: Recess, more: number): Box => {
  const [x, y] = [r.xMm ?? panel.widthMm / 2, r.yMm ?? panel.heightMm / 2]
  return {
    x0: x - r.mouthWidthMm / 2 - more,
    y0: y - r.mouthHeightMm / 2 - more,
    x1: x + r.mouthWidthMm / 2 + more,
    y1: y + r.mouthHeightMm / 2 + more,
  }
}
