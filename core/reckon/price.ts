import type { LogRow } from '../model/log/schema'
import type { Plan } from '../model/plan/schema'
import type { Catalogue } from '../model/catalogue/catalogue'
import { applyChange, type WayOut } from '../model/finding/finding'
import { reckon, type Reckoning } from './reckon'

export interface Price {
  /** Film more (or less) than now, mm of roll. */
  filmMm: number
  /** Crew minutes more (or less) than now. */
  minutes: number
  cost: number
}

/** What a way out costs: the whole job reckoned again with it taken. */
export function priceWayOut(
  plan: Plan,
  catalogue: Catalogue,
  ledger: readonly LogRow[],
  way: WayOut,
  now: Reckoning,
): Price {
  const then = reckon(applyChange(plan, way.change), catalogue, ledger)
  const diff = (id: string) => Number(then.figures.get(id)?.value ?? 0) - Number(now.figures.get(id)?.value ?? 0)
  return { filmMm: diff('rail/film_used'), minutes: diff('rail/crew_minutes'), cost: diff('rail/cost') }
}
