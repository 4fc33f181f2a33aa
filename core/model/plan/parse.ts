import { firstFault } from '../../kit/first-fault'
import { readJson } from '../../kit/json-guard'
import { controlCharacterIn } from '../../kit/plain-text'
import { err, ok, type Result } from '../../kit/result'
import { upgradeSheet } from '../film/upgrade'
import { gapsAndSpans } from './gaps-and-spans'
import { itemKey } from './item-key'
import { FORMAT, Plan } from './schema'

export { firstFault }

type Raw = Record<string, unknown>
const isRaw = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value)
/** Of items that stand under one id the first: two could be saved once. */
function firstOfEach(value: unknown): unknown {
  if (Array.isArray(value)) {
    const seen = new Set<unknown>()
    return value
      .filter((item: unknown) => {
        const key = itemKey(item)
        return key === null || (!seen.has(key) && seen.add(key))
      })
      .map(firstOfEach)
  }
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(Object.entries(value).map(([key, item]) => [key, firstOfEach(item)]))
}

/**
 * `cuirass/job@1` → `@2`: film sheets say how hot they may get, how far they may be stretched beforehand, what heat
 * takes back.
 */
const fromFirst = (old: Raw): Raw => ({ ...(firstOfEach(old) as Raw), format: 'cuirass/job@2' })

/**
 * `@2` → `@3`: a gap and a span are two things, and film sheets say how the film handles; a file of `@1` or `@2` is
 * taken to say what is usual.
 */
function fromSecond(job: Raw): Raw {
  const film = isRaw(job.film) ? job.film : null
  const sheets = film && Array.isArray(film.sheets) ? { film: { ...film, sheets: film.sheets.map(upgradeSheet) } } : {}
  const panels = Array.isArray(job.panels) ? { panels: job.panels.map(gapsAndSpans) } : {}
  return { ...job, ...sheets, ...panels, format: FORMAT }
}

const UPGRADES: Readonly<Record<string, (job: Raw) => Raw>> = {
  'cuirass/job@1': fromFirst,
  'cuirass/job@2': fromSecond,
}

/** Any value as a plan. Errors: later_version, not_a_job, or the first field at fault. */
export function parsePlan(value: unknown): Result<Plan> {
  const format = typeof value === 'object' && value !== null ? (value as { format?: unknown }).format : undefined
  if (typeof format === 'string' && Object.hasOwn(UPGRADES, format)) return parsePlan(UPGRADES[format]?.(value as Raw))
  if (typeof format === 'string' && format !== FORMAT && /^cuirass\/job@\d+$/.test(format))
    return err({ code: 'later_version', at: 'format', facts: { format, reads: FORMAT } })
  if (format !== FORMAT) return err({ code: 'not_a_job', at: 'format', facts: { reads: FORMAT } })
  const parsed = Plan.safeParse(value)
  return parsed.success ? ok(parsed.data) : err(firstFault(parsed.error))
}

/** A job file's text as a plan. Errors: those of `readJson` and `parsePlan`. */
export function readPlan(text: string): Result<Plan> {
  const json = readJson(text)
  if (!json.ok) return json
  const at = controlCharacterIn(json.value)
  return at === null ? parsePlan(json.value) : err({ code: 'control_character', at })
}

/** The job file of a plan: keys in a fixed order, so that equal plans give equal text. */
export const writePlan = (plan: Plan): string => `${JSON.stringify(Plan.parse(plan), null, 2)}\n`
