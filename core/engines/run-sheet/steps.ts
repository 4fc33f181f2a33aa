import { addOpenMinutes, civilToMinutes, minutesToCivil, nextOpen, type OpenHours } from '../../kit/civil'
import { groupedBy } from '../../kit/grouped'
import type { LogRow } from '../../model/log/schema'
import { learnedPace } from '../../model/log/learned'
import type { Plan } from '../../model/plan/schema'
import type { Piece } from '../pieces/pieces'
import { afterSteps, beforeSteps, filmSteps } from './general-steps'
import { layRank } from './laying-order'
import { byPanel, panelSteps } from './panel-steps'
import { sideSteps } from './side-steps'
import { stepOf, type Context, type Step } from './step'
import { withWaits } from './waits'

/** The run sheet: preparation, film cut beside it, panel by panel from the rear forward, check, rest, recheck. */
export function stepsOf(context: Context, ledger: readonly LogRow[]): Step[] {
  const { plan, pieces, panels, films } = context
  const piecesBy = groupedBy(pieces, (p) => p.panelId)
  // A side in drops is laid where the first of its panels would be.
  const rankOf = (id: string) => Math.min(...(piecesBy.get(id)?.[0]?.covers ?? [id]).map((p) => layRank(panels.get(p))))
  const order = [...piecesBy.keys()]
    .map((id) => ({ id, rank: rankOf(id) }))
    .sort((a, b) => a.rank - b.rank)
    .map(({ id }) => id)
  const onPanels = byPanel(context)
  const made = [
    ...beforeSteps(context),
    ...filmSteps(context),
    ...order.flatMap((panelId) => {
      const own = piecesBy.get(panelId) ?? []
      return own[0]?.covers ? sideSteps(context, onPanels, panelId, own) : panelSteps(context, onPanels, panelId, own)
    }),
    ...afterSteps(context),
  ]
  const filmOf = (panelId: string) => films.get(piecesBy.get(panelId)?.[0]?.filmId ?? '')
  const known = steppedBefore(plan, pieces)
  const skipped = new Set(plan.runSheet.skip)
  const steps = withOwn(plan, made).map((rule): Step => {
    const s = asLearned(rule, context.record)
    const typed = plan.runSheet.minutes[s.id]
    const leftOut = skipped.size > 0 && known(s, (id) => skipped.has(id))
    if (typed === undefined && !leftOut) return s
    const minutes = typed === undefined ? {} : { minutes: typed, minutesByRule: s.minutes }
    return { ...s, ...minutes, state: leftOut ? 'skipped' : s.state }
  })
  return withWaits(applyLedger(steps, ledger, known), filmOf)
}

/** The minutes that this shop takes, where it has enough cases to say. */
function asLearned(step: Step, record: Context['record']): Step {
  const own = learnedPace(record, step.code)
  if (!own || step.minutes === 0) return step
  return { ...step, minutes: Math.ceil(step.minutes * own.factor), learned: { ...own, ruleMin: step.minutes } }
}

/** Steps of the shop's own stand after the one that they were added to; else at the end of the preparation. */
function withOwn(plan: Plan, made: readonly Step[]): Step[] {
  const out = [...made]
  for (const { id, name, minutes, people, after } of plan.runSheet.own) {
    const at = out.findIndex((s) => s.id === after)
    const fallback = out.findIndex((s) => s.code === 'mask')
    const step = stepOf({ id, code: 'own', name, people, aloneFactor: null, minutes })
    out.splice((at >= 0 ? at : fallback) + 1, 0, step)
  }
  return out
}

/**
 * Steps had other ids before: post-heat was one step for each film. What was logged or left out then still counts for
 * the steps that stand for it now.
 */
function steppedBefore(plan: Plan, pieces: readonly Piece[]) {
  const filmOf = new Map(pieces.map((p) => [p.panelId, p.filmId]))
  return (step: Step, holds: (id: string) => boolean): boolean => {
    if (holds(step.id)) return true
    // A side that is laid in drops was laid panel by panel: done once all of them were.
    const [kind = ''] = step.id.split(':')
    if (step.covers) return step.covers.every((id) => holds(`${step.code === 'seam' ? 'lay' : kind}:${id}`))
    if (step.panelId === null) return false
    if (step.code === 'post_heat') return holds(`post_heat:${filmOf.get(step.panelId)}`)
    const laid = holds(`lay:${step.panelId}`)
    // A panel was laid as one step, its relaxing and seams within it; and what was laid was degreased before.
    if (['relax', 'lay', 'seam'].includes(step.code)) return laid
    return step.code === 'degrease_panel' && laid && !plan.runSheet.skip.includes(step.id)
  }
}

function applyLedger(steps: Step[], ledger: readonly LogRow[], known: ReturnType<typeof steppedBefore>): Step[] {
  const started = new Map<string, string>()
  const done = new Map<string, string>()
  for (const { payload, at } of ledger) {
    if (payload.kind === 'step_started' && !started.has(payload.stepId)) started.set(payload.stepId, at)
    if (payload.kind === 'step_done' && !done.has(payload.stepId)) done.set(payload.stepId, at)
    if (payload.kind === 'step_done_taken_back') done.delete(payload.stepId)
  }
  // Nothing was begun: every step is as it was made.
  if (started.size === 0 && done.size === 0) return steps
  const moment = (s: Step, of: ReadonlyMap<string, string>): string | null => {
    let found: string | null = null
    known(s, (id) => (found = of.get(id) ?? null) !== null)
    return found
  }
  return steps.map((s) => {
    const [startedAt, doneAt] = [moment(s, started), moment(s, done)]
    const state = doneAt !== null ? 'done' : startedAt !== null ? 'running' : s.state
    return { ...s, startedAt, doneAt, state }
  })
}

/** The steps of a job that are to be done or are done: those that somebody left out count nowhere. */
export const plannedSteps = (steps: readonly Step[]): Step[] => steps.filter((s) => s.state !== 'skipped')

/** Waits that stop the crew: a wait before cutting is used for the next panel's laying (an hour is assumed). [min] */
const STOPS_FROM_MIN = 60
export const stoppingWait = (s: Pick<Step, 'waitMin'>): number => (s.waitMin >= STOPS_FROM_MIN ? s.waitMin : 0)

/** When the last step ends if work starts at `startAt` and the crew keeps the shop's hours; waits run on overnight. */
export function readyAt(
  steps: readonly Pick<Step, 'state' | 'minutes' | 'waitMin'>[],
  startAt: string,
  hours: OpenHours,
): string | null {
  const start = civilToMinutes(startAt)
  if (start === null) return null
  let t = nextOpen(start, hours)
  for (const s of steps.filter((s) => s.state !== 'skipped')) {
    t = addOpenMinutes(t, s.minutes, hours)
    t += stoppingWait(s)
  }
  return minutesToCivil(Math.ceil(t))
}
