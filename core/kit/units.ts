import { err, ok, type Result } from './result'

/**
 * Exact sizes of the units people type. Source: docs/sources.md#nist-sp811 (1 in = 25.4 mm, 1 ft = 12 in,
 * 1 yd = 0.9144 m, 1 mil = 0.001 in), all exact by definition.
 */
export const MM_PER = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8, yd: 914.4, mil: 0.0254, um: 0.001 } as const
export type LengthUnit = keyof typeof MM_PER
export type TempUnit = 'C' | 'F'

export const toMm = (value: number, unit: LengthUnit): number => value * MM_PER[unit]
export const fromMm = (mm: number, unit: LengthUnit): number => mm / MM_PER[unit]
/** °F to °C. Source: docs/sources.md#nist-sp811, exact. */
export const toC = (value: number, unit: TempUnit): number => (unit === 'C' ? value : ((value - 32) * 5) / 9)
export const fromC = (c: number, unit: TempUnit): number => (unit === 'C' ? c : (c * 9) / 5 + 32)

const LENGTH_WORDS: Record<string, LengthUnit> = {
  mm: 'mm',
  cm: 'cm',
  m: 'm',
  in: 'in',
  '"': 'in',
  '″': 'in',
  '”': 'in',
  "''": 'in',
  inch: 'in',
  inches: 'in',
  ft: 'ft',
  "'": 'ft',
  '′': 'ft',
  '’': 'ft',
  yd: 'yd',
  yds: 'yd',
  mil: 'mil',
  mils: 'mil',
  um: 'um',
  µm: 'um',
  μm: 'um',
}
const FRACTIONS: Record<string, string> = {
  '½': ' 1/2',
  '¼': ' 1/4',
  '¾': ' 3/4',
  '⅛': ' 1/8',
  '⅜': ' 3/8',
  '⅝': ' 5/8',
  '⅞': ' 7/8',
}

/** `37 1/2`, `3/8`, `37.5` or `37,5`; null where it is no such number. */
function parseNumber(text: string): number | null {
  const t = text.trim().replace(/^(\d+)-(\d+\/\d+)$/, '$1 $2')
  const whole = /^([+-]?\d+(?:[.,]\d+)?|[.,]\d+)$/.exec(t)
  if (whole) return Number(t.replace(',', '.'))
  const mixed = /^(?:(\d+)\s+)?(\d+)\/(\d+)$/.exec(t)
  if (!mixed) return null
  const denominator = Number(mixed[3])
  return denominator === 0 ? null : Number(mixed[1] ?? 0) + Number(mixed[2]) / denominator
}

/**
 * A typed length in mm. A bare number is in `bare`; mixed feet and inches (`3'1"`, `3 ft 1 1/2 in`) add up.
 * Errors: empty, half_typed (a unit or fraction is not finished), unknown_unit, bad_number.
 */
export function parseLength(text: string, bare: LengthUnit): Result<number> {
  const t = text
    .trim()
    .toLowerCase()
    .replace(/−/g, '-')
    .replace(/[½¼¾⅛⅜⅝⅞]/g, (c) => FRACTIONS[c] ?? c)
  if (t === '') return err({ code: 'empty' })
  if (t.length > 40) return err({ code: 'bad_number', facts: { text: t.slice(0, 40) } })
  if (/[/.,+-]\s*$/.test(t)) return err({ code: 'half_typed', facts: { text: t } })
  const plain = parseNumber(t)
  if (plain !== null) return ok(toMm(plain, bare))
  const part = /\s*([+-]?\d[\d\s.,/-]*?|[.,]\d+)\s*(''|[a-zµμ]+|["″”'′’])/gy
  let mm = 0
  let at = 0
  let last: LengthUnit | null = null
  for (let m = part.exec(t); m; m = part.exec(t)) {
    const word = m[2] ?? ''
    const unit = Object.hasOwn(LENGTH_WORDS, word) ? LENGTH_WORDS[word] : undefined
    const value = parseNumber(m[1] ?? '')
    if (!unit) return err({ code: 'unknown_unit', facts: { unit: m[2] ?? '' } })
    if (value === null) return err({ code: 'bad_number', facts: { text: m[1] ?? '' } })
    if (
      last !== null &&
      !((last === 'ft' && unit === 'in') || (last === 'm' && unit === 'cm') || (last === 'yd' && unit === 'in'))
    )
      return err({ code: 'bad_number', facts: { text: t } })
    mm += toMm(value, unit)
    last = unit
    at = part.lastIndex
  }
  const rest = t.slice(at).trim()
  if (last === null) return err({ code: 'bad_number', facts: { text: t } })
  if (rest === '') return ok(mm)
  const tail = parseNumber(rest) // 3' 1 : the inches mark left out
  if (tail !== null && last === 'ft') return ok(mm + toMm(tail, 'in'))
  return err({ code: 'bad_number', facts: { text: t } })
}

/** A typed temperature in °C: `90`, `194F`, `90 °C`. Errors: empty, bad_number, below_absolute_zero. */
export function parseTemp(text: string, bare: TempUnit): Result<number> {
  const t = text.trim()
  if (t === '') return err({ code: 'empty' })
  const m = /^([+-]?\d+(?:[.,]\d+)?)\s*(?:°|º|deg)?\s*([cCfF])?$/.exec(t)
  if (!m) return err({ code: /[.,+-]$/.test(t) ? 'half_typed' : 'bad_number', facts: { text: t.slice(0, 40) } })
  const c = toC(Number((m[1] ?? '').replace(',', '.')), m[2] ? (m[2].toUpperCase() as TempUnit) : bare)
  return c < -273.15 ? err({ code: 'below_absolute_zero', facts: { text: t } }) : ok(c)
}

/** How a length reads in a unit: `37 1/2` for inches (to 1/16), else decimals that suit the unit. No unit mark. */
export function formatLength(mm: number, unit: LengthUnit): string {
  if (unit === 'in') {
    const sixteenths = Math.round(Math.abs(mm) / (25.4 / 16))
    const whole = Math.floor(sixteenths / 16)
    let n = sixteenths % 16
    let d = 16
    while (n > 0 && n % 2 === 0) [n, d] = [n / 2, d / 2]
    const sign = mm < 0 ? '−' : ''
    return n === 0 ? `${sign}${whole}` : `${sign}${whole > 0 ? `${whole} ` : ''}${n}/${d}`
  }
  const digits = { mm: 0, cm: 1, m: 2, ft: 2, yd: 2, mil: 1, um: 0 }[unit]
  return fromMm(mm, unit).toFixed(digits).replace('-', '−')
}
