export type Verdict = 'under' | 'good' | 'over'

/** A surface reading against the range its film asks for, bounds included. °C. */
export const heatVerdict = (tempC: number, range: { min: number; max: number }): Verdict =>
  tempC < range.min ? 'under' : tempC > range.max ? 'over' : 'good'
