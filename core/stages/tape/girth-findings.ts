import { type Finding, finding } from '../../model/finding/finding'
import type { Plan } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import { probablyWrong } from './suspects'

/** Panels that slope are a little longer than the length they cover (assumed). */
export const SLOPE_ROOM = 1.03
/** Panels of a side that follow each other end to end, each counted once. */
export function chainOf(plan: Plan, side: 'left' | 'right', byId: ReadonlyMap<string, Panel>): Panel[] {
  const aft = side === 'left' ? 'right' : 'left'
  const own = plan.panels.filter((p) => p.side === side)
  const next = (p: Panel): Panel | undefined =>
    p.edges
      .filter((e) => e.at === aft && e.neighbour)
      .map((e) => byId.get(e.neighbour ?? ''))
      .find((n) => n?.side === side && n.kind !== 'sill')
  const followed = new Set(own.map(next))
  const chains = own
    .filter((p) => !followed.has(p) && next(p))
    .map((start) => {
      const chain = [start]
      for (let p = next(start); p && !chain.includes(p); p = next(p)) chain.push(p)
      return chain
    })
  return chains.sort((a, b) => b.length - a.length)[0] ?? []
}

/** A side's panels end to end are no longer than the vehicle; the one that grew most against its style is named. */
export function girthFindings(
  plan: Plan,
  byId: ReadonlyMap<string, Panel>,
  family: ReadonlyMap<string, Panel>,
): Finding[] {
  const length = plan.vehicle.keys.length
  if (!length || plan.vehicle.keysAssumed.includes('length')) return []
  return (['left', 'right'] as const).flatMap((side) => {
    const chain = chainOf(plan, side, byId)
    const sum = chain.reduce((s, p) => s + p.widthMm, 0)
    if (chain.length < 2 || sum <= length * SLOPE_ROOM + plan.vehicle.toleranceMm) return []
    const wrong = probablyWrong(
      chain.map((panel) => ({
        panel,
        field: 'widthMm',
        value: panel.widthMm,
        expected: [family.get(panel.id)?.widthMm ?? length / chain.length],
      })),
    )
    return finding('girth_impossible', 'warn', 'tape', {
      id: `girth_impossible/${side}`,
      panelId: wrong?.panel.id ?? null,
      facts: {
        side,
        sum_mm: sum,
        length_mm: length,
        panel: wrong?.panel.name ?? '',
        value_mm: wrong?.value ?? 0,
        likely_mm: wrong?.expected[0] ?? 0,
      },
    })
  })
}
