import { civilToMinutes, minutesToCivil, weekday, type OpenHours } from '../../kit/civil'
import type { Plan } from '../../model/plan/schema'
import { Calendar, NEVER, schedule, type Link, type Problem, type Task } from '../../solve/schedule'
import type { Step } from '../run-sheet/panel-steps'
import { plannedSteps, stoppingWait } from '../run-sheet/steps'

/** When the steps of a job are done. Local wall times of the shop. */
export interface JobSchedule {
  /** By step. */
  times: ReadonlyMap<string, { from: string; to: string }>
  readyAt: string
  /** Steps that decide when the job is ready, in their order; work and waits along them, minutes. */
  chain: readonly string[]
  workMin: number
  waitMin: number
}

/** Work on the film, not at the vehicle: it goes on beside washing and drying. */
const BESIDE: readonly string[] = ['gas_out', 'laminate', 'cut']
const DAY_MIN = 1440
/** Days laid out for a job; one that takes longer has no schedule. */
const DAYS = 400

/**
 * The steps of a job by the shop's hours and its crew: the vehicle's preparation one after another, film cut beside it,
 * panels side by side as hands allow, each trimmed after its wait; checks and handover at the end. A step that needs
 * more people than there are is done by those who are there, and told as a finding.
 */
export function jobSchedule(plan: Plan, steps: readonly Step[], hours: OpenHours): JobSchedule | null {
  const start = civilToMinutes(plan.runSheet.startAt ?? '')
  const planned = plannedSteps(steps)
  if (start === null || planned.length === 0 || hours.week.length === 0) return null
  const calendar = calendarOf(hours, start)
  const links = linksBetween(planned)
  const crew = Math.max(1, plan.runSheet.crew)
  const problem: Problem = {
    start,
    hours: calendar,
    people: Array.from({ length: crew }, () => ({ skills: 0, hours: calendar })),
    slots: 1,
    groups: 0,
    tasks: planned.map((step, i) => taskOf(step, links[i] ?? [], crew, start)),
  }
  // One forward pass: a page shows it while somebody types.
  const out = schedule(problem, { rounds: 1 })
  if ('code' in out) return null
  const chain = out.critical
  const wait = (i: number, k: number): number => links[i]?.find((l) => l.task === chain[k - 1])?.least ?? 0
  return {
    times: new Map(
      planned.map((step, i) => [
        step.id,
        { from: minutesToCivil(out.begins[i] ?? start), to: minutesToCivil(out.ends[i] ?? start) },
      ]),
    ),
    readyAt: minutesToCivil(out.finish),
    chain: chain.map((i) => planned[i]?.id ?? ''),
    workMin: chain.reduce((sum, i) => sum + (planned[i]?.minutes ?? 0), 0),
    waitMin: chain.reduce((sum, i, k) => sum + (k > 0 ? wait(i, k) : 0), 0),
  }
}

function taskOf(step: Step, after: Link[], crew: number, start: number): Task {
  return {
    minutes: step.minutes,
    crew: step.minutes > 0 ? Math.min(crew, step.people) : 0,
    kind: step.minutes > 0 ? 'paused' : 'free',
    group: -1,
    notBefore: start,
    finishBy: NEVER,
    pinned: null,
    due: NEVER,
    needs: 0,
    after,
  }
}

/** What each step waits for. */
function linksBetween(planned: readonly Step[]): Link[][] {
  const index = new Map(planned.map((s, i) => [s.id, i]))
  const isPanel = (s: Step) => s.code === 'lay' || s.code === 'trim'
  const firstPanel = planned.findIndex(isPanel)
  const link = (i: number, least: number): Link => ({ task: i, least, most: NEVER })
  const waitAfter = (i: number): number => stoppingWait(planned[i] ?? { waitMin: 0 })
  const before = (i: number, match: (s: Step, k: number) => boolean): number => {
    for (let k = i - 1; k >= 0; k--) {
      const step = planned[k]
      if (step && match(step, k)) return k
    }
    return -1
  }
  const panels = planned.flatMap((s, i) => (isPanel(s) ? [i] : []))
  const late = (s: Step, k: number) => !isPanel(s) && firstPanel >= 0 && k > firstPanel
  return planned.map((s, i) => {
    const lay = s.code === 'trim' ? index.get(`lay:${s.panelId}`) : undefined
    // Film waits before the blade, however short the wait.
    if (lay !== undefined) return [link(lay, planned[lay]?.waitMin ?? 0)]
    const beside = BESIDE.includes(s.code)
    if (isPanel(s))
      return [before(i, (p) => !isPanel(p) && !BESIDE.includes(p.code)), before(i, (p) => BESIDE.includes(p.code))]
        .filter((k) => k >= 0)
        .map((k) => link(k, waitAfter(k)))
    if (late(s, i)) {
      const previous = before(i, late)
      const onFilm = s.code === 'post_heat' || previous < 0 ? panels : []
      return [...onFilm.map((k) => link(k, 0)), ...(previous >= 0 ? [link(previous, waitAfter(previous))] : [])]
    }
    const previous = before(i, (p) => BESIDE.includes(p.code) === beside)
    return previous >= 0 ? [link(previous, waitAfter(previous))] : []
  })
}

function calendarOf({ week, closed }: OpenHours, start: number): Calendar {
  const firstDay = Math.floor(start / DAY_MIN)
  const stretches = Array.from({ length: DAYS }, (_, i) => (firstDay + i) * DAY_MIN)
    .filter((day) => !closed.includes(minutesToCivil(day).slice(0, 10)))
    .flatMap((day) =>
      week.filter((s) => s.day === weekday(day)).map((s): [number, number] => [day + s.fromMinute, day + s.toMinute]),
    )
  return Calendar.of(stretches)
}
