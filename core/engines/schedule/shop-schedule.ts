import { civilToMinutes, minutesToCivil, type OpenHours } from '../../kit/civil'
import { SKILLS } from '../../model/shop/kinds'
import type { ShopSettings } from '../../model/shop/shop'
import { NEVER, schedule, type Calendar, type Person, type Problem, type Task } from '../../solve/schedule'
import { calendarOf } from './calendar-of'
import { bits, peopleOf, type OnShift } from './shop-people'
import type { Block, JobOutline } from './job-outline'

export interface BoardJob {
  id: string
  outline: JobOutline
  /** Work that begins at a moment that somebody set. */
  pins?: readonly { code: Block['code']; at: string }[]
}

/** One stretch of work as the board lays it out. Local wall times. */
export interface Bar {
  jobId: string
  code: Block['code']
  from: string
  to: string
  people: readonly string[]
  /** Begins then because somebody set it so on the board. */
  pinned: boolean
  /** Begins then because a step is locked on the job's run sheet. */
  locked: boolean
}
export interface Board {
  bars: readonly Bar[]
  /** By job: from its first work at the vehicle to its last, and the bay it stands in. */
  stays: readonly { jobId: string; bay: number; from: string; to: string }[]
  ready: ReadonlyMap<string, string>
  late: readonly { jobId: string; promisedAt: string; readyAt: string }[]
  /** What would keep all promises, each solved: one more person, one more bay, the late ones begun as soon as can be; null where
   * nobody asked. */
  rescues: readonly Rescue[] | null
  /** Pins that these hours, people and bays do not allow any more: laid out without them. */
  broken: readonly { jobId: string; code: Block['code']; at: string; locked: boolean }[]
}
export type Rescue = 'one_more_person' | 'one_more_bay' | 'begin_now'
export type BoardFault = { code: 'no_hours' | 'nothing_left' | 'does_not_fit'; jobs: readonly string[] }

/** Work at the film, not at the vehicle: it holds no bay. */
const BESIDE: readonly Block['code'][] = ['print', 'cut']
/** Work on panels is laid out in stretches of so many minutes, so that others can come between. */
const STRETCH_MIN = 240
const ROUNDS = 2

interface Piece {
  jobId: string
  block: Block
  task: Task
}

/** Links are by place within their own job; put in order they are places in the whole list. */
function tasksOf(jobs: readonly BoardJob[], pieces: ReturnType<typeof piecesOf>): Task[] {
  const tasks: Task[] = []
  for (const job of jobs) {
    const offset = tasks.length
    for (const { task } of pieces.filter((p) => p.jobId === job.id))
      tasks.push({ ...task, after: task.after.map((l) => ({ ...l, task: l.task + offset })) })
  }
  return tasks
}

/**
 * What is left of all jobs, by the people of the shop with their skills and absences and by its bays: fewest late, then
 * soonest. Jobs without a start are not laid out. Deterministic. `now`: local wall time. `rescues: false`: what would keep
 * the promises is not solved. `rounds`: how long better ones are looked for. `letGo: false`: work that was set to a
 * moment is not let go where that does not go; nothing fits then.
 */
export function shopSchedule(
  jobs: readonly BoardJob[],
  shop: ShopSettings,
  now: string,
  { rescues = true, rounds = ROUNDS, letGo = true }: { rescues?: boolean; rounds?: number; letGo?: boolean } = {},
): Board | BoardFault {
  const start = civilToMinutes(now) ?? 0
  const dated = jobs.filter((j) => j.outline.startAt !== null && j.outline.blocks.length > 0)
  if (shop.week.length === 0) return { code: 'no_hours', jobs: [] }
  if (dated.length === 0) return { code: 'nothing_left', jobs: [] }
  const hours: OpenHours = { week: shop.week, closed: shop.closed.map((c) => c.date) }
  const place = calendarOf(hours, start)
  const crew = peopleOf(shop, hours, start)
  const pieces = dated.flatMap((job, group) => piecesOf(job, group, start, crew.length))
  const people: Person[] = crew.map((p) => p.person)
  const problem: Problem = {
    start,
    hours: place,
    people,
    slots: Math.max(1, shop.bays.length),
    groups: dated.length,
    tasks: tasksOf(dated, pieces),
  }
  const kept = keptPins(problem, rounds, letGo)
  const solved = kept.solved
  if ('code' in solved)
    return { code: 'does_not_fit', jobs: [...new Set(solved.tasks.map((i) => pieces[i]?.jobId ?? ''))] }
  const broken = kept.without.flatMap((i) => {
    const piece = pieces[i]
    if (!piece) return []
    const { jobId, block, task } = piece
    return [{ jobId, code: block.code, at: minutesToCivil(task.pinned ?? 0), locked: block.lockedAt !== undefined }]
  })
  const bars = barsOf(pieces, place, solved, crew, new Set(kept.without))
  const stays = staysOf(bars)
  const ready = new Map(
    dated.map(({ id, outline: { afterReadyMin = 0 } }) => {
      const end = civilToMinutes(latest(bars.filter((b) => b.jobId === id)))
      return [id, end === null ? '' : minutesToCivil(end - afterReadyMin)]
    }),
  )
  const late = dated.flatMap(({ id, outline: { promisedAt } }) => {
    const readyAt = ready.get(id) ?? ''
    return promisedAt !== null && promisedAt < readyAt ? [{ jobId: id, promisedAt, readyAt }] : []
  })
  return {
    bars,
    stays,
    ready,
    late,
    rescues: !rescues ? null : late.length > 0 ? rescuesOf(kept.problem, lateTasks(pieces, late)) : [],
    broken,
  }
}

const latest = (bars: readonly Bar[]): string => bars.reduce((max, b) => (b.to > max ? b.to : max), '')

/** Places of the tasks of late jobs. */
const lateTasks = (pieces: readonly Piece[], late: Board['late']): ReadonlySet<number> =>
  new Set(pieces.flatMap((p, i) => (late.some((l) => l.jobId === p.jobId) ? [i] : [])))

interface KeptPins {
  problem: Problem
  solved: ReturnType<typeof schedule>
  /** Tasks whose pin was let go. */
  without: number[]
}

/** The plan that keeps as many pins as go, the earliest first; those that do not are let go one by one. */
function keptPins(problem: Problem, rounds: number, letGo: boolean): KeptPins {
  const solved = schedule(problem, { rounds })
  const pins = problem.tasks
    .flatMap((t, i) => (t.pinned === null ? [] : [{ i, at: t.pinned }]))
    .sort((a, b) => a.at - b.at)
  if (!('code' in solved) || pins.length === 0 || !letGo) return { problem, solved, without: [] }
  const without = new Set(pins.map((p) => p.i))
  const trial = (): Pick<KeptPins, 'problem' | 'solved'> => {
    const tasks = problem.tasks.map((t, i) => (without.has(i) ? { ...t, pinned: null } : t))
    return { problem: { ...problem, tasks }, solved: schedule({ ...problem, tasks }, { rounds }) }
  }
  let best = trial()
  for (const { i } of pins) {
    without.delete(i)
    const next = trial()
    if ('code' in next.solved) without.add(i)
    else best = next
  }
  return { ...best, without: [...without] }
}

/** Which single change leaves no job late: each is solved. */
function rescuesOf(problem: Problem, late: ReadonlySet<number>): Rescue[] {
  const keeps = (over: Partial<Problem>): boolean => {
    const out = schedule({ ...problem, ...over }, { rounds: ROUNDS })
    return !('code' in out) && out.late === 0
  }
  // A start that was set, or work set to a moment, holds a late job back no longer.
  const sooner = problem.tasks.map((t, i) => (late.has(i) ? { ...t, notBefore: problem.start, pinned: null } : t))
  const everySkill: Person = { skills: (1 << SKILLS.length) - 1, hours: problem.hours }
  return [
    ...(keeps({ people: [...problem.people, everySkill] }) ? (['one_more_person'] as const) : []),
    ...(keeps({ slots: problem.slots + 1 }) ? (['one_more_bay'] as const) : []),
    ...(keeps({ tasks: sooner }) ? (['begin_now'] as const) : []),
  ]
}

/** The blocks of one job as tasks, each after the one before it; cutting goes on beside the vehicle's preparation. */
function piecesOf({ id, outline, pins = [] }: BoardJob, group: number, start: number, crew: number): Piece[] {
  const out: Piece[] = []
  const notBefore = Math.max(start, civilToMinutes(outline.startAt ?? '') ?? start)
  const promised = civilToMinutes(outline.promisedAt ?? '')
  const due = promised === null ? NEVER : promised + (outline.afterReadyMin ?? 0)
  // A moment that has passed holds nothing any more.
  const momentOf = (wall: string): number | null => {
    const at = civilToMinutes(wall)
    return at === null || at < start ? null : at
  }
  const pinOf = (code: Block['code']): number | null => momentOf(pins.find((p) => p.code === code)?.at ?? '')
  const lastOf = (codes: readonly Block['code'][]) => out.findLastIndex((p) => codes.includes(p.block.code))
  const waitsFor = ({ code }: Block): number[] => {
    // The rest of a block that a lock divides comes after its beginning.
    const begun = lastOf([code])
    if (begun >= 0) return [begun]
    if (code === 'cut' || code === 'arrive') return [lastOf(['print'])]
    if (code === 'wrap') return [lastOf(['arrive', 'prepare']), lastOf(['cut', 'print'])]
    return [lastOf(['arrive', 'prepare', 'wrap', 'finish', 'handover'])]
  }
  for (const block of outline.blocks) {
    const isFirst = lastOf([block.code]) < 0
    const set = block.lockedAt === undefined ? (isFirst ? pinOf(block.code) : null) : momentOf(block.lockedAt)
    for (let left = block.minutes, first = true; left > 0 || first; left -= STRETCH_MIN, first = false) {
      const minutes = Math.max(0, Math.min(left, block.code === 'wrap' ? STRETCH_MIN : left))
      const before = first ? waitsFor(block).filter((i) => i >= 0) : [out.length - 1]
      const link = (i: number) => ({ task: i, least: first ? (out[i]?.block.waitMin ?? 0) : 0, most: NEVER })
      const people = Math.min(crew, block.people)
      const task: Task = {
        minutes,
        crew: minutes > 0 ? people : 0,
        kind: minutes > 0 ? 'paused' : 'free',
        group: BESIDE.includes(block.code) ? -1 : group,
        notBefore,
        finishBy: NEVER,
        pinned: first ? set : null,
        due: block === outline.blocks.at(-1) && left <= minutes ? due : NEVER,
        needs: bits(block.skills),
        after: before.map(link),
      }
      out.push({ jobId: id, block, task })
      if (block.code !== 'wrap') break
    }
  }
  return out
}

/** Bars with the people at them: those who have the skills first, then whoever is free. */
function barsOf(
  pieces: readonly Piece[],
  place: Calendar,
  solved: { begins: number[]; ends: number[] },
  crew: readonly OnShift[],
  letGo: ReadonlySet<number>,
): Bar[] {
  const isThere = ({ hours }: Person, from: number, to: number): boolean =>
    hours.openUntil(to) - hours.openUntil(from) >= place.openUntil(to) - place.openUntil(from)
  const busy = crew.map((): [number, number][] => [])
  const order = pieces.map((_, i) => i).sort((a, b) => (solved.begins[a] ?? 0) - (solved.begins[b] ?? 0))
  const bars: Bar[] = []
  for (const i of order) {
    const piece = pieces[i]
    const [from, to] = [solved.begins[i] ?? 0, solved.ends[i] ?? 0]
    if (!piece || piece.task.minutes === 0) continue
    const free = crew
      .map((c, k) => ({ ...c, k, fits: (c.person.skills & piece.task.needs) === piece.task.needs ? 0 : 1 }))
      .filter(({ k, person }) => isThere(person, from, to) && !(busy[k] ?? []).some(([a, b]) => a < to && from < b))
      .sort((a, b) => a.fits - b.fits || a.k - b.k)
      .slice(0, piece.task.crew)
    for (const { k } of free) busy[k]?.push([from, to])
    const isSet = piece.task.pinned !== null && !letGo.has(i)
    const isLocked = piece.block.lockedAt !== undefined
    bars.push({
      jobId: piece.jobId,
      code: piece.block.code,
      from: minutesToCivil(from),
      to: minutesToCivil(to),
      people: free.map((f) => f.name),
      pinned: isSet && !isLocked,
      locked: isSet && isLocked,
    })
  }
  return bars
}

/** A vehicle stands in one bay from its first work there to its last; the first bay that is free takes it. */
function staysOf(bars: readonly Bar[]): Board['stays'] {
  const jobs = [...new Set(bars.map((b) => b.jobId))]
  const spans = jobs
    .map((jobId) => {
      const own = bars.filter((b) => b.jobId === jobId && !BESIDE.includes(b.code))
      const from = own.reduce((min, b) => (b.from < min ? b.from : min), own[0]?.from ?? '')
      return { jobId, from, to: latest(own) }
    })
    .filter((s) => s.to !== '')
    .sort((a, b) => a.from.localeCompare(b.from))
  const free: string[] = []
  return spans.map((s) => {
    const at = free.findIndex((until) => until <= s.from)
    const bay = at >= 0 ? at : free.length
    free[bay] = s.to
    return { ...s, bay }
  })
}
