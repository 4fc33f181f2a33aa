import { tableRow } from './table'
import { seeded } from '@/core/kit/random'
import { timeBudget } from '@/core/kit/budget'
import { pack, type Packing } from '@/core/solve/pack'
import { reckon } from '@/core/reckon/reckon'
import { NO_SOLUTIONS } from '@/core/model/catalogue/solution-tables'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import type { Plan } from '@/core/model/plan/schema'
import { execFileSync } from 'node:child_process'
import { faultsOf } from '../test/fixtures/check-packing'
import { catalogue, manyPanels } from '../test/fixtures/plans'
import { library, ruled } from './rivals'
import { accents, alike, car, cutUp, fleet, inLots, styled, van, type Instance } from './instances'

export const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN

function time(work: () => void, times: number): number {
  for (let i = 0; i < 5; i++) work()
  return median(
    Array.from({ length: times }, () => {
      const t = performance.now()
      work()
      return performance.now() - t
    }),
  )
}

/** Nothing is solved yet: what is typed now stands in until the queue has been there. */
const NOTHING_SOLVED: Catalogue = { ...catalogue, solutions: NO_SOLUTIONS }

/** One width after another is typed in a job that stays open. ms in the middle. */
function typed(plan: Plan, times: number): number {
  let open = plan
  let last = reckon(open, NOTHING_SOLVED, [])
  let n = 0
  return time(() => {
    const at = (7 * ++n) % plan.panels.length
    const panels = open.panels.map((p, i) => (i === at ? { ...p, widthMm: p.widthMm + (n % 2 ? 3 : -3) } : p))
    open = { ...open, panels }
    last = reckon(open, NOTHING_SOLVED, last.parts.ledger, last)
  }, times)
}

/**
 * The whole of `reckon`, and one figure typed in a job that is open, against copying the same plan through JSON: the
 * cheapest thing that touches all of it.
 */
export function reckonBench(): string {
  const rows = [10, 40, 100, 200, 400].map((n) => {
    const plan = manyPanels(n)
    const copy = time(() => void JSON.parse(JSON.stringify(plan)), 40)
    // Another object each time, so that nothing of it is kept from the time before.
    const all = time(() => void reckon(structuredClone(plan), catalogue, []), 20)
    const one = typed(plan, 60)
    return `| ${n} | ${all.toFixed(1)} ms | ${(all / copy).toFixed(0)} × | ${one.toFixed(1)} ms | ${(one / copy).toFixed(0)} × |`
  })
  return `## reckon(plan, catalogue, ledger)

The first time, and when one width is typed in a job that is open; each also against copying the plan as JSON.

| panels | from nothing | against the copy | one figure typed | against the copy |
|---|---|---|---|---|
${rows.join('\n')}
`
}

const total = (p: Packing): number => p.used.reduce((sum, u) => sum + u.length, 0)

/** First plan, cancelling and memory: each the worst of several cars. */
function limitsBench(): string {
  const bins = [{ id: 'roll', width: 1520, length: 50_000, lot: 'A' }]
  const first: number[] = []
  const stop: number[] = []
  for (let k = 0; k < 12; k++) {
    const { items } = k % 3 === 2 ? van(k) : car(k)
    const began = performance.now()
    let seen = 0
    let asked = 0
    pack(items, bins, {
      gap: 0,
      random: seeded(1),
      better: () => (seen ||= performance.now()),
      budget: {
        rounds: Number.MAX_SAFE_INTEGER,
        spent: () => {
          const now = performance.now()
          if (now - began > 300 + 97 * k) asked ||= now
          return asked > 0
        },
        elapsed: () => Math.min(0.99, (performance.now() - began) / 5000),
      },
    })
    if (seen > 0) first.push(seen - began)
    if (asked > 0) stop.push(performance.now() - asked)
  }
  const worst = (l: number[]) => (l.length === 0 ? '–' : `${Math.max(...l).toFixed(0)} ms`)
  const memory = execFileSync(process.execPath, ['--import', 'tsx', 'bench/memory.ts'], { encoding: 'utf8' }).trim()
  return `First valid plan of a car or van: ${worst(first)} at worst of ${first.length}. Told to stop, the search
returned within ${worst(stop)} (${stop.length} runs). Most memory of a process that lays out two fleets of 60
(1,620 pieces each) and a van: ${memory} MB.
`
}

/** Pieces of the larger sheets: each count once with fixed pieces and once with pieces that may turn. */
const MANY = [40, 60, 80, 120, 200]

const CARS = ['city_car', 'saloon', 'estate', 'suv'] as const
const VANS = ['small_van', 'high_van', 'minibus', 'small_van', 'high_van', 'minibus'] as const

interface InstanceSet {
  name: string
  seconds: number
  list: Instance[]
}
const of = (n: number, make: (k: number) => Instance): Instance[] => Array.from({ length: n }, (_, k) => make(k))

const sets = (): InstanceSet[] => [
  { name: 'single car, 26 pieces', seconds: 5, list: of(12, (k) => car(k)) },
  { name: 'of these, film with a direction', seconds: 5, list: [0, 2, 4, 6, 8, 10].map((k) => car(k)) },
  {
    name: 'thirty more cars, film with a direction',
    seconds: 5,
    list: of(30, (k) => car(20 + 2 * k)),
  },
  {
    name: 'the same thirty',
    seconds: 1,
    list: of(30, (k) => car(20 + 2 * k)),
  },
  { name: 'twelve more cars, any film', seconds: 5, list: of(12, (k) => car(13 + 2 * k)) },
  { name: 'single car', seconds: 1, list: of(12, (k) => car(k)) },
  { name: 'van, 42 pieces', seconds: 5, list: of(6, (k) => van(k)) },
  { name: 'of these, film with a direction', seconds: 5, list: [0, 2, 4].map((k) => van(k)) },
  { name: 'twelve more vans', seconds: 5, list: of(12, (k) => van(6 + k)) },
  {
    name: 'cars of our own body styles, directional film',
    seconds: 5,
    list: CARS.map((s, k) => styled(s, k + 1, true)),
  },
  {
    name: 'vans of our own body styles, directional film',
    seconds: 5,
    list: VANS.map((s, k) => styled(s, k + 1, true)),
  },
  { name: 'vans of our own body styles, any film', seconds: 5, list: VANS.map((s, k) => styled(s, k + 1, false)) },
  { name: 'accents, 10-19 pieces', seconds: 5, list: of(8, (k) => accents(k)) },
  {
    name: 'sheets cut up by straight cuts, 8-30 pieces',
    seconds: 1,
    list: of(12, (k) => cutUp(k + 1, 8 + 2 * k, 0)),
  },
  {
    name: 'sheets with pinwheels, 8-30 pieces, free',
    seconds: 5,
    list: of(8, (k) => cutUp(k + 41, 9 + 3 * k, 1 + (k % 2))),
  },
  {
    name: 'sheets cut up, 40-200 pieces',
    seconds: 5,
    list: MANY.flatMap((n) => [cutUp(n + 7, n, 0), cutUp(n + 1008, n, 0)]),
  },
  {
    name: 'the same with pinwheels, free',
    seconds: 5,
    list: MANY.flatMap((n) => [cutUp(n + 8, n, 3), cutUp(n + 1009, n, 3)]),
  },
  { name: 'fleet of 6, directional film', seconds: 10, list: [fleet(6, 700, true), fleet(6, 720, true)] },
  { name: 'fleet of 6, any film', seconds: 10, list: [fleet(6, 740, false), fleet(6, 760, false)] },
  { name: 'fleet of 60, all differing, directional film', seconds: 30, list: [fleet(60, 900, true)] },
  { name: 'the same, each car from one lot, 44 rolls of 8 lots', seconds: 30, list: [inLots(60, 900)] },
  { name: 'fleet of 60 alike, 44 rolls of 8 lots', seconds: 30, list: [alike(60, 900)] },
]

/** One set: its row of the table, and how many of its plans are no longer than those of a packer with the same rule. */
function onSet({ name, seconds, list }: InstanceSet): { row: string; compared: number; noWorse: number } {
  let compared = 0
  let noWorse = 0
  const gaps: number[] = []
  const theirs: number[] = []
  const rule: number[] = []
  const above: number[] = []
  let proven = 0
  let faults = 0
  for (const instance of list) {
    const bins = instance.bins ?? [{ id: 'roll', width: instance.width, length: 2_000_000, lot: 'A' }]
    const plan = pack(instance.items, bins, {
      gap: 0,
      rule: instance.rule,
      random: seeded(1),
      budget: timeBudget(() => performance.now(), seconds),
    })
    const least = instance.least ?? plan.bound
    gaps.push(total(plan) / least - 1)
    above.push((least * instance.width) / instance.items.reduce((s, i) => s + i.width * i.length, 0) - 1)
    if (plan.proven || (instance.least !== undefined && total(plan) <= instance.least + 1e-6)) proven++
    faults += faultsOf(plan, instance.items, bins, { rule: instance.rule }).length
    const straight = instance.rule === 'guillotine' && !instance.bins ? ruled(instance) : null
    if (straight !== null) rule.push(straight / least - 1)
    const other = instance.items.length <= 200 ? library(instance) : null
    if (other !== null) theirs.push(other / least - 1)
    const rival = instance.rule === 'free' ? other : straight
    if (rival !== null) {
      compared++
      if (total(plan) <= rival + 1e-6) noWorse++
    }
  }
  const mean = (l: number[]) =>
    l.length === 0 ? '–' : `${((100 * l.reduce((s, g) => s + g, 0)) / l.length).toFixed(2)} %`
  const row = tableRow(
    name,
    `${seconds} s`,
    mean(gaps),
    `${(100 * Math.max(...gaps)).toFixed(2)} %`,
    `${proven} of ${list.length}`,
    faults,
    mean(above),
    mean(rule),
    mean(theirs),
  )
  return { row, compared, noWorse }
}

/** Twelve cars in so many rounds. */
function byRounds(rounds: number): string {
  const began = performance.now()
  const list = of(12, (k) => car(k))
  const gaps = list.map((i) => {
    const plan = pack(i.items, [{ id: 'roll', width: i.width, length: 50_000, lot: 'A' }], {
      gap: 0,
      cuts: 3,
      random: seeded(1),
      budget: { rounds },
    })
    return total(plan) / plan.bound - 1
  })
  const each = (performance.now() - began) / list.length
  return tableRow(
    rounds,
    `${((100 * gaps.reduce((s, g) => s + g, 0)) / gaps.length).toFixed(1)} %`,
    `${(100 * Math.max(...gaps)).toFixed(1)} %`,
    `${each.toFixed(0)} ms`,
  )
}

/** Quality beside time: ours in the seconds given, against a general packer that keeps no rule at all. */
export function layoutBench(): string {
  const results = sets().map(onSet)
  const count = (key: 'compared' | 'noWorse') => results.reduce((n, r) => n + r[key], 0)
  return `## Layout: gap to the proven bound, or to the least where it is known

${tableRow(
  'instances',
  'budget',
  'mean gap',
  'worst',
  'proven least',
  'faults by the independent check',
  'bound above the bare area',
  'a general packer that keeps the rule',
  'one with no cutting rule',
)}
|---|---|---|---|---|---|---|---|---|
${results.map((r) => r.row).join('\n')}

Instances are made at random with fixed seeds (\`bench/instances.ts\`). The bound is the bar relaxation; of up to 64
pieces it is raised by what a part of them, searched to the end, takes at least. Of more pieces part of a gap is the
bound's, since no plan by straight cuts need reach it; the nearer it stands to the bare area (film of any direction),
the more of it.
The packer that keeps the rule is guillotine-packer at its best of all its strategies; the other maxrects-packer at
its best of eight orders: it may place pieces where no straight cut parts them. –: the packer has no plan, as it turns
all pieces or none.
No longer than the best of the packers with the same rule: ${count('noWorse')} of ${count('compared')} plans.

${limitsBench()}
### The car on the page: rounds in place of seconds

| rounds | mean gap | worst | time each |
|---|---|---|---|
${[0, 600, 5000].map(byRounds).join('\n')}

600 rounds or so run while figures are typed; “Look for a shorter one” takes six seconds in a worker.
`
}
