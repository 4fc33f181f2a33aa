import { cardsOf } from '../../engines/run-sheet/cards'
import type { Step } from '../../engines/run-sheet/step'
import { plannedSteps } from '../../engines/run-sheet/steps'
import { keptFor } from '../../kit/kept'
import { figure, from, input, type Figure, type FigureInput } from '../../model/figure/figure'

/**
 * Work on each panel, from its degrease to its post-heat: the minutes of its steps, however many hands they take.
 * `heat`: the figures of heating; a post-heat whose minutes nobody typed and no record changed opens its own.
 */
export function cardFigures(steps: readonly Step[], heat: readonly Figure[]): Figure[] {
  const known = new Map(heat.map((f) => [f.id, f]))
  return cardsOf(plannedSteps(steps)).flatMap(({ panelId, parts: [first, ...rest] }) =>
    panelId === null || !first ? [] : [keptCard(first, panelId, known.get(`heat/${panelId}/minutes`), ...rest)],
  )
}

const keptCard = keptFor((first: Step, panelId: string, heating: Figure | undefined, ...rest: Step[]): Figure => {
  const parts = [first, ...rest]
  const value = parts.reduce((sum, s) => sum + s.minutes, 0)
  const inputs = parts.map((s) => minutesInput(s, s.code === 'post_heat' ? heating : undefined))
  return figure({ id: `panel/${panelId}/minutes`, value, unit: 'min', formula: 'Σ inputs', inputs })
})

function minutesInput(s: Step, own: Figure | undefined): FigureInput {
  const isTyped = s.minutesByRule !== null
  if (own && !isTyped && own.value === s.minutes) return from(s.id, own)
  const minutes = input(s.id, s.minutes, 'min', 'assumed', `steps/${s.id}`)
  // What the shop's record makes of it moves with it; what somebody typed does not.
  return own?.settling && !isTyped ? { ...minutes, settling: true as const } : minutes
}
