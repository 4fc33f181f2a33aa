import { civilToMinutes } from '../../kit/civil'
import type { LogPayload } from '../../model/log/schema'
import type { HeatPoint } from '../heat/heat-points'
import type { Step } from './step'

export type GuardCode = Extract<LogPayload, { kind: 'guard_passed' }>['guard']

/** Something that speaks against going on, and how much of it: minutes left, places, steps. */
export interface Guard {
  guard: GuardCode
  stepId: string
  count: number
}

interface Context {
  steps: readonly Step[]
  points: readonly HeatPoint[]
  openDefects: number
  /** UTC wall time at which the recheck falls due, ms; null before the rest has begun. */
  recheckDueMs: number | null
  nowMs: number
}

/** Steps of the end: they do not count as open for themselves. */
const AT_THE_END: readonly string[] = ['hand_over']

/** What speaks against beginning a step now: a wait that still runs, a recheck before its day. */
export function guardsBefore(step: Step, c: Context): Guard[] {
  const out: Guard[] = []
  const left = Math.max(
    0,
    ...step.waits.map((w) =>
      minutesLeft(
        c.steps.find((s) => s.id === w.id),
        w.leastMin,
        c.nowMs,
      ),
    ),
  )
  if (step.code === 'recheck') {
    const due = c.recheckDueMs === null ? left : (c.recheckDueMs - c.nowMs) / 60_000
    if (due > 0) out.push({ guard: 'early_recheck', stepId: step.id, count: Math.ceil(due) })
  } else if (left > 0) out.push({ guard: 'inside_wait', stepId: step.id, count: left })
  if (step.code === 'hand_over') out.push(...beforeHandOver(step, c))
  return out
}

/** What speaks against calling a step done: places of its panel that were not read hot enough, a car not ready. */
export function guardsAfter(step: Step, c: Context): Guard[] {
  if (step.code === 'hand_over') return beforeHandOver(step, c)
  if (step.code !== 'post_heat') return []
  const own = step.covers ?? [step.panelId]
  const open = c.points.filter((p) => own.includes(p.panelId) && p.state === 'due').length
  return open > 0 ? [{ guard: 'points_open', stepId: step.id, count: open }] : []
}

function beforeHandOver(step: Step, c: Context): Guard[] {
  const open = c.steps.filter(
    (s) => !AT_THE_END.includes(s.code) && (s.state === 'to_do' || s.state === 'running'),
  ).length
  const points = c.points.filter((p) => p.state === 'due').length
  return [
    ...(open + c.openDefects > 0
      ? [{ guard: 'steps_open' as const, stepId: step.id, count: open + c.openDefects }]
      : []),
    ...(points > 0 ? [{ guard: 'points_open' as const, stepId: step.id, count: points }] : []),
  ]
}

function minutesLeft(before: Step | undefined, leastMin: number, nowMs: number): number {
  if (!before?.doneAt || leastMin <= 0) return 0
  const done = civilToMinutes(before.doneAt.slice(0, 16))
  return done === null ? 0 : Math.ceil(leastMin - (nowMs / 60_000 - done))
}
