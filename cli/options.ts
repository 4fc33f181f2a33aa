import { parseArgs, type ParseArgsConfig } from 'node:util'
import { err, ok, type Result } from '@/core/kit/result'

type Options = NonNullable<ParseArgsConfig['options']>
type Values<T extends Options> = ReturnType<typeof parseArgs<{ options: T; args: string[] }>>['values']

/** What went wrong, by the reader's own code, as one line of ours. */
const WHY: Record<string, string> = {
  ERR_PARSE_ARGS_UNKNOWN_OPTION: 'there is no such option',
  ERR_PARSE_ARGS_INVALID_OPTION_VALUE: 'it takes a value',
  ERR_PARSE_ARGS_UNEXPECTED_POSITIONAL: 'one file is enough; options begin with --',
}

/** Options after the file. Errors: bad_option, naming it. */
export function parseOptions<T extends Options>(args: readonly string[], options: T): Result<Values<T>> {
  try {
    return ok(parseArgs({ args: [...args], options, strict: true, allowPositionals: false }).values)
  } catch (error) {
    const { code = '', message = '' } = error as { code?: string; message?: string }
    if (!Object.hasOwn(WHY, code)) throw error
    const at = /'(--?[\w-]+|[^']+)/.exec(message)?.[1]?.split(' ')[0]
    return err({ code: 'bad_option', ...(at ? { at } : {}), facts: { why: WHY[code] ?? '' } })
  }
}

/** A number given as an option, within its range. Errors: bad_option. */
export function numberOption(name: string, text: string, min: number, max: number): Result<number> {
  const n = Number(text)
  if (text.trim() !== '' && Number.isFinite(n) && n >= min && n <= max) return ok(n)
  return err({ code: 'bad_option', at: name, facts: { why: `a number from ${min} to ${max}` } })
}
