import { cardsOf } from '../../engines/run-sheet/cards'
import type { Step } from '../../engines/run-sheet/step'
import { plannedSteps } from '../../engines/run-sheet/steps'
import { figure, input, type Figure } from '../../model/figure/figure'

/** Work on each panel, from its degrease to its post-heat: the minutes of its steps, however many hands they take. */
export function cardFigures(steps: readonly Step[]): Figure[] {
  return cardsOf(plannedSteps(steps)).flatMap(({ panelId, parts }) => {
    if (panelId === null) return []
    const inputs = parts.map((s) => input(s.id, s.minutes, 'min', 'assumed', `steps/${s.id}`))
    const minutes = parts.reduce((sum, s) => sum + s.minutes, 0)
    return [figure(`panel/${panelId}/minutes`, minutes, 'min', 'Σ inputs', inputs)]
  })
}
