import type { LogRow } from '../model/log/schema'
import type { Plan } from '../model/plan/schema'
import type { Catalogue } from '../model/catalogue/catalogue'
import { applyChange, type PlanChange } from '../model/plan/plan-change'
import { reckon, type Reckoning } from './reckon'
import { Price } from '../model/finding/price'

/** A job as ways out are priced on it: by closed forms and first layouts, before and after alike. */
export interface Priced {
  plan: Plan
  catalogue: Catalogue
  ledger: readonly LogRow[]
  now: Reckoning
}

/** What was solved for the plan as it is would stand against what is not solved for the plan that it becomes. */
export function pricedJob(plan: Plan, shop: Catalogue, ledger: readonly LogRow[]): Priced {
  const { solutions: _, ...catalogue } = shop
  return { plan, catalogue, ledger, now: reckon(plan, catalogue, ledger) }
}

/** What a way out costs: the whole job reckoned again with it taken. */
export function priceChange({ plan, catalogue, ledger, now }: Priced, change: PlanChange): Price {
  const then = reckon(applyChange(plan, change), catalogue, ledger)
  const diff = (id: string) => Number(then.figures.get(id)?.value ?? 0) - Number(now.figures.get(id)?.value ?? 0)
  return { filmMm: diff('rail/film_used'), minutes: diff('rail/crew_minutes'), cost: diff('rail/cost') }
}
