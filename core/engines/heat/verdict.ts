/** under: not hot enough · good: in the range · over: past it, and under the film's limit · too_hot: past the limit. */
export type Verdict = 'under' | 'good' | 'over' | 'too_hot'

/** A surface reading against the range its film asks for and the heat it bears, bounds included. °C. */
export const heatVerdict = (tempC: number, range: { min: number; max: number }, limitC: number): Verdict =>
  tempC > Math.max(limitC, range.max) ? 'too_hot' : tempC < range.min ? 'under' : tempC > range.max ? 'over' : 'good'

/** Hot enough, and nothing spoilt: the place is done. */
export const isDone = (verdict: Verdict): boolean => verdict === 'good' || verdict === 'over'
