import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lowerBound, Capacity } from '@/core/solve/schedule/bounds'
import { earliestBegins, linksOf, tails, inOrder } from '@/core/solve/schedule/earliest'
import { beginForEnd, earliestBegin, endOf, type Problem, type Task } from '@/core/solve/schedule/model'
import { Calendar, NEVER, schedule, type Schedule } from '@/core/solve/schedule'

const task = (over: Partial<Task> = {}): Task => ({
  minutes: 10,
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
const problem = (tasks: readonly Task[], over: Partial<Problem> = {}): Problem => {
  const hours = over.hours ?? Calendar.always()
  return {
    start: 0,
    tasks,
    people: Array.from({ length: 2 }, () => ({ skills: 0, hours })),
    hours,
    slots: 1,
    groups: 0,
    ...over,
  }
}
const planOf = (p: Problem): Schedule => {
  const out = schedule(p, { rounds: 60 })
  if ('code' in out) throw new Error(out.code)
  return out
}
/** A few tasks, each after some of those before it. */
const Net = fc
  .array(fc.record({ minutes: fc.integer({ min: 1, max: 40 }), links: fc.array(fc.nat(5), { maxLength: 2 }) }), {
    minLength: 2,
    maxLength: 7,
  })
  .map((list) =>
    list.map(({ minutes, links }, i) =>
      task({
        minutes,
        after: [...new Set(links)].filter((l) => l < i).map((l) => ({ task: l, least: (l * 7) % 5, most: NEVER })),
      }),
    ),
  )
const Shop = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 10, max: 80 })), { minLength: 1, maxLength: 4 })
  .map((list) => Calendar.of([...list.map(([from, long]): [number, number] => [from, from + long]), [400, 5000]]))

describe('the steps that a finish hangs on', () => {
  it('where everybody is there: a minute more on one of them is a minute later, on any other it is not', () => {
    fc.assert(
      fc.property(Net, (tasks) => {
        // As many hands as there are tasks: only waits bind.
        const hours = Calendar.always()
        const crowd = { hours, people: Array.from({ length: tasks.length }, () => ({ skills: 0, hours })) }
        const plan = planOf(problem(tasks, crowd))
        tasks.forEach((t, i) => {
          const longer = planOf(problem(tasks.with(i, { ...t, minutes: t.minutes + 1 }), crowd))
          expect(longer.finish - plan.finish, `task ${i}`).toBe(plan.critical.includes(i) ? 1 : 0)
        })
      }),
      { numRuns: 60 },
    )
  })
  it('are a chain in time: each begins no earlier than the one before it ends, and the last one ends it all', () => {
    fc.assert(
      fc.property(Net, Shop, (tasks, hours) => {
        const plan = planOf(problem(tasks, { hours, people: [{ skills: 0, hours }] }))
        const { critical, begins, ends, finish } = plan
        expect(ends[critical.at(-1) ?? -1]).toBe(finish)
        critical.slice(1).forEach((i, k) => {
          const before = critical[k] ?? -1
          expect(begins[i] ?? 0).toBeGreaterThanOrEqual(ends[before] ?? Infinity)
        })
      }),
      { numRuns: 60 },
    )
  })
})

describe('a finish that nothing can beat', () => {
  const boundOf = (p: Problem): number => {
    const links = linksOf(p)
    const order = inOrder(p, links)
    const heads = earliestBegins(
      p,
      links,
      p.tasks.map(() => p.start),
    )
    if ('cycle' in order || 'impossible' in heads) throw new Error('no plan')
    return lowerBound(
      p,
      heads,
      tails(p, links, order.order),
      heads.map((h, i) => h + (p.tasks[i]?.minutes ?? 0)),
    )
  }
  it('is no later than any plan that was found, whatever the hours and hands', () => {
    fc.assert(
      fc.property(Net, Shop, fc.integer({ min: 1, max: 3 }), (tasks, hours, hands) => {
        const p = problem(tasks, { hours, people: Array.from({ length: hands }, () => ({ skills: 0, hours })) })
        expect(boundOf(p)).toBeLessThanOrEqual(planOf(p).finish)
      }),
      { numRuns: 80 },
    )
  })
  it('one pair of hands with everything to do has all the work before it', () =>
    expect(
      boundOf(
        problem(
          [30, 20, 15].map((minutes) => task({ minutes })),
          { people: [{ skills: 0, hours: Calendar.always() }] },
        ),
      ),
    ).toBe(65))
  it('two pairs share it to the minute; an odd minute is a whole one', () => {
    expect(boundOf(problem([30, 20, 15].map((minutes) => task({ minutes }))))).toBe(33)
    expect(planOf(problem([30, 20, 15].map((minutes) => task({ minutes })))).finish).toBe(35)
  })
  it('one bay for three cars: what each of them holds it comes one after the other', () => {
    const car = (group: number) => task({ minutes: 50, group })
    const p = problem([car(0), car(1), car(2)], {
      groups: 3,
      people: Array.from({ length: 9 }, () => ({ skills: 0, hours: Calendar.always() })),
    })
    expect(boundOf(p)).toBe(150)
    expect(planOf(p).finish).toBe(150)
    expect(boundOf({ ...p, slots: 3 })).toBe(50)
  })
})

describe('what all hands can give', () => {
  it('up to a moment, and the moment by which they gave so much: counted minute by minute', () => {
    const Hands = fc.array(Shop, { minLength: 1, maxLength: 3 })
    fc.assert(
      fc.property(Hands, fc.integer({ min: 0, max: 500 }), fc.integer({ min: 1, max: 200 }), (shops, from, work) => {
        const p = problem([], { people: shops.map((hours) => ({ skills: 0, hours })) })
        const capacity = new Capacity(p)
        const open = (m: number) => shops.filter((h) => h.openUntil(m + 1) > h.openUntil(m)).length
        let given = 0
        let at = from
        while (given < work) given += open(at++)
        expect(capacity.moment(from, work)).toBe(at)
        expect(capacity.until(at) - capacity.until(from)).toBe(given)
      }),
      { numRuns: 80 },
    )
  })
})

describe('when a task may begin and ends', () => {
  it('one that pauses takes its minutes of open hours, whenever it is begun', () => {
    fc.assert(
      fc.property(Shop, fc.integer({ min: 0, max: 600 }), fc.integer({ min: 1, max: 120 }), (hours, t, minutes) => {
        const p = problem([], { hours })
        const own = task({ minutes })
        const begin = earliestBegin(p, own, t)
        expect(hours.openUntil(endOf(p, own, begin)) - hours.openUntil(begin)).toBe(minutes)
        expect(begin).toBeGreaterThanOrEqual(t)
      }),
    )
  })
  it('one that may not be broken off lies within one stretch; free ones ask for no hours', () => {
    const hours = Calendar.of([
      [0, 30],
      [60, 200],
    ])
    const p = problem([], { hours })
    expect(earliestBegin(p, task({ kind: 'fixed', minutes: 40 }), 0)).toBe(60)
    expect(earliestBegin(p, task({ kind: 'fixed', minutes: 30 }), 0)).toBe(0)
    expect(earliestBegin(p, task({ kind: 'free', minutes: 40 }), 31)).toBe(31)
    expect(earliestBegin(p, task({ kind: 'paused', minutes: 40 }), 31)).toBe(60)
  })
  it('a pinned one begins at its moment or never', () => {
    const hours = Calendar.of([[60, 200]])
    const p = problem([], { hours })
    expect(earliestBegin(p, task({ pinned: 80 }), 0)).toBe(80)
    expect(earliestBegin(p, task({ pinned: 80 }), 90)).toBe(NEVER)
    expect(earliestBegin(p, task({ pinned: 30 }), 0)).toBe(NEVER)
  })
  it('to end at a moment it begins as late as that takes: no minute earlier would do', () => {
    fc.assert(
      fc.property(Shop, fc.integer({ min: 150, max: 900 }), fc.integer({ min: 1, max: 60 }), (hours, end, minutes) => {
        const p = problem([], { hours })
        const own = task({ minutes })
        const begin = beginForEnd(p, own, end)
        expect(endOf(p, own, begin)).toBeGreaterThanOrEqual(end)
        const before = hours.nextOpen(Math.max(0, begin - 1))
        if (before < begin) expect(endOf(p, own, before)).toBeLessThan(end)
      }),
    )
  })
})
