import { civilToMinutes, minutesToCivil, type OpenHours } from '../../kit/civil'
import { localMinutes } from '../../kit/time-zone'
import type { Plan } from '../../model/plan/schema'
import type { ReadyWith } from '../../model/shop/shop'
import { NEVER, schedule, type Link, type Problem, type Schedule, type Task } from '../../solve/schedule'
import type { Step } from '../run-sheet/step'
import { plannedSteps } from '../run-sheet/steps'
import { calendarOf } from './calendar-of'

/** When the steps of a job are done. Local wall times of the shop. */
export interface JobSchedule {
  /** By step. */
  times: ReadonlyMap<string, { from: string; to: string }>
  /** When the step ends with which the shop calls a vehicle ready. */
  readyAt: string
  /** Steps that decide when the job is ready, in their order; work and waits along them, minutes. */
  chain: readonly string[]
  workMin: number
  waitMin: number
  /** Some panel cannot be heated within its film's window by these hours. */
  missesWindow: boolean
  /** Steps whose lock these hours and waits do not allow: they stand where they fall. */
  brokenLocks: readonly string[]
}

/** A schedule moves on by quarters of an hour: its times do not flicker. */
const QUARTER_MIN = 15

export interface JobClock {
  hours: OpenHours
  timeZone: string
  /** UTC wall time of the last thing that happened on the job; null: nothing has. */
  last: string | null
  /** With which step the vehicle counts as ready. */
  ready: ReadyWith
}

/**
 * The steps of a job by the shop's hours and its crew. What is done stands where it was done, what runs ends by its
 * pace, and the rest begins no earlier than the last thing that happened. A step that wants more people than there are
 * takes longer where it may be done so; where it may not, it is laid out with those who are there and told as a finding.
 */
export function jobSchedule(plan: Plan, steps: readonly Step[], clock: JobClock): JobSchedule | null {
  const start = civilToMinutes(plan.runSheet.startAt ?? '')
  const planned = plannedSteps(steps)
  if (start === null || planned.length === 0 || clock.hours.week.length === 0) return null
  const local = (utc: string | null): number | null => (utc === null ? null : localMinutes(utc, clock.timeZone))
  const done = new Map<string, { from: number; to: number }>()
  for (const s of planned) {
    const to = s.state === 'done' ? local(s.doneAt) : null
    if (to !== null) done.set(s.id, { from: local(s.startedAt) ?? to - s.minutes, to })
  }
  const open = planned.filter((s) => !done.has(s.id))
  const happened = local(clock.last)
  const now = happened === null ? start : Math.max(start, Math.ceil(happened / QUARTER_MIN) * QUARTER_MIN)
  const times = new Map([...done].map(([id, t]) => [id, { from: minutesToCivil(t.from), to: minutesToCivil(t.to) }]))
  if (open.length === 0) {
    const last = Math.max(...[...done.values()].map((t) => t.to))
    const readyAt = endOf(clock.ready, planned, times) ?? minutesToCivil(last)
    return { times, readyAt, chain: [], workMin: 0, waitMin: 0, missesWindow: false, brokenLocks: [] }
  }
  const from = Math.min(now, start)
  const calendar = calendarOf(clock.hours, from)
  const crew = Math.max(1, plan.runSheet.crew)
  const running = (s: Step): number | null => (s.state === 'running' ? local(s.startedAt) : null)
  const index = new Map(open.map((s, i) => [s.id, i]))
  const tasks = open.map((s) => taskOf(s, { index, done, crew, now, running: running(s), lockedAt: lockOf(plan, s) }))
  const problem: Problem = {
    start: from,
    hours: calendar,
    people: Array.from({ length: crew }, () => ({ skills: 0, hours: calendar })),
    slots: 1,
    groups: 0,
    tasks,
  }
  const { out, missesWindow, broken } = solved(problem)
  if (!out) return null
  // What comes after the step that makes it ready decides nothing about that.
  const lastOfChain = out.critical.findIndex((i) => open[i]?.code === clock.ready)
  const chain = lastOfChain >= 0 ? out.critical.slice(0, lastOfChain + 1) : out.critical
  const wait = (i: number, k: number): number => tasks[i]?.after.find((l) => l.task === chain[k - 1])?.least ?? 0
  open.forEach((s, i) =>
    times.set(s.id, {
      from: minutesToCivil(running(s) ?? out.begins[i] ?? from),
      to: minutesToCivil(out.ends[i] ?? from),
    }),
  )
  return {
    times,
    readyAt: endOf(clock.ready, planned, times) ?? minutesToCivil(out.finish),
    chain: chain.map((i) => open[i]?.id ?? ''),
    workMin: chain.reduce((sum, i) => sum + (tasks[i]?.minutes ?? 0), 0),
    waitMin: chain.reduce((sum, i, k) => sum + (k > 0 ? wait(i, k) : 0), 0),
    missesWindow,
    brokenLocks: broken.map((i) => open[i]?.id ?? ''),
  }
}

const lockOf = ({ runSheet }: Plan, step: Step): number | null => civilToMinutes(runSheet.locks[step.id] ?? '')

/** When the step that makes a vehicle ready ends; null where it was left out. */
const endOf = (code: ReadyWith, planned: readonly Step[], times: JobSchedule['times']): string | null =>
  times.get(planned.find((s) => s.code === code)?.id ?? '')?.to ?? null

interface Solved {
  out: Schedule | null
  missesWindow: boolean
  /** Tasks whose lock was let go. */
  broken: readonly number[]
}

/**
 * One forward pass: a page shows it while somebody types. Where locks and windows do not go together, windows give way
 * first; where a lock cannot be at all, the locks are kept one by one as far as they go.
 */
function solved(problem: Problem): Solved {
  const windowless = (p: Problem): Problem => ({
    ...p,
    tasks: p.tasks.map((t) => ({ ...t, after: t.after.map((l) => ({ ...l, most: NEVER })) })),
  })
  const tried = (p: Problem): Schedule | null => {
    const out = schedule(p, { rounds: 1 })
    return 'code' in out ? null : out
  }
  const attempt = (p: Problem): Omit<Solved, 'broken'> | null => {
    const whole = tried(p)
    if (whole) return { out: whole, missesWindow: false }
    const out = tried(windowless(p))
    return out && { out, missesWindow: true }
  }
  const all = attempt(problem)
  if (all) return { ...all, broken: [] }
  const locked = problem.tasks.flatMap((t, i) => (t.pinned === null ? [] : [i]))
  const withLocks = (kept: readonly number[]): Problem => ({
    ...problem,
    tasks: problem.tasks.map((t, i) => (t.pinned === null || kept.includes(i) ? t : { ...t, pinned: null })),
  })
  const kept: number[] = []
  for (const i of locked.slice(0, MOST_LOCKS_TRIED)) if (tried(windowless(withLocks([...kept, i])))) kept.push(i)
  const broken = locked.filter((i) => !kept.includes(i))
  const rest = locked.length > 0 ? attempt(withLocks(kept)) : null
  return rest ? { ...rest, broken } : { out: null, missesWindow: true, broken }
}
/** Each takes a pass of its own. */
const MOST_LOCKS_TRIED = 12

interface InTime {
  index: ReadonlyMap<string, number>
  done: ReadonlyMap<string, { from: number; to: number }>
  crew: number
  now: number
  /** When it was begun, where it runs. */
  running: number | null
  /** To which moment somebody locked it. */
  lockedAt: number | null
}

function taskOf(step: Step, { index, done, crew, now, running, lockedAt }: InTime): Task {
  const short = step.people > crew && step.aloneFactor !== null
  const whole = Math.ceil(step.minutes * (short ? (step.aloneFactor ?? 1) : 1))
  // What runs ends by its pace: what is left of it, and never nothing.
  const minutes = running === null ? whole : Math.max(whole > 0 ? 1 : 0, whole - Math.max(0, now - running))
  const ended = step.waits.flatMap((w) => {
    const before = done.get(w.id)
    return before ? [before.to + w.leastMin] : []
  })
  const until = step.waits.flatMap((w) => {
    const before = done.get(w.id)
    return before && w.mostMin !== null ? [before.to + w.mostMin] : []
  })
  // A window that has closed already is told by the point that expired; the work is still to be done.
  const finishBy = Math.min(NEVER, ...until.filter((t) => t > now).map((t) => t + minutes))
  return {
    minutes,
    crew: whole > 0 ? Math.min(crew, step.people) : 0,
    kind: whole > 0 ? 'paused' : 'free',
    group: -1,
    notBefore: Math.max(now, ...(running === null ? ended : [])),
    finishBy,
    // What was locked to a moment that has passed is to be done all the same.
    pinned: running === null && lockedAt !== null && lockedAt >= now ? lockedAt : null,
    due: NEVER,
    needs: 0,
    after:
      running !== null
        ? []
        : step.waits.flatMap((w): Link[] => {
            const task = index.get(w.id)
            return task === undefined ? [] : [{ task, least: w.leastMin, most: w.mostMin ?? NEVER }]
          }),
  }
}
