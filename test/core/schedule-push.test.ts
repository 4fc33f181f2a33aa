import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { seeded } from '@/core/kit/random'
import { Calendar, NEVER, schedule, type Problem, type Task } from '@/core/solve/schedule'
import { beforePins } from '@/core/solve/schedule/before-pins'
import { earliestBegins, earliestWith, linksOf, type Arc } from '@/core/solve/schedule/earliest'

const OPEN = Calendar.of(Array.from({ length: 60 }, (_, day) => [day * 1440 + 480, day * 1440 + 960] as const))
const task = (over: Partial<Task>): Task => ({
  minutes: 30,
  crew: 1,
  kind: 'paused',
  group: -1,
  notBefore: 0,
  finishBy: NEVER,
  pinned: null,
  due: NEVER,
  needs: 0,
  after: [],
  ...over,
})
const problem = (tasks: Task[]): Problem => ({
  start: 480,
  tasks,
  people: [
    { skills: 0, hours: OPEN },
    { skills: 0, hours: OPEN },
  ],
  hours: OPEN,
  slots: 1,
  groups: 0,
})

/** Tasks that wait for some before them, a third of them within a window. */
function anyProblem(seed: number): Problem {
  const random = seeded(seed)
  const upTo = (n: number) => Math.floor(random() * n)
  return problem(
    Array.from({ length: 12 }, (_, i) =>
      task({
        minutes: 5 + upTo(200),
        kind: random() < 0.3 ? 'fixed' : 'paused',
        after: Array.from({ length: Math.min(i, upTo(3)) }, () => {
          const least = upTo(120)
          return { task: upTo(i), least, most: random() < 0.33 ? least + 60 + upTo(900) : NEVER }
        }),
      }),
    ),
  )
}

describe('what a new order moves', () => {
  test('is the same as beginning anew with that order among the waits', () => {
    let moved = 0
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const p = anyProblem(seed)
        const links = linksOf(p)
        const settled = earliestBegins(
          p,
          links,
          p.tasks.map(() => p.start),
        )
        if ('impossible' in settled) return
        // An order along the numbers makes no circle.
        const fresh: Arc[] = [
          { from: seed % 5, to: 5 + (seed % 3), least: 0 },
          { from: 6, to: 11, least: 15 },
        ]
        const arcs = new Map(fresh.map((a) => [a.from, fresh.filter((b) => b.from === a.from)]))
        const effort = { left: Infinity, latest: NEVER }
        const pushed = earliestWith(p, links, { settled, arcs, fresh, effort })
        const anew = {
          ...p,
          tasks: p.tasks.map((t, i) => ({
            ...t,
            after: [
              ...t.after,
              ...fresh.filter((a) => a.to === i).map((a) => ({ task: a.from, least: a.least, most: NEVER })),
            ],
          })),
        }
        const whole = earliestBegins(
          anew,
          linksOf(anew),
          p.tasks.map(() => p.start),
        )
        expect('impossible' in pushed).toBe('impossible' in whole)
        if (!('impossible' in pushed)) expect(pushed).toEqual(whole)
        if (JSON.stringify(pushed) !== JSON.stringify(settled)) moved++
      }),
      { numRuns: 400, seed: 7 },
    )
    expect(moved).toBeGreaterThan(100)
  })

  test('two that each wait for the other within a window are given up after as much as may be spent, and no later', () => {
    // The second begins within 10 minutes of the first; an order says an hour after it.
    const p = problem([task({}), task({ after: [{ task: 0, least: 0, most: 10 }] })])
    const links = linksOf(p)
    const settled = earliestBegins(p, links, [480, 480])
    expect(settled).toEqual([480, 510])
    const fresh = [{ from: 0, to: 1, least: 60 }]
    const ask = (effort: { left: number; latest: number }) =>
      earliestWith(p, links, { settled: settled as number[], arcs: new Map([[0, fresh]]), fresh, effort })
    const few = { left: 50, latest: NEVER }
    expect(ask(few)).toHaveProperty('impossible')
    expect(few.left).toBeLessThanOrEqual(0)
    const soon = { left: Infinity, latest: 600 }
    const counted = { left: 1e9, latest: 600 }
    expect(ask(soon)).toHaveProperty('impossible')
    ask(counted)
    expect(1e9 - counted.left).toBeLessThan(20)
  })

  test('panels of which each has a window of its own keep all of them by one or two people', () => {
    // Each panel: lay, wait for the film to settle, heat within the window. Found by parting what clashes.
    const tasks = Array.from({ length: 20 }, (_, k) => [
      task({ minutes: 90 + 7 * k, crew: 2 }),
      task({ minutes: 25, after: [{ task: 2 * k, least: 30, most: 240 }] }),
    ]).flat()
    const p = problem(tasks)
    const out = schedule(p, { rounds: 1 })
    if ('code' in out) throw new Error(out.code)
    tasks.forEach((t, i) =>
      t.after.forEach((l) => {
        const gap = (out.begins[i] ?? 0) - (out.ends[l.task] ?? 0)
        expect(gap).toBeGreaterThanOrEqual(l.least)
        expect(gap).toBeLessThanOrEqual(l.most)
      }),
    )
    // No minute has more than two people at work.
    for (const at of out.begins) {
      const busy = tasks.filter((_, i) => (out.begins[i] ?? 0) <= at && (out.ends[i] ?? 0) > at)
      expect(busy.reduce((n, t) => n + t.crew, 0)).toBeLessThanOrEqual(2)
    }
  })
})

describe('what leads to a task that is held to a moment', () => {
  const chain = (length: number, pinned: number): Problem => ({
    ...problem(
      Array.from({ length }, (_, i) =>
        task({
          minutes: 10,
          group: i < length - 1 ? 0 : -1,
          pinned: i === length - 1 ? pinned : null,
          after: i === 0 ? [] : [{ task: i - 1, least: 5, most: NEVER }],
        }),
      ),
    ),
    groups: 1,
  })
  const of = (p: Problem) =>
    beforePins(
      p,
      linksOf(p),
      p.tasks.map((_, i) => 480 + 15 * i),
    )
  test('has to end by that moment less what lies between, however long the chain', () => {
    for (const length of [3, 20_000]) {
      const before = of(chain(length, 1e6))
      // 15 minutes a link back from the one that is held.
      expect(before?.endBy[0]).toBe(1e6 - 15 * (length - 1) + 10)
      expect(before?.slotBy).toEqual([1e6 - 15 * (length - 1)])
      expect(before?.stay).toEqual([15 * (length - 2) + 10])
      expect(before?.endBy[length - 1]).toBe(NEVER)
    }
  })
  test('is nothing where none is held, and NEVER for what leads to none', () => {
    const free = chain(4, 5000)
    expect(of({ ...free, tasks: free.tasks.map((t) => ({ ...t, pinned: null })) })).toBe(null)
    const beside = {
      ...free,
      groups: 2,
      tasks: [...free.tasks, task({ group: 1, after: [{ task: 0, least: 5, most: NEVER }] })],
    }
    expect(of(beside)?.endBy.at(-1)).toBe(NEVER)
    expect(of(beside)?.slotBy[1]).toBe(NEVER)
  })
})
