import { layOutContext } from '@/core/engines/roll/context'
import { settleLayout } from '@/core/engines/roll/settle-layout'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { NO_SOLUTIONS } from '@/core/model/catalogue/solution-tables'
import { newPlan } from '@/core/model/plan/new-plan'
import { Plan } from '@/core/model/plan/schema'
import { familyPanels, STYLES, usualKeys, type Style } from '@/core/model/vehicle/families'
import { reckon } from '@/core/reckon/reckon'
import { lacksOf, solveLack, withSolutions } from '@/core/reckon/solve-lack'
import { DEMO_FILMS } from '@/db/demo/films'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { tableRow } from './table'

const film = DEMO_FILMS[0]
const VEHICLES = 20

/** Vehicles of our own body styles in one film, each a little larger or smaller than usual. */
function vehicles(): [string, Plan][] {
  if (!film) return []
  const styles = Object.keys(STYLES) as Style[]
  return Array.from({ length: VEHICLES }, (_, i): [string, Plan] => {
    const kind = styles[i % styles.length] ?? 'city_car'
    const scale = 1 + 0.03 * (Math.floor(i / styles.length) + (i % 3) - 1)
    const keys = usualKeys(kind)
    for (const { key, unit, min, max } of STYLES[kind])
      if (unit !== 'count') keys[key] = Math.min(max, Math.max(min, (keys[key] ?? min) * scale))
    const empty = newPlan(kind, '', { name: kind, kind, colour: { name: 'Grey', hex: '#808080' } })
    const panels = familyPanels(kind, keys).filter((p) => p.wrap)
    return [`${kind} ${i + 1}`, Plan.parse({ ...empty, film: { mainId: film.id, sheets: [film] }, panels })]
  })
}

/** What stands on the Roll page without a click, above its proven bound: the first layout, and the settled one. */
export function settleBench(): string {
  const rows = [
    ...DEMO_JOBS.map(({ make }): [string, Plan] => [make().vehicle.name, Plan.parse(make())]),
    ...vehicles(),
  ]
  const gaps: { first: number; settled: number; seconds: number }[] = []
  const lines = rows.flatMap(([name, plan]) => {
    const { layouts } = reckon(plan, { ...EMPTY_CATALOGUE, films: DEMO_FILMS }, [])
    // What is wider than every roll asks for a seam first: nothing is laid out yet.
    return layouts.flatMap((layout) => {
      if (layout.usedMm === 0) return []
      const began = performance.now()
      const { value } = settleLayout(plan, layout.film, layout.pieces, layOutContext([], [], layout))
      const seconds = (performance.now() - began) / 1000
      const above = (used: number) => used / Math.max(1, value.boundMm) - 1
      const gap = { first: above(layout.usedMm), settled: above(value.usedMm), seconds }
      gaps.push(gap)
      return tableRow(
        name,
        layout.pieces.length,
        `${(100 * gap.first).toFixed(2)} %`,
        `${(100 * gap.settled).toFixed(2)} %`,
        `${seconds.toFixed(1)} s`,
      )
    })
  })
  const mean = (of: (g: (typeof gaps)[number]) => number) =>
    `${((100 * gaps.reduce((s, g) => s + of(g), 0)) / gaps.length).toFixed(2)} %`
  const [settled, first] = [mean((g) => g.settled), mean((g) => g.first)]
  return `## Settling

What stands on the Roll page unasked, above its proven bound: the first layout while figures are typed, and the settled
one, which every figure uses (${VEHICLES} vehicles of our body styles and the demo jobs, an empty shelf). On average
**${settled}** settled, ${first} at first.

| vehicle | pieces | first | settled | search |
| ------- | ------ | ----- | ------- | ------ |
${lines.join('\n')}

${hatch()}`
}

/** The demo hatch from nothing, one solution after the other on one thread. */
function hatch(): string {
  const plan = Plan.parse(DEMO_JOBS[0]?.make())
  let catalogue = { ...EMPTY_CATALOGUE, films: DEMO_FILMS, solutions: NO_SOLUTIONS }
  const spent = { own: 0, compared: 0, maps: 0 }
  for (;;) {
    const job = { plan, catalogue, ledger: [] }
    const [lack] = lacksOf(job)
    if (!lack) break
    const began = performance.now()
    catalogue = withSolutions(catalogue, solveLack({ ...job, scanOf: () => null }, lack)) as typeof catalogue
    spent[lack.as ? 'compared' : 'own'] += (performance.now() - began) / 1000
    spent.maps++
  }
  const [own, half, compared] = [spent.own, spent.own / 2, spent.compared].map((s) => s.toFixed(0))
  return `A hatch of 24 panels settles with ${own} s of one processor (${half} s on two that are idle); what its films and
schools are compared by takes ${compared} s more, afterwards.
`
}
