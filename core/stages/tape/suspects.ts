import type { Panel } from '../../model/vehicle/schema'

export const assumed = (panel: Panel, field: string): boolean => panel.assumed.includes(field)
export const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)] ?? 0
}

/** One figure that may be wrong, and what other figures say it should be. */
export interface Suspect {
  panel: Panel
  field: string
  value: number
  expected: number[]
}

/**
 * Which of several figures that do not agree is probably wrong: one that was only assumed before one that was taped,
 * then the one furthest from what everything else says of it.
 */
export function probablyWrong(suspects: readonly Suspect[]): Suspect | null {
  const off = (s: Suspect): number =>
    s.expected.length === 0 ? 0 : Math.abs(Math.log(Math.max(1, s.value) / Math.max(1, middle(s.expected))))
  return (
    [...suspects].sort(
      (a, b) => Number(assumed(b.panel, b.field)) - Number(assumed(a.panel, a.field)) || off(b) - off(a),
    )[0] ?? null
  )
}

/**
 * 1 where of two figures one was taped and the other, which is named as wrong, only assumed: a guess to be taped, no
 * error.
 */
export function onlyOneAssumed(wrong: Suspect | null, ...sides: [Panel, string][]): 0 | 1 {
  const guesses = sides.filter(([panel, field]) => assumed(panel, field))
  return guesses.length === 1 && wrong !== null && guesses[0]?.[0] === wrong.panel ? 1 : 0
}

/** How a slip of pen or tape would explain the difference; null where none does. */
export function slipOf(
  value: number,
  expected: number,
  toleranceMm: number,
): 'tenth' | 'tenfold' | 'inches' | 'digits' | null {
  const near = (v: number): boolean => Math.abs(v - expected) <= Math.max(toleranceMm, expected * 0.03)
  if (near(value * 10)) return 'tenth'
  if (near(value / 10)) return 'tenfold'
  if (near(value * 25.4) || near(value * 2.54)) return 'inches'
  const digits = String(Math.round(value))
  for (let i = 0; i + 1 < digits.length; i++) {
    const swapped = Number(digits.slice(0, i) + digits[i + 1] + digits[i] + digits.slice(i + 2))
    if (swapped !== value && near(swapped)) return 'digits'
  }
  return null
}
