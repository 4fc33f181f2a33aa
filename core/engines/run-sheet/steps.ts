import { addOpenMinutes, civilToMinutes, minutesToCivil, nextOpen, type OpenHours } from '../../kit/civil'
import type { LogRow } from '../../model/log/schema'
import type { Piece } from '../pieces/pieces'
import { AFTER, BEFORE, CUT_MIN, LAMINATE, HARDWARE_ON_SHARE, type StepRule } from './step-data'
import { blank, Context, heatSteps, layRank, panelSteps, Step } from './panel-steps'

/** The run sheet: preparation, cutting, then panel by panel from the rear forward, post-heat, check, rest, recheck. */
export function stepsOf(context: Context, ledger: readonly LogRow[]): Step[] {
  const { plan, pieces, films } = context
  const pace = plan.runSheet.paceFactor
  // A shop that wraps round its hardware takes none off; the trimming round it is reckoned with each panel.
  const off =
    plan.method.hardware === 'wrap_round'
      ? 0
      : plan.walkaround.hardware.filter((h) => h.way === 'remove').reduce((sum, h) => sum + h.minutes, 0)
  // What stays on is taped, inlaid or tucked round: that work is done where the rest is masked.
  const stays = plan.walkaround.hardware.filter((h) => h.way !== 'remove').reduce((sum, h) => sum + h.minutes, 0)
  const hardware: Record<string, number> = { hardware_off: off, hardware_on: off * HARDWARE_ON_SHARE }
  const general = (rule: StepRule): Step =>
    blank({
      id: rule.code,
      code: rule.code,
      panelId: null,
      name: '',
      people: rule.people,
      minutes: ((hardware[rule.code] ?? rule.minutes) + (rule.code === 'mask' ? stays : 0)) * pace,
      waitMin: rule.waitMin ?? 0,
      cautions: rule.cautions ?? [],
    })
  const steps: Step[] = BEFORE.map(general)
  const used = [...new Set(pieces.map((p) => p.filmId))].flatMap((id) => films.get(id) ?? [])
  for (const film of used)
    if (film.gasOutHours) {
      const areaM2 = pieces.reduce((s, p) => (p.filmId === film.id ? s + (p.acrossMm * p.alongMm) / 1e6 : s), 0)
      steps.push({
        ...blank({
          id: `gas_out:${film.id}`,
          code: 'gas_out',
          panelId: null,
          name: film.name,
          people: 1,
          minutes: 10,
          waitMin: film.gasOutHours.max * 60,
          cautions: [],
        }),
        facts: { film: film.name, hours: film.gasOutHours.max },
      })
      steps.push({
        ...blank({
          id: `laminate:${film.id}`,
          code: 'laminate',
          panelId: null,
          name: film.name,
          people: LAMINATE.people,
          minutes: (LAMINATE.setUpMin + areaM2 * LAMINATE.perM2Min) * pace,
          waitMin: 0,
          cautions: [],
        }),
        facts: { film: film.name },
      })
    }
  if (pieces.length > 0)
    steps.push({
      ...blank({
        id: 'cut',
        code: 'cut',
        panelId: null,
        name: '',
        people: 1,
        minutes: pieces.length * CUT_MIN * pace,
        waitMin: 0,
        cautions: ['blade'],
      }),
      facts: { pieces: pieces.length },
    })
  const byPanel = new Map<string, Piece[]>()
  for (const piece of pieces) byPanel.set(piece.panelId, [...(byPanel.get(piece.panelId) ?? []), piece])
  const order = [...byPanel.keys()].sort((a, b) => layRank(context.panels.get(a)) - layRank(context.panels.get(b)))
  for (const panelId of order) steps.push(...panelSteps(context, panelId, byPanel.get(panelId) ?? []))
  steps.push(...heatSteps(context, used))
  steps.push(...AFTER.map(general))
  return applyLedger(
    steps.map((s) => ({ ...s, state: plan.runSheet.skip.includes(s.id) ? 'skipped' : s.state })),
    ledger,
  )
}

function applyLedger(steps: Step[], ledger: readonly LogRow[]): Step[] {
  const started = new Map<string, string>()
  const done = new Map<string, string>()
  for (const { payload, at } of ledger) {
    if (payload.kind === 'step_started' && !started.has(payload.stepId)) started.set(payload.stepId, at)
    if (payload.kind === 'step_done' && !done.has(payload.stepId)) done.set(payload.stepId, at)
    if (payload.kind === 'step_done_taken_back') done.delete(payload.stepId)
  }
  return steps.map((s) => ({
    ...s,
    startedAt: started.get(s.id) ?? null,
    doneAt: done.get(s.id) ?? null,
    state: done.has(s.id) ? 'done' : started.has(s.id) ? 'running' : s.state,
  }))
}

/** The steps of a job that are to be done or are done: those that somebody left out count nowhere. */
export const plannedSteps = (steps: readonly Step[]): Step[] => steps.filter((s) => s.state !== 'skipped')

/** Waits that stop the crew: a wait before cutting is used for the next panel's laying (an hour is assumed). [min] */
const STOPS_FROM_MIN = 60
export const stoppingWait = (s: Pick<Step, 'waitMin'>): number => (s.waitMin >= STOPS_FROM_MIN ? s.waitMin : 0)

/** When the last step ends if work starts at `startAt` and the crew keeps the shop's hours; waits run on overnight. */
export function readyAt(steps: readonly Step[], startAt: string, hours: OpenHours): string | null {
  const start = civilToMinutes(startAt)
  if (start === null) return null
  let t = nextOpen(start, hours)
  for (const s of plannedSteps(steps)) {
    t = addOpenMinutes(t, s.minutes, hours)
    t += stoppingWait(s)
  }
  return minutesToCivil(Math.ceil(t))
}
