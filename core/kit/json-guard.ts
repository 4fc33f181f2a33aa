import { err, ok, type Result } from './result'

export const MAX_FILE_BYTES = 4_000_000
const MAX_DEPTH = 24

/**
 * JSON from elsewhere, distrusted: size, nesting and form are checked before anything reads it.
 * Errors: too_large, too_deep, truncated, not_json (with line and column where known).
 */
export function readJson(text: string): Result<unknown> {
  if (text.length > MAX_FILE_BYTES)
    return err({ code: 'too_large', facts: { bytes: text.length, limit: MAX_FILE_BYTES } })
  let depth = 0
  let inString = false
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    if (inString) {
      if (c === 92) i++
      else if (c === 34) inString = false
    } else if (c === 34) inString = true
    else if (c === 123 || c === 91) {
      if (++depth > MAX_DEPTH) return err({ code: 'too_deep', facts: { limit: MAX_DEPTH } })
    } else if (c === 125 || c === 93) depth--
  }
  if (text.trim() === '') return err({ code: 'empty' })
  if (depth > 0 || inString) return err({ code: 'truncated', facts: { bytes: text.length } })
  try {
    return ok(JSON.parse(text.charCodeAt(0) === 0xfeff ? text.slice(1) : text))
  } catch (cause) {
    const where = /position (\d+)/.exec(String(cause))
    const line = where ? text.slice(0, Number(where[1])).split('\n').length : 0
    const facts: Record<string, number> = line > 0 ? { line } : {}
    return err({ code: 'not_json', facts })
  }
}

/** `["pieces", 3, "width_mm"]` → `pieces[3].width_mm`. */
export const pathText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>(
    (at, key) => (typeof key === 'number' ? `${at}[${key}]` : at === '' ? String(key) : `${at}.${String(key)}`),
    '',
  )
