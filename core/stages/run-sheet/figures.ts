import { cardsOf } from '../../engines/run-sheet/cards'
import type { Step } from '../../engines/run-sheet/step'
import { plannedSteps } from '../../engines/run-sheet/steps'
import { figure, from, input, type Figure } from '../../model/figure/figure'

/**
 * Work on each panel, from its degrease to its post-heat: the minutes of its steps, however many hands they take.
 * `heat`: the figures of heating; a post-heat whose minutes nobody typed and no record changed opens its own.
 */
export function cardFigures(steps: readonly Step[], heat: readonly Figure[]): Figure[] {
  const known = new Map(heat.map((f) => [f.id, f]))
  const ofStep = (s: Step) => {
    const own = s.code === 'post_heat' && s.panelId !== null ? known.get(`heat/${s.panelId}/minutes`) : undefined
    const isTyped = s.minutesByRule !== null
    if (own && !isTyped && own.value === s.minutes) return from(s.id, own)
    const minutes = input(s.id, s.minutes, 'min', 'assumed', `steps/${s.id}`)
    // What the shop's record makes of it moves with it; what somebody typed does not.
    return own?.settling && !isTyped ? { ...minutes, settling: true as const } : minutes
  }
  return cardsOf(plannedSteps(steps)).flatMap(({ panelId, parts }) => {
    if (panelId === null) return []
    const inputs = parts.map(ofStep)
    const minutes = parts.reduce((sum, s) => sum + s.minutes, 0)
    return [figure({ id: `panel/${panelId}/minutes`, value: minutes, unit: 'min', formula: 'Σ inputs', inputs })]
  })
}
