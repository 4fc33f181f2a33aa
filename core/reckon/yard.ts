import type { LogRow } from '../model/log/schema'
import type { Plan } from '../model/plan/schema'
import type { Catalogue } from '../model/catalogue/catalogue'
import { jobOutline, type JobOutline } from '../engines/schedule/job-outline'
import { DEFAULT_SHOP } from '../model/shop/default-shop'
import { jobRecord } from '../engines/run-sheet/job-record'
import { handedOver } from '../model/log/handed-over'
import type { JobRecord } from '../model/log/learned'
import type { Alert } from '../model/finding/alert'
import { alertsOf } from './alerts'
import { placesOf } from './places'
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
  /** What to know of it before anything else. */
  alerts: Alert[]
  /** What it taught, once it was handed over. */
  record: JobRecord | null
}

/** Where a job stands, read off a whole reckoning of it. */
export function yardColumnsOf(plan: Plan, catalogue: Catalogue, ledger: readonly LogRow[]): YardColumns {
  const reckoned = reckon(plan, catalogue, ledger)
  const { stages, recheckDueAt, steps } = reckoned
  const stands = standsAt(stages)
  return {
    stage: stands.stage,
    stageState: stands.state,
    waitsFor: stands.why,
    waitsFacts: stands.facts,
    recheckDueAt,
    alerts: alertsOf(plan, reckoned, ledger, catalogue.now),
    record: handedOver(ledger) ? jobRecord(steps, placesOf(plan, reckoned, ledger)) : null,
    outline: jobOutline(plan, steps, (catalogue.shop ?? DEFAULT_SHOP).ready),
  }
}
