import type { z } from 'zod'
import { pathText, readJson } from '../kit/json-guard'
import { err, ok, type Fault, type Result } from '../kit/result'
import { FORMAT, Plan } from './schema'

/** The first fault of a failed parse: the field and what it breaks, never the input itself. */
export function firstFault(error: z.ZodError): Fault {
  const issue = error.issues[0]
  if (!issue) return { code: 'bad_input' }
  const at = pathText(issue.path)
  const facts: Record<string, string | number> = {}
  for (const key of ['minimum', 'maximum', 'expected'] as const) {
    const value = (issue as unknown as Record<string, unknown>)[key]
    if (typeof value === 'number' || typeof value === 'string') facts[key] = value
  }
  if (issue.code === 'unrecognized_keys')
    return { code: 'unknown_key', at: at === '' ? issue.keys[0] : `${at}.${issue.keys[0]}`, facts }
  if (issue.code === 'custom') return { code: issue.message, at, facts }
  return { code: issue.code, at, facts }
}

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
