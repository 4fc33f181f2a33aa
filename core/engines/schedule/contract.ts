import type { FaultCode } from '../../kit/fault-code'
import { z } from 'zod'
import type { Budget } from '../../kit/budget'
import { civilToMinutes, daysInMonth, minutesToCivil, weekday } from '../../kit/civil'
import { firstFault } from '../../kit/first-fault'
import type { NoAnswer } from '../../kit/no-answer'
import { err, ok, type Result } from '../../kit/result'
import { Calendar, NEVER, schedule, type Person, type Problem, type Task } from '../../solve/schedule'

const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const
const DAY_MIN = 1440
const MOST_TASKS = 10_000
const name = z.string().min(1).max(200)
const moment = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/)
  .refine((t) => civilToMinutes(t) !== null, { error: 'no_such_moment' })
const date = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/)
  .refine(
    (t) => {
      const [y, m, d] = t.split('-').map(Number)
      return (
        y !== undefined && m !== undefined && d !== undefined && m >= 1 && m <= 12 && d >= 1 && d <= daysInMonth(y, m)
      )
    },
    { error: 'no_such_moment' },
  )
const clock = z.string().regex(/^(([01]\d|2[0-3]):[0-5]\d|24:00)$/)
const minutes = z.number().int().min(0).max(1_000_000)

const HoursInput = z
  .array(
    z
      .strictObject({ day: z.enum(DAYS), from: clock, to: clock })
      .refine((h) => clockMinutes(h.from) < clockMinutes(h.to), { error: 'upside_down', path: ['to'] }),
  )
  .max(200)

const TaskInput = z.strictObject({
  id: name,
  job: name.optional(),
  minutes,
  crew: z.number().int().min(1).max(200).default(1),
  attended: z.boolean().default(true),
  splittable: z.boolean().default(false),
  not_before: moment.optional(),
  finish_by: moment.optional(),
  due: moment.optional(),
  pinned: moment.optional(),
  bay: z.boolean().default(true),
  needs: z.array(name).max(20).default([]),
  alone_factor: z.number().min(1).max(20).optional(),
  after: z
    .array(z.strictObject({ id: name, min_wait_minutes: minutes.default(0), max_wait_minutes: minutes.optional() }))
    .max(1000)
    .default([]),
})

const ScheduleInput = z
  .strictObject({
    format: z.literal('cuirass/schedule@1'),
    crew: z.number().int().min(0).max(200).optional(),
    people: z
      .array(z.strictObject({ id: name, skills: z.array(name).max(50).default([]), hours: HoursInput.optional() }))
      .max(200)
      .optional(),
    bays: z.number().int().min(0).max(1000).optional(),
    start: moment,
    closed: z.array(date).max(2000).default([]),
    hours: HoursInput.optional(),
    tasks: z.array(TaskInput).max(MOST_TASKS),
  })
  .superRefine((input, ctx) => {
    const say = (path: (string | number)[], message: FaultCode) => ctx.addIssue({ code: 'custom', path, message })
    if (input.people && input.crew !== undefined) say(['crew'], 'crew_and_people')
    const ids = new Map<string, number>()
    input.tasks.forEach((t, i) => {
      if (ids.has(t.id)) say(['tasks', i, 'id'], 'duplicate_id')
      ids.set(t.id, i)
    })
    input.tasks.forEach((t, i) =>
      t.after.forEach((a, k) => {
        if (!ids.has(a.id)) say(['tasks', i, 'after', k, 'id'], 'no_such_task')
        if (a.max_wait_minutes !== undefined && a.max_wait_minutes < a.min_wait_minutes)
          say(['tasks', i, 'after', k, 'max_wait_minutes'], 'min_over_max')
      }),
    )
    const people = new Set<string>()
    input.people?.forEach((q, i) => {
      if (people.has(q.id)) say(['people', i, 'id'], 'duplicate_id')
      people.add(q.id)
    })
    const skills = new Set(input.tasks.flatMap((t) => t.needs))
    if (skills.size > MOST_SKILLS) say(['tasks'], 'too_many_skills')
  })
const MOST_SKILLS = 30
type ScheduleInput = z.infer<typeof ScheduleInput>

const clockMinutes = (text: string): number => Number(text.slice(0, 2)) * 60 + Number(text.slice(3))
const at = (text: string): number => civilToMinutes(text) ?? 0

/** The open hours of a week laid out over days, closed days left out; touching ones are one stretch. */
function calendarOf(
  hours: z.infer<typeof HoursInput> | undefined,
  closed: readonly string[],
  fromDay: number,
  days: number,
): Calendar {
  // No hours at all: always open.
  if (!hours || hours.length === 0) {
    if (closed.length === 0) return Calendar.always()
    return calendarOf(
      DAYS.map((day) => ({ day, from: '00:00', to: '24:00' })),
      closed,
      fromDay,
      days,
    )
  }
  const shut = new Set(closed.map((d) => Math.floor(at(`${d}T00:00`) / DAY_MIN)))
  const stretches: [number, number][] = []
  for (let day = fromDay; day < fromDay + days; day++) {
    if (shut.has(day)) continue
    const name = DAYS[weekday(day * DAY_MIN)]
    for (const h of hours)
      if (h.day === name) stretches.push([day * DAY_MIN + clockMinutes(h.from), day * DAY_MIN + clockMinutes(h.to)])
  }
  return Calendar.of(stretches)
}

/** The times at which two calendars are both open. */
function both(a: Calendar, b: Calendar): Calendar {
  const stretches: [number, number][] = []
  for (let i = 0, k = 0; i < a.from.length && k < b.from.length;) {
    const from = Math.max(a.from[i] ?? 0, b.from[k] ?? 0)
    const to = Math.min(a.to[i] ?? 0, b.to[k] ?? 0)
    if (from < to) stretches.push([from, to])
    if ((a.to[i] ?? 0) < (b.to[k] ?? 0)) i++
    else k++
  }
  return Calendar.of(stretches)
}

/** Days that are laid out: enough for all work one after another, at least two months, at most some twelve years. */
function daysToLay(input: ScheduleInput, startDay: number): number {
  const week = (input.hours ?? []).reduce((sum, h) => sum + clockMinutes(h.to) - clockMinutes(h.from), 0) / 7
  const perDay = week > 0 ? Math.max(week, 30) : DAY_MIN
  const work = input.tasks.reduce((sum, t) => sum + t.minutes + (t.attended ? 0 : t.minutes), 0)
  const waits = input.tasks.reduce((sum, t) => sum + t.after.reduce((m, a) => Math.max(m, a.min_wait_minutes), 0), 0)
  const moments = input.tasks.flatMap((t) => [t.not_before, t.pinned, t.finish_by].flatMap((m) => (m ? [at(m)] : [])))
  const last = moments.reduce((m, t) => Math.max(m, Math.floor(t / DAY_MIN) - startDay), 0)
  const long = Math.ceil((2 * work) / perDay + (2 * waits) / DAY_MIN) + last + input.closed.length + 70
  return Math.min(MOST_DAYS, long)
}
const MOST_DAYS = 4400

function problemOf(input: ScheduleInput): Problem {
  const start = at(input.start)
  const startDay = Math.floor(start / DAY_MIN)
  const days = daysToLay(input, startDay) + 1
  const hours = calendarOf(input.hours, input.closed, startDay - 1, days + 1)
  const skills = [...new Set(input.tasks.flatMap((t) => t.needs))]
  const bitsOf = (names: readonly string[]): number =>
    skills.reduce((bits, s, i) => (names.includes(s) ? bits | (1 << i) : bits), 0)
  const people: Person[] = input.people
    ? input.people.map((q) => ({
        skills: bitsOf(q.skills),
        hours:
          q.hours && q.hours.length > 0
            ? both(hours, calendarOf(q.hours, input.closed, startDay - 1, days + 1))
            : hours,
      }))
    : Array.from({ length: input.crew ?? 1 }, () => ({ skills: -1, hours }))
  const jobs = [...new Set(input.tasks.filter((t) => t.bay).flatMap((t) => t.job ?? []))]
  const index = new Map(input.tasks.map((t, i) => [t.id, i]))
  const tasks = input.tasks.map((t): Task => {
    const idle = !t.attended || t.minutes === 0
    // One person too few: fewer do it, longer, where that is allowed.
    const alone = !idle && t.alone_factor !== undefined && people.length === t.crew - 1 && t.crew > 1
    return {
      minutes: alone ? Math.ceil(t.minutes * (t.alone_factor ?? 1)) : t.minutes,
      crew: idle ? 0 : alone ? t.crew - 1 : t.crew,
      kind: idle ? 'free' : t.splittable ? 'paused' : 'fixed',
      group: t.bay && t.job !== undefined ? jobs.indexOf(t.job) : -1,
      notBefore: t.not_before ? Math.max(start, at(t.not_before)) : start,
      finishBy: t.finish_by ? at(t.finish_by) : NEVER,
      pinned: t.pinned ? at(t.pinned) : null,
      due: t.due ? at(t.due) : NEVER,
      needs: idle ? 0 : bitsOf(t.needs),
      after: t.after.map((a) => ({
        task: index.get(a.id) ?? 0,
        least: a.min_wait_minutes,
        most: a.max_wait_minutes ?? NEVER,
      })),
    }
  })
  return { start, tasks, people, hours, slots: input.bays ?? jobs.length, groups: jobs.length }
}

export type ScheduleAnswer = { plan: unknown } | { none: NoAnswer }

/** `cuirass/schedule@1` in, `cuirass/schedule-plan@1` out, or why there is no plan. Errors: the first field at fault. */
export function scheduleByContract(json: unknown, budget: Budget): Result<ScheduleAnswer> {
  const read = ScheduleInput.safeParse(json)
  if (!read.success) return err(firstFault(read.error))
  const input = read.data
  const problem = problemOf(input)
  const idOf = (i: number): string => input.tasks[i]?.id ?? ''
  if (problem.slots === 0 && problem.groups > 0) {
    const held = input.tasks.filter((t) => t.bay && t.job !== undefined).map((t) => t.id)
    return ok({ none: { code: 'window_impossible', facts: { why: 'no_bay' }, named: held } })
  }
  const out = schedule(problem, budget)
  if ('code' in out)
    return ok({ none: { code: out.code, facts: { people: problem.people.length }, named: out.tasks.map(idOf) } })
  const late = input.tasks.flatMap((t, i) => {
    const by = (out.ends[i] ?? 0) - (problem.tasks[i]?.due ?? NEVER)
    return by > 0 ? [{ id: t.id, minutes: by }] : []
  })
  return ok({
    plan: {
      format: 'cuirass/schedule-plan@1',
      start: input.start,
      finish: minutesToCivil(out.finish),
      lower_bound: minutesToCivil(out.bound),
      optimal: out.optimal,
      tasks: input.tasks.map((t, i) => ({
        id: t.id,
        start: minutesToCivil(out.begins[i] ?? 0),
        finish: minutesToCivil(out.ends[i] ?? 0),
      })),
      critical: out.critical.map(idOf),
      ...(input.tasks.some((t) => t.due) ? { late } : {}),
    },
  })
}
