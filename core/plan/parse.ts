import { firstFault } from '../kit/first-fault'
import { readJson } from '../kit/json-guard'
import { err, ok, type Result } from '../kit/result'
import { FORMAT, Plan } from './schema'

export { firstFault }

/** Any value as a plan. Errors: later_version, not_a_job, or the first field at fault. */
export function parsePlan(value: unknown): Result<Plan> {
  const format = typeof value === 'object' && value !== null ? (value as { format?: unknown }).format : undefined
  if (typeof format === 'string' && format !== FORMAT && /^cuirass\/job@\d+$/.test(format))
    return err({ code: 'later_version', at: 'format', facts: { format, reads: FORMAT } })
  if (format !== FORMAT) return err({ code: 'not_a_job', at: 'format', facts: { reads: FORMAT } })
  const parsed = Plan.safeParse(value)
  return parsed.success ? ok(parsed.data) : err(firstFault(parsed.error))
}

/** A job file's text as a plan. Errors: those of `readJson` and `parsePlan`. */
export function readPlan(text: string): Result<Plan> {
  const json = readJson(text)
  return json.ok ? parsePlan(json.value) : json
}

/** The job file of a plan: keys in a fixed order, so that equal plans give equal text. */
export const writePlan = (plan: Plan): string => `${JSON.stringify(Plan.parse(plan), null, 2)}\n`
