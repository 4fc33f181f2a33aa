import { NEVER } from './calendar'
import { beginForEnd, earliestBegin, endOf, type Problem } from './model'

/** One task after another by at least so many minutes. */
export interface Arc {
  from: number
  to: number
  least: number
}

/** Who follows whom, and which windows close. */
export interface Links {
  /** By task: those that come after it. */
  next: { task: number; least: number; most: number }[][]
}
export function linksOf(p: Problem): Links {
  const next: Links['next'] = p.tasks.map(() => [])
  p.tasks.forEach((task, i) => task.after.forEach((l) => next[l.task].push({ task: i, least: l.least, most: l.most })))
  return { next }
}

/** A window that cannot be met, and the task at which it was seen. */
export interface Impossible {
  impossible: number
}

/** How many tasks may still be looked at, and after which moment none is begun. */
export interface Effort {
  left: number
  latest: number
}

/**
 * The earliest begin of every task that waits and windows allow, as if people and slots were without end: least waits
 * push what comes after, windows that would close pull up what comes before. Never falls below `floor`.
 */
export function earliestBegins(p: Problem, links: Links, floor: readonly number[]): number[] | Impossible {
  const begins = p.tasks.map((task, i) => earliestBegin(p, task, Math.max(p.start, floor[i])))
  const never = begins.findIndex((b) => b >= NEVER)
  if (never >= 0) return { impossible: never }
  return pushOn(p, links, {
    begins,
    queue: p.tasks.map((_, i) => i),
    arcs: new Map(),
    effort: { left: Infinity, latest: NEVER },
  })
}

/**
 * The same where `settled` holds all waits, windows and `arcs` but for the `fresh` ones among them: only what those move is
 * looked at. Where `effort` runs out or a begin comes after its latest, the answer is "impossible".
 */
export function earliestWith(
  p: Problem,
  links: Links,
  { settled, arcs, fresh, effort }: { settled: readonly number[]; arcs: ArcsOf; fresh: readonly Arc[]; effort: Effort },
): number[] | Impossible {
  const queue = [...new Set(fresh.map((arc) => arc.from))]
  return pushOn(p, links, { begins: [...settled], queue, arcs, effort })
}

/** Arcs by the task they leave from. */
export type ArcsOf = ReadonlyMap<number, readonly Arc[]>

interface Push {
  begins: number[]
  /** Tasks whose followers may have to move. */
  queue: number[]
  arcs: ArcsOf
  effort: Effort
}

function pushOn(p: Problem, links: Links, { begins, queue, arcs, effort }: Push): number[] | Impossible {
  const waits = new Uint8Array(p.tasks.length)
  for (const i of queue) waits[i] = 1
  const lifts = new Int32Array(p.tasks.length)
  const lift = (i: number, to: number): boolean => {
    const begin = earliestBegin(p, p.tasks[i], to)
    if (begin <= begins[i]) return true
    begins[i] = begin
    // A window that closes only by pushing round and round for ever never closes.
    if (begin >= effort.latest || ++lifts[i] > MOST_LIFTS) return false
    if (!waits[i]) {
      waits[i] = 1
      queue.push(i)
    }
    return true
  }
  for (let head = 0; head < queue.length; head++) {
    const i = queue[head]
    waits[i] = 0
    if (effort.left-- <= 0) return { impossible: i }
    const task = p.tasks[i]
    const end = endOf(p, task, begins[i])
    if (end > task.finishBy) return { impossible: i }
    for (const l of links.next[i]) if (!lift(l.task, end + l.least)) return { impossible: l.task }
    for (const arc of arcs.get(i) ?? []) if (!lift(arc.to, end + arc.least)) return { impossible: arc.to }
    for (const l of task.after) {
      if (l.most >= NEVER) continue
      const before = p.tasks[l.task]
      if (begins[i] - endOf(p, before, begins[l.task]) <= l.most) continue
      const begin = beginForEnd(p, before, begins[i] - l.most)
      if (!lift(l.task, Math.max(begin, begins[l.task] + 1))) return { impossible: i }
    }
  }
  return begins
}

const MOST_LIFTS = 4000

/** Minutes that surely pass from the begin of each task to the end of the last one, by durations and least waits. */
export function tails(p: Problem, links: Links, order: readonly number[]): number[] {
  const out = p.tasks.map((t) => t.minutes)
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]
    for (const l of links.next[i]) out[i] = Math.max(out[i], p.tasks[i].minutes + l.least + out[l.task])
  }
  return out
}

/** Tasks so that each comes after those it waits for; null with the tasks of a cycle where there is one. */
export function inOrder(p: Problem, links: Links): { order: number[] } | { cycle: number[] } {
  const left = p.tasks.map((t) => t.after.length)
  const order = p.tasks.map((_, i) => i).filter((i) => left[i] === 0)
  for (let head = 0; head < order.length; head++)
    for (const l of links.next[order[head]]) if (--left[l.task] === 0) order.push(l.task)
  if (order.length === p.tasks.length) return { order }
  // What is left holds a cycle: walk back until a task comes again.
  const stuck = new Set(p.tasks.map((_, i) => i).filter((i) => left[i] > 0))
  const seen: number[] = []
  let at = [...stuck][0]
  while (!seen.includes(at)) {
    seen.push(at)
    at = p.tasks[at].after.map((l) => l.task).find((i) => stuck.has(i)) ?? at
  }
  return { cycle: seen.slice(seen.indexOf(at)).reverse() }
}
