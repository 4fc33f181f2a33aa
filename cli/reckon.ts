import { parseOptions } from './options'
import { read } from './read'
import { err, ok, type Result } from '@/core/kit/result'

const text = (file: string): Result<string> => {
  const bytes = read(file)
  return bytes.ok ? ok(new TextDecoder().decode(bytes.value)) : bytes
}

/** A moment as it is typed, with its zone, as the UTC wall time that the core counts in. Null: none. */
function utcWallOf(typed: string): string | null {
  if (!/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})$/.test(typed)) return null
  const at = Date.parse(typed)
  return Number.isNaN(at) ? null : new Date(at).toISOString().slice(0, 16)
}

/**
 * Every figure and finding of a job file, with what the shop brings to it and what happened in the bay, as the
 * application gives them for download. Without them: the sheets in the job, an empty rack, nothing done yet.
 */
export async function reckonFiles(jobFile: string, args: readonly string[]): Promise<Result<unknown>> {
  const { readPlan } = await import('@/core/model/plan/parse')
  const { EMPTY_CATALOGUE } = await import('@/core/model/catalogue/catalogue')
  const { readCatalogue, readLedger } = await import('@/core/model/catalogue/files')
  const { reckoningJson } = await import('@/core/reckon/output')
  const { reckon } = await import('@/core/reckon/reckon')
  const options = parseOptions(args, {
    catalogue: { type: 'string' },
    ledger: { type: 'string' },
    now: { type: 'string' },
  })
  if (!options.ok) return options
  const job = text(jobFile)
  const plan = job.ok ? readPlan(job.value) : job
  if (!plan.ok) return plan
  const shop =
    options.value.catalogue === undefined ? null : fileOf(options.value.catalogue, '--catalogue', readCatalogue)
  if (shop && !shop.ok) return shop
  const ledger = options.value.ledger === undefined ? null : fileOf(options.value.ledger, '--ledger', readLedger)
  if (ledger && !ledger.ok) return ledger
  const now = utcWallOf(options.value.now ?? new Date().toISOString())
  if (now === null)
    return err({ code: 'bad_option', at: '--now', facts: { why: 'a moment with its zone, such as 2031-03-03T08:00Z' } })
  const catalogue = { ...EMPTY_CATALOGUE, films: plan.value.film.sheets, ...shop?.value, now }
  return ok(reckoningJson(reckon(plan.value, catalogue, ledger?.value ?? [])))
}

/** A file named by an option; a fault in it says which. */
function fileOf<T>(file: string, option: string, readIt: (text: string) => Result<T>): Result<T> {
  const source = text(file)
  const out = source.ok ? readIt(source.value) : source
  return out.ok ? out : err({ ...out.error, at: out.error.at ? `${option} ${out.error.at}` : option })
}
