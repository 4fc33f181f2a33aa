import type { Catalogue } from '../../model/catalogue/catalogue'
import type { Standing } from '../../model/figure/figure'
import type { Plan } from '../../model/plan/schema'

/** Air and surface of the shop: the job's own figures, or the last reading taken. */
export function climateOf(plan: Plan, climate: Catalogue['climate']) {
  const last = climate.at(-1)
  const pick = (own: number | null, read: number | null | undefined) =>
    own !== null
      ? { value: own, standing: 'assumed' as Standing, at: 'conditions' }
      : typeof read === 'number'
        ? { value: read, standing: 'measured' as Standing, at: 'climate' }
        : null
  return {
    air: pick(plan.conditions.airC, last?.airC),
    humidity: pick(plan.conditions.humidity, last?.humidity),
    surfaceC: last?.surfaceC ?? null,
    last: last ?? null,
  }
}
