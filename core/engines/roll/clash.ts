import type { Point } from '../../kit/plane'
import { common, outset } from '../../kit/polygon'

/** Less common area than this is touching, mm². */
const TOUCH_MM2 = 0.5

/** Whether two outlines come nearer than `gap`. */
export function clash(a: readonly Point[], b: readonly Point[], gapMm: number): boolean {
  const wide = gapMm > 0.02 ? (outset(a, gapMm - 0.02, { round: true }) ?? a) : a
  return common(wide, b).areaMm2 > TOUCH_MM2
}
