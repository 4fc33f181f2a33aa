import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { scheduleByContract } from '@/core/engines/schedule/contract'
import { seeded } from '@/core/kit/random'
import {
  leastFinish,
  minuteOf,
  momentOf,
  plantedSchedule,
  scheduleFaults,
  type ScheduleFile,
  type SchedulePlan,
  type ScheduleTask,
} from '../fixtures/check-schedule'

const START = '2031-03-03T08:00'
const file = (tasks: ScheduleTask[], over: Partial<ScheduleFile> = {}): ScheduleFile => ({
  format: 'cuirass/schedule@1',
  crew: 2,
  start: START,
  tasks,
  ...over,
})
const WEEK = (['mon', 'tue', 'wed', 'thu', 'fri'] as const).flatMap((day) => [
  { day, from: '08:00', to: '12:00' },
  { day, from: '13:00', to: '17:00' },
])
const ROUNDS = { rounds: 40 }
const answer = (input: ScheduleFile): SchedulePlan | { code: string; named?: readonly string[] } => {
  const out = scheduleByContract(input, ROUNDS)
  if (!out.ok) throw new Error(`${out.error.code} ${out.error.at}`)
  return 'plan' in out.value ? (out.value.plan as SchedulePlan) : out.value.none
}
/** A plan, held to the contract by the independent reader. */
const planOf = (input: ScheduleFile): SchedulePlan => {
  const plan = answer(input)
  if ('code' in plan) throw new Error(plan.code)
  expect(scheduleFaults(input, plan)).toEqual([])
  return plan
}

describe('schedules against what is known', () => {
  test('the critical path of a published network (Hillier & Lieberman, Introduction to Operations Research: Reliable Construction)', () => {
    // Durations in weeks and predecessors as printed; the answer there: 44 weeks by A B C E F J L N.
    const net: [string, number, string][] = [
      ['A', 2, ''],
      ['B', 4, 'A'],
      ['C', 10, 'B'],
      ['D', 6, 'C'],
      ['E', 4, 'C'],
      ['F', 5, 'E'],
      ['G', 7, 'D'],
      ['H', 9, 'E G'],
      ['I', 7, 'C'],
      ['J', 8, 'F I'],
      ['K', 4, 'J'],
      ['L', 5, 'J'],
      ['M', 2, 'H'],
      ['N', 6, 'K L'],
    ]
    const plan = planOf(
      file(
        net.map(([id, weeks, before]) => ({
          id,
          minutes: weeks,
          after: before
            .split(' ')
            .filter(Boolean)
            .map((b) => ({ id: b })),
        })),
        { crew: 14 },
      ),
    )
    expect(minuteOf(plan.finish) - minuteOf(START)).toBe(44)
    expect(plan.optimal).toBe(true)
    expect([...plan.critical].sort().join('')).toBe('ABCEFJLN')
  })

  test('small cases end as early as the best of all schedules, waits and windows and bays and hours among them', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const input = smallCase(seeded(seed))
        const least = leastFinish(input, 30)
        const out = answer(input)
        if ('code' in out) {
          expect(least).toBe(null)
          return
        }
        expect(scheduleFaults(input, out)).toEqual([])
        if (least !== null) expect(minuteOf(out.finish) - minuteOf(START)).toBe(least)
      }),
      { numRuns: 60, seed: 11 },
    )
  })

  test.each([
    [20, 2],
    [60, 3],
    [100, 4],
  ])(
    'a plan of %i tasks that is full to the minute is found again, or one close to it',
    (tasks, crew) => {
      for (const hours of [true, false]) {
        const { file: planted, finish } = plantedSchedule(seeded(tasks + crew), { tasks, crew, hours })
        const plan = planOf(planted)
        const [got, known] = [plan.finish, finish].map((t) => minuteOf(t) - minuteOf(planted.start))
        expect((got ?? NaN) / (known ?? NaN)).toBeLessThan(1.08)
        expect(minuteOf(plan.lower_bound)).toBeLessThanOrEqual(minuteOf(finish))
      }
    },
    90_000,
  )
})

describe('what a shop asks of a schedule', () => {
  test('work pauses for the night only where it may; the rest begins in the morning', () => {
    const tasks = [
      { id: 'long', minutes: 300, splittable: true },
      { id: 'whole', minutes: 200, after: [{ id: 'long' }] },
    ]
    const plan = planOf(file(tasks, { hours: WEEK, crew: 1 }))
    expect(plan.tasks[0]).toMatchObject({ start: START, finish: '2031-03-03T14:00' })
    expect(plan.tasks[1]).toMatchObject({ start: '2031-03-04T08:00' })
  })

  test('what nobody attends runs over the night, and closed days are closed', () => {
    const tasks = [
      { id: 'dry', minutes: 720, attended: false },
      { id: 'lay', minutes: 60, after: [{ id: 'dry' }] },
    ]
    const plan = planOf(file(tasks, { hours: WEEK, closed: ['2031-03-04'] }))
    expect(plan.tasks[1]?.start).toBe('2031-03-05T08:00')
  })

  test('a window that closes puts off what opens it', () => {
    // Laid in the evening it would have to be heated within twelve hours, before the shop is open.
    const tasks = [
      { id: 'wash', minutes: 240 },
      { id: 'mask', minutes: 210, after: [{ id: 'wash' }] },
      { id: 'lay', minutes: 30, after: [{ id: 'mask' }] },
      { id: 'heat', minutes: 60, after: [{ id: 'lay', min_wait_minutes: 30, max_wait_minutes: 720 }] },
    ]
    const plan = planOf(file(tasks, { crew: 1, hours: WEEK }))
    expect(plan.tasks[2]?.start).toBe('2031-03-04T08:00')
  })

  test('one bay holds one job from its first task to its last, but for what is done elsewhere', () => {
    const job = (id: string) => [
      { id: `${id}1`, job: id, minutes: 30 },
      { id: `${id}2`, job: id, minutes: 30, after: [{ id: `${id}1`, min_wait_minutes: 60 }] },
    ]
    const tasks = [...job('a'), ...job('b'), { id: 'order', job: 'b', minutes: 10, bay: false }]
    const plan = planOf(file(tasks, { bays: 1 }))
    expect(minuteOf(plan.finish) - minuteOf(START)).toBe(240)
    expect(plan.tasks.find((t) => t.id === 'order')?.start).toBe(START)
  })

  test('skills, a helper who is missing, and pins', () => {
    const people = [
      { id: 'p1', skills: ['chrome'] },
      { id: 'p2', skills: [] },
    ]
    const { crew: _, ...noCrew } = file([
      { id: 'c1', minutes: 60, needs: ['chrome'] },
      { id: 'c2', minutes: 60, needs: ['chrome'] },
      { id: 'x', minutes: 120 },
    ])
    const plan = planOf({ ...noCrew, people })
    expect(minuteOf(plan.finish) - minuteOf(START)).toBe(120)
    const alone = planOf(file([{ id: 'roof', minutes: 40, crew: 2, alone_factor: 1.6 }], { crew: 1 }))
    expect(minuteOf(alone.finish) - minuteOf(START)).toBe(64)
    expect(answer(file([{ id: 'bonnet', minutes: 40, crew: 2 }], { crew: 1 }))).toMatchObject({
      code: 'crew_too_small',
      named: ['bonnet'],
    })
    const pinned = planOf(
      file(
        [
          { id: 'a', minutes: 60 },
          { id: 'b', minutes: 30, pinned: '2031-03-03T08:30' },
        ],
        { crew: 1 },
      ),
    )
    expect(pinned.tasks.map((t) => t.start)).toEqual(['2031-03-03T09:00', '2031-03-03T08:30'])
  })

  test('fewest late comes before the earliest finish, and lateness is told', () => {
    const plan = planOf(
      file(
        [
          { id: 'a', minutes: 50 },
          { id: 'b', minutes: 20, due: '2031-03-03T08:20' },
          { id: 'c', minutes: 90, due: '2031-03-03T09:00' },
        ],
        { crew: 1 },
      ),
    )
    expect(plan.late?.map((l) => l.id)).toEqual(['c'])
  })

  test('no hours are always open, but for closed days', () => {
    const task = [{ id: 'a', minutes: 600 }]
    expect(planOf(file(task, { hours: [] })).finish).toBe('2031-03-03T18:00')
    expect(planOf(file(task, { closed: ['2031-03-03'] })).tasks[0]?.start).toBe('2031-03-04T00:00')
  })

  test('what cannot be is named by its tasks', () => {
    const round = [
      { id: 'a', minutes: 5, after: [{ id: 'b' }] },
      { id: 'b', minutes: 5, after: [{ id: 'a' }] },
      { id: 'c', minutes: 5 },
    ]
    expect(answer(file(round))).toMatchObject({ code: 'cycle', named: expect.arrayContaining(['a', 'b']) })
    expect(answer(file([{ id: 'day', minutes: 500 }], { hours: WEEK }))).toMatchObject({
      code: 'never_fits',
      named: ['day'],
    })
    const window = [
      { id: 'a', minutes: 60, pinned: START },
      { id: 'b', minutes: 60, not_before: '2031-03-03T12:00', after: [{ id: 'a', max_wait_minutes: 30 }] },
    ]
    expect(answer(file(window))).toMatchObject({ code: 'window_impossible', named: ['a', 'b'] })
    expect(answer(file([{ id: 'a', minutes: 60, finish_by: '2031-03-03T08:30' }]))).toMatchObject({
      code: 'window_impossible',
    })
  })

  test('people who are never there together cannot do what needs both', () => {
    const { crew: _, ...noCrew } = file([{ id: 'roof', minutes: 30, crew: 2 }], { hours: WEEK })
    const people = [
      { id: 'early', hours: [{ day: 'mon' as const, from: '08:00', to: '12:00' }] },
      { id: 'late', hours: [{ day: 'mon' as const, from: '13:00', to: '17:00' }] },
    ]
    expect(answer({ ...noCrew, people })).toMatchObject({ code: 'never_fits', named: ['roof'] })
    const both = [...people, { id: 'all', hours: WEEK }]
    expect(answer({ ...noCrew, people: both })).toMatchObject({ tasks: [{ id: 'roof', start: START }] })
  })

  test('a long chain in which every wait has an end is scheduled, not searched through without end', () => {
    const chain = Array.from({ length: 60 }, (_, i) => ({
      id: `t${i}`,
      minutes: 50,
      after: [1, 2]
        .filter((k) => i >= k)
        .map((k) => ({ id: `t${i - k}`, min_wait_minutes: 5, max_wait_minutes: 4000 * k })),
    }))
    const plan = planOf(file(chain, { hours: WEEK }))
    expect(plan.tasks).toHaveLength(60)
  })

  test('a field at fault is named', () => {
    const fault = (tasks: ScheduleTask[], over: object = {}) => {
      const out = scheduleByContract({ ...file(tasks), ...over }, ROUNDS)
      return out.ok ? 'fine' : `${out.error.code} ${out.error.at}`
    }
    expect(fault([{ id: 'a', minutes: 5, after: [{ id: 'z' }] }])).toBe('no_such_task tasks[0].after[0].id')
    expect(fault([{ id: 'a', minutes: -5 }])).toBe('too_small tasks[0].minutes')
    expect(
      fault([
        { id: 'a', minutes: 5 },
        { id: 'a', minutes: 5 },
      ]),
    ).toBe('duplicate_id tasks[1].id')
    expect(fault([], { hours: [{ day: 'mon', from: '12:00', to: '08:00' }] })).toBe('upside_down hours[0].to')
    expect(fault([], { closed: ['2031-02-30'] })).toBe('no_such_moment closed[0]')
    expect(fault([], { start: '2031-03-03' })).toBe('invalid_format start')
  })

  test('no tasks end at the start; the same file gives the same plan', () => {
    expect(planOf(file([])).finish).toBe(START)
    const { file: planted } = plantedSchedule(seeded(5), { tasks: 40, crew: 3, hours: true })
    expect(planOf(planted)).toEqual(planOf(planted))
  })
})

/** A few tasks of a few minutes with everything that a schedule knows. */
function smallCase(random: () => number): ScheduleFile {
  const int = (a: number, b: number) => a + Math.floor(random() * (b - a + 1))
  const chance = (share: number) => random() < share
  const crew = int(1, 2)
  const jobs = chance(0.5)
  const later = (from: number, to: number) => momentOf(minuteOf(START) + int(from, to))
  const tasks = Array.from({ length: int(3, 4) }, (_, i): ScheduleTask => {
    const after = Array.from({ length: i }, (_, j) => j)
      .filter(() => chance(0.3))
      .map((j) => {
        const least = chance(0.5) ? int(0, 4) : 0
        return {
          id: `t${j}`,
          min_wait_minutes: least,
          ...(chance(0.4) ? { max_wait_minutes: least + int(0, 4) } : {}),
        }
      })
    return {
      id: `t${i}`,
      minutes: chance(0.1) ? 0 : int(1, 4),
      crew: int(1, crew),
      after,
      ...(chance(0.2) ? { attended: false } : chance(0.2) ? { splittable: true } : {}),
      ...(jobs ? { job: `j${int(0, 1)}`, bay: !chance(0.15) } : {}),
      ...(chance(0.15) ? { not_before: later(0, 8) } : {}),
      ...(chance(0.08) ? { finish_by: later(6, 25) } : {}),
      ...(chance(0.05) ? { pinned: later(0, 12) } : {}),
    }
  })
  const hours = [
    ['08:00', '08:05'],
    ['08:07', '08:13'],
    ['08:16', '08:24'],
    ['08:26', '08:50'],
  ].map(([from = '', to = '']) => ({ day: 'mon' as const, from, to }))
  return file(tasks, { crew, ...(jobs ? { bays: 1 } : {}), ...(chance(0.5) ? { hours } : {}) })
}
