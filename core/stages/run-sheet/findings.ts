import { ALONE_FACTOR } from '../../engines/run-sheet/step-data'
import type { Step } from '../../engines/run-sheet/step'
import { jobSchedule, type JobClock, type JobSchedule } from '../../engines/schedule/job-schedule'
import { civilToMinutes, minutesToCivil, nextOpen } from '../../kit/civil'
import { localMinutes } from '../../kit/time-zone'
import { finding, type Finding, type WayOut } from '../../model/finding/finding'
import type { Plan } from '../../model/plan/schema'

/** Steps that need more people than the crew has: told, and never shortened. */
export function crewFindings(plan: Plan, steps: readonly Step[]): Finding[] {
  const { crew } = plan.runSheet
  const short = steps.filter((s) => (s.state === 'to_do' || s.state === 'running') && s.people > crew)
  const never = short.filter((s) => s.aloneFactor === null || s.people > crew + 1)
  const alone = short.filter((s) => !never.includes(s))
  const out: Finding[] = []
  const [first] = never
  if (first) {
    const need = Math.max(...never.map((s) => s.people))
    out.push(
      finding('crew_short', 'warn', 'run-sheet', { facts: { count: never.length, first: first.name, need, crew } }),
    )
  }
  const [other] = alone
  if (other) {
    const facts = { count: alone.length, first: other.name, crew, percent: Math.round((ALONE_FACTOR - 1) * 100) }
    out.push(finding('crew_alone', 'note', 'run-sheet', { facts }))
  }
  return out
}

const DAY_MIN = 1440
/** A shop that is closed longer than this opens for nobody. */
const DAYS_BACK = 21

/** Starts to try, minutes: an hour earlier, and at the same hour of the last day before on which the shop is open. */
function earlierStarts(start: number, hours: JobClock['hours']): number[] {
  const dayOf = (at: number) => Math.floor(at / DAY_MIN)
  const before = Array.from({ length: DAYS_BACK }, (_, k) => start - (k + 1) * DAY_MIN)
  const open = before.find((at) => dayOf(nextOpen(at, hours)) === dayOf(at))
  return [start - 60, ...(open === undefined ? [] : [open])]
}

/** A promise that these steps do not keep, with what would rescue it from `now` (UTC) on; a film's window that no hours allow. */
export function timeFindings(
  plan: Plan,
  steps: readonly Step[],
  schedule: JobSchedule | null,
  clock: JobClock,
  now: string,
): Finding[] {
  if (!schedule) return []
  const out: Finding[] = [
    ...(schedule.missesWindow ? [finding('window_missed', 'warn', 'run-sheet')] : []),
    ...lockFindings(plan, steps, schedule),
  ]
  const { promisedAt } = plan.runSheet
  const late = (at: string | undefined): boolean =>
    at === undefined || (civilToMinutes(at) ?? 0) > (civilToMinutes(promisedAt ?? '') ?? Infinity)
  if (promisedAt === null || !late(schedule.readyAt)) return out
  const facts = { promised: promisedAt, ready: schedule.readyAt }
  const waysOut = rescues(plan, steps, clock, now).filter((w) => 'ready' in w.facts && !late(w.facts.ready))
  return [...out, finding('promise_late', 'warn', 'run-sheet', { facts, waysOut })]
}

/** Locks that these hours and waits do not allow, and letting them go. */
function lockFindings({ runSheet }: Plan, steps: readonly Step[], { brokenLocks }: JobSchedule): Finding[] {
  const first = steps.find((s) => s.id === brokenLocks[0])
  if (!first) return []
  const locks = Object.fromEntries(Object.entries(runSheet.locks).filter(([id]) => !brokenLocks.includes(id)))
  const facts = { count: brokenLocks.length, first: first.name, at: runSheet.locks[first.id] ?? '' }
  const change = { kind: 'run_sheet' as const, set: { locks } }
  return [
    finding('lock_broken', 'warn', 'run-sheet', {
      facts,
      waysOut: [{ code: 'locks_go', change, becomes: null, facts: { count: brokenLocks.length } }],
    }),
  ]
}

/** What might rescue a promise, each solved: more hands, an earlier start. */
function rescues(plan: Plan, steps: readonly Step[], clock: JobClock, now: string): WayOut[] {
  const { crew, startAt } = plan.runSheet
  const ready = (set: Partial<Plan['runSheet']>): string | null =>
    jobSchedule({ ...plan, runSheet: { ...plan.runSheet, ...set } }, steps, clock)?.readyAt ?? null
  const hands = [crew + 1, crew + 2].flatMap((more): WayOut[] => {
    const at = ready({ crew: more })
    const change = { kind: 'run_sheet' as const, set: { crew: more } }
    return at ? [{ code: 'more_people', change, becomes: null, facts: { crew: more, ready: at } }] : []
  })
  const start = civilToMinutes(startAt ?? '')
  const begun = steps.some((s) => s.startedAt !== null)
  if (start === null || begun) return hands
  return [
    ...hands,
    ...earlierStarts(start, clock.hours).flatMap((earlier): WayOut[] => {
      // Nobody begins in the past.
      if (earlier < (localMinutes(now, clock.timeZone) ?? -Infinity)) return []
      const startAt = minutesToCivil(earlier)
      const at = ready({ startAt })
      const change = { kind: 'run_sheet' as const, set: { startAt } }
      return at ? [{ code: 'start_earlier', change, becomes: null, facts: { at: startAt, ready: at } }] : []
    }),
  ]
}
