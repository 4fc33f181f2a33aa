import type { LogRow } from '../model/log/schema'
import type { Plan } from '../model/plan/schema'
import type { Catalogue } from '../model/catalogue/catalogue'
import { applyChange, type PlanChange } from '../model/plan/plan-change'
import { reckon, type Reckoning } from './reckon'
import { Price } from '../model/finding/price'

/** What a way out costs: the whole job reckoned again with it taken. */
export function priceChange(
  plan: Plan,
  catalogue: Catalogue,
  ledger: readonly LogRow[],
  change: PlanChange,
  now: Reckoning,
): Price {
  const then = reckon(applyChange(plan, change), catalogue, ledger)
  const diff = (id: string) => Number(then.figures.get(id)?.value ?? 0) - Number(now.figures.get(id)?.value ?? 0)
  return { filmMm: diff('rail/film_used'), minutes: diff('rail/crew_minutes'), cost: diff('rail/cost') }
}
