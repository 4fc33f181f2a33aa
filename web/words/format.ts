import { formatLength, fromC, fromMm, MM_PER, type LengthUnit, type TempUnit } from '@/core/kit/units'
import { civilToMinutes } from '@/core/kit/civil'
import type { FigureUnit } from '@/core/model/figure/figure'

export interface MemberUnits {
  lengthUnit: 'mm' | 'cm' | 'in'
  tempUnit: TempUnit
  locale: 'en-GB' | 'en-US'
  currency: string
  timeZone: string
}
export interface Quantity {
  text: string
  unit: string
}

/** Lengths, areas, heat, time and money in this member's units; the shop's currency. */
function quantitiesFor(u: MemberUnits) {
  const long: LengthUnit = u.lengthUnit === 'in' ? 'yd' : 'm'
  // Made once for each number of digits: making one takes longer than all that it writes on a page.
  const byDigits = new Map<number, Intl.NumberFormat>()
  const number = (v: number, digits: number): string => {
    let format = byDigits.get(digits)
    if (!format) {
      format = new Intl.NumberFormat(u.locale, { minimumFractionDigits: digits, maximumFractionDigits: digits })
      byDigits.set(digits, format)
    }
    return format.format(v)
  }
  const inCurrency = new Intl.NumberFormat(u.locale, { style: 'currency', currency: u.currency })
  const length = (mm: number): Quantity => ({
    text: formatLength(mm, u.lengthUnit),
    unit: u.lengthUnit === 'in' ? '″' : u.lengthUnit,
  })
  const longLength = (mm: number): Quantity => ({ text: number(fromMm(mm, long), 2), unit: long })
  const temp = (c: number): Quantity => ({
    text: number(fromC(c, u.tempUnit), Math.abs(fromC(c, u.tempUnit) % 1) < 0.05 ? 0 : 1),
    unit: `°${u.tempUnit}`,
  })
  const minutes = (min: number): Quantity => {
    const whole = Math.round(min)
    return whole < 60
      ? { text: String(whole), unit: 'min' }
      : { text: `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`, unit: 'h' }
  }
  const money = (v: number): Quantity => ({
    text: inCurrency.format(v),
    unit: '',
  })
  // Small areas in a smaller unit, so that a handle's does not read as nothing.
  const area = (mm2: number): Quantity => {
    const small = Math.abs(mm2) < 20_000
    return u.lengthUnit === 'in'
      ? { text: number(mm2 / (small ? 25.4 : 304.8) ** 2, 1), unit: small ? 'in²' : 'ft²' }
      : { text: number(mm2 / (small ? 100 : 1e6), small ? 0 : 2), unit: small ? 'cm²' : 'm²' }
  }
  const percent = (v: number): Quantity => ({ text: number(v * 100, 1), unit: '%' })
  return { number, length, longLength, temp, minutes, money, area, percent }
}

const IN_SHORT: Intl.DateTimeFormatOptions = {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
}

/** Days and moments as this member reads them, on the shop's clock. */
function momentsFor(u: MemberUnits) {
  const wallTime = (t: string): Quantity => {
    const at = civilToMinutes(t.slice(0, 16))
    return {
      text: at === null ? t : new Date(at * 60_000).toLocaleString(u.locale, { timeZone: 'UTC', ...IN_SHORT }),
      unit: '',
    }
  }
  /** The day of a wall time, or of a date alone. */
  const day = (t: string): string => {
    const at = civilToMinutes(`${t.slice(0, 10)}T00:00`)
    return at === null
      ? t
      : new Date(at * 60_000).toLocaleDateString(u.locale, {
          timeZone: 'UTC',
          weekday: 'short',
          day: 'numeric',
          month: 'short',
        })
  }
  /** A moment kept in UTC (`…Z`, or a wall time meant as UTC), on the shop's clock. */
  const moment = (utc: string, options: Intl.DateTimeFormatOptions = IN_SHORT): string => {
    const date = new Date(utc.endsWith('Z') ? utc : `${utc.slice(0, 16)}Z`)
    return Number.isNaN(date.getTime()) ? utc : date.toLocaleString(u.locale, { timeZone: u.timeZone, ...options })
  }
  /** Hours and minutes of a moment on the shop's clock. */
  const clock = (utc: string): string => moment(utc, { hour: '2-digit', minute: '2-digit' })
  return { wallTime, day, moment, clock }
}

/** Numbers as this member reads them. Long lengths in metres or yards, money in the shop's currency. */
export function formatter(units: MemberUnits) {
  const u: MemberUnits = { ...units, timeZone: knownTimeZone(units.timeZone) }
  const quantities = quantitiesFor(u)
  const moments = momentsFor(u)
  const { number, length, longLength, temp, minutes, money, area, percent } = quantities
  const quantity = (value: number | string | null, unit: FigureUnit): Quantity => {
    if (value === null || value === '') return { text: '–', unit: '' }
    if (typeof value === 'string') return unit === 'wall_time' ? moments.wallTime(value) : { text: value, unit: '' }
    switch (unit) {
      case 'mm':
        return Math.abs(value) >= 3000 ? longLength(value) : length(value)
      case 'mm2':
        return area(value)
      case 'rad':
        return { text: number(value, 4), unit: 'rad' }
      case 'fraction':
        return percent(value)
      case 'C':
        return temp(value)
      case 'min':
        return minutes(value)
      case 's':
        return { text: number(value, 1), unit: 's' }
      case 'mm_s':
        return u.lengthUnit === 'in'
          ? { text: number(value / MM_PER.in, 2), unit: 'in/s' }
          : { text: number(value, 1), unit: 'mm/s' }
      case 'w_m2k':
        return { text: number(value, 0), unit: 'W/m²K' }
      case 'money':
      case 'money_each':
        return money(value)
      case 'price_per_m':
        return { ...money(value), unit: '/m' }
      case 'delta_e':
        return { text: number(value, 1), unit: 'ΔE' }
      default:
        return { text: number(value, 0), unit: '' }
    }
  }
  const text = (q: Quantity): string => (q.unit === '' ? q.text : q.unit === '″' ? `${q.text}″` : `${q.text} ${q.unit}`)
  return { units: u, ...quantities, ...moments, quantity, text }
}
/** A time zone that this machine does not know is read as UTC, so that no page breaks on it. */
const zones = new Map<string, string>()
export function knownTimeZone(zone: string): string {
  const known = zones.get(zone)
  if (known !== undefined) return known
  let good = 'UTC'
  try {
    good = new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone
  } catch {
    // not a zone of this machine
  }
  zones.set(zone, good)
  return good
}
export type Formatter = ReturnType<typeof formatter>

/** A difference in words: its size as text, with a plus, a minus, or both where there is none. */
export const signed = (v: number, text: string): string =>
  v > 0 ? `+${text}` : v < 0 ? `−${text.replace(/^[-−]/, '')}` : `±${text}`
