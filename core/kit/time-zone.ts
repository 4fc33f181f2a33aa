import { TZDate } from '@date-fns/tz'
import { civilToMinutes } from './civil'

const OFFSET = /([+-])(\d{2}):?(\d{2})$/

/**
 * A moment as the clock on a shop's wall shows it, in minutes since 1970-01-01T00:00 of that clock; null where it is no
 * moment. `utc`: ISO 8601, with its offset, with a Z, or without either.
 */
export function localMinutes(utc: string, timeZone: string): number | null {
  const wall = civilToMinutes(utc.slice(0, 16))
  if (wall === null) return null
  const [, sign, hours, minutes] = OFFSET.exec(utc.slice(16)) ?? []
  const east = sign ? (sign === '+' ? 1 : -1) * (Number(hours) * 60 + Number(minutes)) : 0
  const moment = wall - east
  return moment - new TZDate(moment * 60_000, timeZone).getTimezoneOffset()
}
