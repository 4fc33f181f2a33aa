import type { LogRow } from '../model/log/schema'
import type { Plan } from '../model/plan/schema'
import type { Catalogue } from '../model/catalogue/catalogue'
import { jobOutline, type JobOutline } from '../engines/schedule/job-outline'
import { DEFAULT_SHOP } from '../model/shop/shop'
import { reckon } from './reckon'
import { standsAt } from './stages'

/** What the yard shows of a job. `recheckDueAt` is a UTC wall time. */
export interface YardColumns {
  stage: string
  stageState: string
  waitsFor: string
  waitsFacts: Record<string, string | number>
  recheckDueAt: string | null
  outline: JobOutline
}

/** Where a job stands, read off a whole reckoning of it. */
export function yardColumnsOf(plan: Plan, catalogue: Catalogue, ledger: readonly LogRow[]): YardColumns {
  const { stages, recheckDueAt, steps } = reckon(plan, catalogue, ledger)
  const stands = standsAt(stages)
  return {
    stage: stands.stage,
    stageState: stands.state,
    waitsFor: stands.why,
    waitsFacts: stands.facts,
    recheckDueAt,
    outline: jobOutline(plan, steps, (catalogue.shop ?? DEFAULT_SHOP).ready),
  }
}
