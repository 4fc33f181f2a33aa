import { bodyContrast, contrastFigure } from '../../engines/paint/contrast'
import type { Figure } from '../../model/figure/figure'
import type { Plan } from '../../model/plan/schema'

/** How far body and main film differ, ΔE00; none without a film. */
export function contrastFigures(plan: Plan): Figure[] {
  const contrast = bodyContrast(plan)
  const main = plan.film.sheets.find((s) => s.id === plan.film.mainId)
  return contrast === null || !main ? [] : [contrastFigure('walkaround/contrast', plan, main, contrast)]
}
