import type { z } from 'zod'
import { pathText } from './json-guard'
import { faultCode } from './fault-code'
import type { Fault } from './result'

/** The first fault of a failed parse: the field and what it breaks, never the input itself. */
export function firstFault(error: z.ZodError): Fault {
  const issue = error.issues[0]
  return issue ? issueFault(issue) : { code: 'bad_input' }
}

export function issueFault(issue: z.core.$ZodIssue): Fault {
  const at = pathText(issue.path)
  const facts: Record<string, string | number> = {}
  for (const key of ['minimum', 'maximum', 'expected'] as const) {
    const value = (issue as unknown as Record<string, unknown>)[key]
    if (typeof value === 'number' || typeof value === 'string') facts[key] = value
  }
  // At least, or more than: zero is often just out.
  if (issue.code === 'too_small' && issue.inclusive === false) facts.more_than = facts.minimum ?? 0
  if (issue.code === 'unrecognized_keys')
    return { code: 'unknown_key', at: at === '' ? issue.keys[0] : `${at}.${issue.keys[0]}`, facts }
  if (issue.code === 'custom') return { code: faultCode(issue.message), at, facts }
  return { code: issue.code, at, facts }
}
