import { scheduleByContract } from '../core/engines/schedule/contract'
import { jobOutline } from '../core/engines/schedule/job-outline'
import { tryPin } from '../core/engines/schedule/pins'
import { timeBudget } from '../core/kit/budget'
import { seeded } from '../core/kit/random'
import { Plan } from '../core/model/plan/schema'
import { reckon } from '../core/reckon/reckon'
import { DEMO_JOBS } from '../db/demo/jobs'
import { DEMO_SETTINGS } from '../db/demo/people'
import { catalogue } from '../test/fixtures/plans'
import {
  minuteOf,
  plantedSchedule,
  scheduleFaults,
  type ScheduleFile,
  type SchedulePlan,
} from '../test/fixtures/check-schedule'

const clock = performance.now.bind(performance)

function solved(file: ScheduleFile, seconds: number): SchedulePlan | null {
  const out = scheduleByContract(file, timeBudget(clock, seconds))
  return out.ok && 'plan' in out.value ? (out.value.plan as SchedulePlan) : null
}

/** Ten vehicles of about twelve steps in two bays. */
function fleet(seed: number): ScheduleFile {
  const random = seeded(seed)
  const minutes = (least: number, most: number) => least + 5 * Math.floor((random() * (most - least)) / 5)
  const tasks = Array.from({ length: 10 }, (_, v) => {
    const job = `v${v}`
    const id = (name: string) => `${job}-${name}`
    const panels = ['a', 'b', 'c', 'd']
    return [
      { id: id('cut'), job, minutes: minutes(20, 50), bay: false },
      { id: id('wash'), job, minutes: minutes(30, 60), bay: false },
      { id: id('in'), job, minutes: 10, after: [{ id: id('wash') }] },
      { id: id('mask'), job, minutes: minutes(30, 60), after: [{ id: id('in'), min_wait_minutes: 600 }] },
      ...panels.map((p) => ({
        id: id(`lay-${p}`),
        job,
        minutes: minutes(20, 70),
        crew: random() < 0.4 ? 2 : 1,
        after: [{ id: id('mask') }, { id: id('cut') }],
      })),
      ...panels.map((p) => ({
        id: id(`trim-${p}`),
        job,
        minutes: minutes(15, 45),
        after: [{ id: id(`lay-${p}`), min_wait_minutes: 30 }],
      })),
      { id: id('heat'), job, minutes: 60, after: panels.map((p) => ({ id: id(`trim-${p}`), max_wait_minutes: 1440 })) },
    ]
  }).flat()
  const hours = (['mon', 'tue', 'wed', 'thu', 'fri'] as const).flatMap((day) => [
    { day, from: '08:00', to: '12:00' },
    { day, from: '13:00', to: '17:00' },
  ])
  return { format: 'cuirass/schedule@1', crew: 4, bays: 2, start: '2031-03-03T08:00', hours, tasks }
}

/** Plans that are full to the minute, found again; and ten vehicles in two bays against longer runs. */
export function scheduleBench(): string {
  let faults = 0
  const rows = [20, 50, 100, 200].flatMap((tasks) =>
    [true, false].map((hours) => {
      const over = [1, 2, 3, 4].map((crew) => {
        const { file, finish } = plantedSchedule(seeded(100 * tasks + crew + (hours ? 7 : 0)), { tasks, crew, hours })
        const plan = solved(file, 0.9)
        if (!plan) return NaN
        faults += scheduleFaults(file, plan).length
        const start = minuteOf(file.start)
        return (minuteOf(plan.finish) - start) / (minuteOf(finish) - start) - 1
      })
      const mean = over.reduce((a, b) => a + b, 0) / over.length
      const found = over.filter((o) => o < 1e-9).length
      return `| ${tasks} | ${hours ? 'a shop’s hours' : 'always open'} | ${(100 * mean).toFixed(2)} % | ${found} of ${over.length} |`
    }),
  )
  const fleets = [1, 2, 3].map((seed) => {
    const file = fleet(seed)
    const [short, long] = [0.9, 6].map((seconds) => solved(file, seconds))
    if (!short || !long) return '| – | – | – |'
    faults += scheduleFaults(file, short).length
    const start = minuteOf(file.start)
    const [a, b, bound] = [short.finish, long.finish, long.lower_bound].map((t) => minuteOf(t) - start)
    const above = (x: number | undefined) => `${(100 * ((a ?? NaN) / (x ?? NaN) - 1)).toFixed(2)} %`
    return `| ${file.tasks.length} tasks | ${above(b)} | ${above(bound)} |`
  })
  return `## Schedules

Budget 0.9 s each; crews of 1 to 4. Faults by the independent check: ${faults}.

| tasks, full to the minute | hours | over the known least finish, mean | found again |
| --- | --- | --- | --- |
${rows.join('\n')}

Ten vehicles in two bays with a crew of four, windows of a day for post-heat:

| size | above a run of 6 s | above the bound |
| --- | --- | --- |
${fleets.join('\n')}

### Work dragged on the board

One stretch of work of one job tried at another moment, as the board's worker does it: some can be, some are
refused. Jobs of a hatch each, two bays, four people.

| jobs | median | 95 in 100 | refused with a reason |
| --- | --- | --- | --- |
${drags().join('\n')}
`
}

const TRIALS = 30

/** How long the board thinks about a drag, by the number of jobs on it. */
function drags(): string[] {
  const plan = Plan.parse(DEMO_JOBS[0]?.make())
  const start = '2031-03-03T08:00'
  const outline = jobOutline(
    { ...plan, runSheet: { ...plan.runSheet, startAt: start } },
    reckon(plan, catalogue, []).steps,
    'hand_over',
  )
  const shop = { ...DEMO_SETTINGS, closed: [] }
  return [5, 10, 20, 60].map((count) => {
    const jobs = Array.from({ length: count }, (_, i) => ({ id: `j${i}`, outline }))
    const random = seeded(count)
    const took: number[] = []
    let refused = 0
    for (let i = 0; i < TRIALS; i++) {
      const day = 3 + Math.floor(random() * 25)
      const at = `2031-03-${String(day).padStart(2, '0')}T10:00`
      const since = clock()
      const out = tryPin(jobs, { shop, now: start, jobId: `j${i % count}`, pin: { code: 'wrap', at } })
      took.push(clock() - since)
      if (!out.ok) refused++
    }
    took.sort((a, b) => a - b)
    const ms = (share: number) => `${(took[Math.floor(TRIALS * share)] ?? NaN).toFixed(0)} ms`
    return `| ${count} | ${ms(0.5)} | ${ms(0.95)} | ${refused} of ${TRIALS} |`
  })
}
