import { NEVER, type Calendar } from './calendar'

/** `fixed`: within one open stretch; `paused`: goes on after closed hours; `free`: at any time, without anybody. */
export type TaskKind = 'fixed' | 'paused' | 'free'

/** Times are minutes of the calendars' origin. */
export interface Task {
  minutes: number
  /** People at work; 0 for what is free. */
  crew: number
  kind: TaskKind
  /** Tasks of one group share a slot from the first begin to the last end; -1: none. */
  group: number
  notBefore: number
  /** Hard. */
  finishBy: number
  /** Begins then and at no other time. */
  pinned: number | null
  /** Soft: an end after it is late. */
  due: number
  /** Skills that the people at work must have between them, as bits. */
  needs: number
  after: readonly Link[]
}
/** Least and most minutes from the end of another task to the begin of this one. */
export interface Link {
  task: number
  least: number
  most: number
}

export interface Person {
  skills: number
  hours: Calendar
}

export interface Problem {
  start: number
  tasks: readonly Task[]
  people: readonly Person[]
  /** Open hours of the place: what pauses, pauses outside of them. */
  hours: Calendar
  /** Groups that can be there at once. */
  slots: number
  groups: number
}

/** Begins by task. */
export interface Plan {
  begins: number[]
  ends: number[]
  finish: number
  late: number
}

/** Whether all people are alike: then only their number matters. */
export const allAlike = (p: Problem): boolean =>
  p.people.every((q) => q.skills === p.people[0].skills && q.hours === p.people[0].hours)

/** The earliest begin at `t` or later that the hours allow, whoever is free. */
export function earliestBegin(p: Problem, task: Task, t: number): number {
  const from = Math.max(t, task.notBefore)
  if (task.pinned !== null && from > task.pinned) return NEVER
  const asked = task.pinned ?? from
  const begin =
    task.kind === 'free' ? asked : task.kind === 'fixed' ? p.hours.fit(asked, task.minutes) : p.hours.nextOpen(asked)
  return task.pinned !== null && begin !== task.pinned ? NEVER : begin
}

export const endOf = (p: Problem, task: Task, begin: number): number =>
  task.kind === 'paused' ? p.hours.endOf(begin, task.minutes) : begin + task.minutes

/** The earliest begin with which a task ends at `end` or later. */
export function beginForEnd(p: Problem, task: Task, end: number): number {
  if (task.kind !== 'paused') return earliestBegin(p, task, end - task.minutes)
  const open = p.hours.openUntil(end) - task.minutes
  let begin = p.hours.nextOpen(Math.max(0, p.hours.momentOf(open)))
  if (endOf(p, task, begin) < end) begin = p.hours.nextOpen(begin + 1)
  return earliestBegin(p, task, begin)
}

export function planOf(p: Problem, begins: readonly number[]): Plan {
  const ends = p.tasks.map((task, i) => endOf(p, task, begins[i]))
  return {
    begins: [...begins],
    ends,
    finish: ends.reduce((a, b) => Math.max(a, b), p.start),
    late: p.tasks.reduce((n, task, i) => n + (ends[i] > task.due ? 1 : 0), 0),
  }
}

export const isBetter = (a: Plan, b: Plan | null): boolean =>
  b === null || a.late < b.late || (a.late === b.late && a.finish < b.finish)
