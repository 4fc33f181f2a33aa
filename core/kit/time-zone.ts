import { TZDate } from '@date-fns/tz'
import { civilToMinutes } from './civil'

/** The moment at which a shop's clock shows a wall time, ms since 1970 in UTC; in the hour that comes twice, its first. */
export function momentAt(wall: string, timeZone: string): number | null {
  const minutes = civilToMinutes(wall)
  if (minutes === null) return null
  const guess = minutes * 60_000
  // The offset of the guess, then that of the moment it gives: right on both sides of a change of the clocks.
  const first = guess + new TZDate(guess, timeZone).getTimezoneOffset() * 60_000
  const moment = guess + new TZDate(first, timeZone).getTimezoneOffset() * 60_000
  const earlier = moment - 3_600_000
  return localMinutes(new TZDate(earlier, 'UTC').toISOString(), timeZone) === minutes ? earlier : moment
}

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
