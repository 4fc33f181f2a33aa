import { CHROME_CLASS } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'

/** Why a reading is asked about before it is taken. */
export type Suspicion = 'gun_still_there' | 'too_soon' | 'jump' | 'mirror_reflects' | 'out_of_this_world'

interface Reading {
  tempC: number
  gunAway: boolean
  /** Since the gun was taken away by the pacer, s; null where no pacer ran. */
  secondsAway: number | null
  /** The reading of the same place before it, and how long ago; null where there was none. */
  before: { tempC: number; seconds: number } | null
  film: Pick<FilmSheet, 'kind' | 'heatLimitC'>
  /** Tape or spray was put on, so that a mirror can be read at all. */
  dulled: boolean
}

/** In the air stream a thermometer shows some 30 K too much; it settles in a few seconds. Common practice, no source. */
const SETTLES_S = 3
/** The most that a place changes in a second, K: heated by a gun, or left to itself. Assumed. */
const CHANGE_K_PER_S = 15
/** Nothing a gun does to film reads colder or hotter than this, °C. Assumed. */
const BELIEVABLE_C = { min: -20, past: 120 }

/** What speaks against a reading, first what matters most; null where nothing does. */
export function suspicionOf({ tempC, gunAway, secondsAway, before, film, dulled }: Reading): Suspicion | null {
  if (tempC < BELIEVABLE_C.min || tempC > film.heatLimitC + BELIEVABLE_C.past) return 'out_of_this_world'
  if (!gunAway) return 'gun_still_there'
  if (secondsAway !== null && secondsAway < SETTLES_S) return 'too_soon'
  if (CHROME_CLASS.includes(film.kind) && !dulled) return 'mirror_reflects'
  if (before && Math.abs(tempC - before.tempC) > CHANGE_K_PER_S * Math.max(1, before.seconds)) return 'jump'
  return null
}
