/**
 * under: not hot enough · good: in the range · over: past it, and under the film's limit · too_hot: past the limit ·
 * gun_on: read while the gun blew, which says nothing of the film.
 */
export type Verdict = 'under' | 'good' | 'over' | 'too_hot' | 'gun_on'

/** A surface reading against the range its film asks for and the heat it bears, bounds included. °C. */
export const heatVerdict = (tempC: number, range: { min: number; max: number }, limitC: number): Verdict =>
  tempC > Math.max(limitC, range.max) ? 'too_hot' : tempC < range.min ? 'under' : tempC > range.max ? 'over' : 'good'

/**
 * A reading as it was taken. In the air stream a thermometer shows too much (130 where the film had 100; common
 * practice, no source): such a reading settles no place, and past the limit it is still told, for somebody to look.
 */
export function readingVerdict(
  reading: { tempC: number; gunAway: boolean },
  place: { range: { min: number; max: number }; limitC: number },
): Verdict {
  const verdict = heatVerdict(reading.tempC, place.range, place.limitC)
  return reading.gunAway || verdict === 'too_hot' ? verdict : 'gun_on'
}

/** Hot enough, and nothing spoilt: the place is done. */
export const isDone = (verdict: Verdict): boolean => verdict === 'good' || verdict === 'over'
