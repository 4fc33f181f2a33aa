import { seeded } from '@/core/kit/random'
import { timeBudget } from '@/core/kit/budget'
import { pack } from '@/core/solve/pack'
import { METHODS, type MethodName } from '@/core/solve/pack/model/method'
import { accents, car, cutUp, fleet, styled, van, type Instance } from './instances'

interface Set {
  name: string
  seconds: number
  list: Instance[]
}

const of = (n: number, make: (k: number) => Instance): Instance[] => Array.from({ length: n }, (_, k) => make(k))
const OWN_STYLES = ['city_car', 'saloon', 'estate', 'suv', 'roadster', 'pickup'] as const
const SETS: readonly Set[] = [
  { name: 'cars, directional', seconds: 1, list: of(6, (k) => car(2 * k)) },
  { name: 'cars, any film', seconds: 1, list: of(4, (k) => car(2 * k + 1)) },
  { name: 'cars of our own styles', seconds: 2, list: OWN_STYLES.map((style, k) => styled(style, k + 11, true)) },
  { name: 'vans', seconds: 2, list: of(3, van) },
  { name: 'accents', seconds: 1, list: of(6, accents) },
  { name: 'fleet of 6', seconds: 5, list: [fleet(6, 700, true), fleet(6, 740, false)] },
  { name: 'fleet of 12', seconds: 8, list: [fleet(12, 710, true), fleet(12, 750, false)] },
  { name: 'sheets, straight cuts', seconds: 1, list: of(6, (k) => cutUp(k + 7, 20 + 2 * k, 0)) },
  { name: 'sheets of 40 and more', seconds: 2, list: of(4, (k) => cutUp(57 + 30 * k, 50 + 30 * k, 0)) },
  { name: 'sheets with pinwheels, free', seconds: 2, list: of(5, (k) => cutUp(k + 44, 18 + 3 * k, 1 + (k % 2))) },
  { name: 'cars, free', seconds: 2, list: of(4, (k) => ({ ...car(2 * k + 1), rule: 'free' })) },
]

/** Methods that are worth more than the plans they find: they raise the bound, or price what others try. */
const UNCOUNTED: readonly MethodName[] = ['proof', 'recombine', 'big_first']

const average = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0) / list.length

/** Mean gap over a set, as a fraction of the least length, without some methods; and what each method gained, mm. */
function gapOf(set: Set, seed: number, without: ReadonlySet<MethodName>, gained: Map<MethodName, number>): number {
  const gaps = set.list.map((instance) => {
    const bins = instance.bins ?? [{ id: 'roll', width: instance.width, length: 2_000_000, lot: 'A' }]
    const plan = pack(instance.items, bins, {
      gap: 0,
      rule: instance.rule,
      random: seeded(seed),
      budget: timeBudget(() => performance.now(), set.seconds),
      without,
      gained: (name, by) => gained.set(name, (gained.get(name) ?? 0) + by),
    })
    return plan.used.reduce((s, u) => s + u.length, 0) / (instance.least ?? plan.bound) - 1
  })
  return gaps.reduce((s, g) => s + g, 0) / gaps.length
}

/**
 * What is lost without each method: mean gap in percentage points against all of them, over two seeds. Within the
 * difference of the two seeds it is noise. Seconds, not counted moves, though they want a quiet machine: a move of the
 * proof takes a sixth of the time of a move of the others.
 */
export function ablationBench(): string {
  const per = (v: number) => (100 * v).toFixed(2)
  const rows = METHODS.map((name) => ({ name, cells: [] as string[] }))
  const base: string[] = []
  const noise: string[] = []
  for (const set of SETS) {
    const gained = new Map<MethodName, number>()
    const whole = [1, 2].map((seed) => gapOf(set, seed, new Set(), gained))
    const mean = average(whole)
    base.push(per(mean))
    noise.push(per(Math.max(...whole) - Math.min(...whole)))
    for (const row of rows) {
      // What made no plan shorter changes nothing.
      if (!gained.has(row.name) && !UNCOUNTED.includes(row.name)) {
        row.cells.push('–')
        continue
      }
      const less = [1, 2].map((seed) => gapOf(set, seed, new Set([row.name]), new Map()))
      const lost = average(less) - mean
      row.cells.push(`${lost >= 0 ? '+' : '−'}${per(Math.abs(lost))}`)
    }
    console.error(set.name)
  }
  return `## Ablation: what is lost without each method, in percentage points of the mean gap

| method | ${SETS.map((s) => `${s.name}, ${s.seconds} s`).join(' | ')} |
|---|${SETS.map(() => '---|').join('')}
| all of them, mean gap in % | ${base.join(' | ')} |
| difference of two seeds | ${noise.join(' | ')} |
${rows.map((r) => `| without ${r.name} | ${r.cells.join(' | ')} |`).join('\n')}

Two seeds each; –: it made no plan shorter there. What lies within the difference of two seeds is noise. A method that
only raises the bound (proof) shows in the gap as well.
`
}
