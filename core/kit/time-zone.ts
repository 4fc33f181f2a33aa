import { TZDate } from '@date-fns/tz'

/**
 * A moment as the clock on a shop's wall shows it, in minutes since 1970-01-01T00:00 of that clock; null where it is no
 * moment. `utc`: ISO 8601 with or without its Z.
 */
export function localMinutes(utc: string, timeZone: string): number | null {
  const ms = Date.parse(/(Z|[+-]\d{2}:?\d{2})$/.test(utc) ? utc : `${utc}Z`)
  if (!Number.isFinite(ms)) return null
  return Math.floor(ms / 60_000) - new TZDate(ms, timeZone).getTimezoneOffset()
}
