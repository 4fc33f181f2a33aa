import type { FilmSheet } from '../../model/film/schema'

/**
 * Film that lies stretched by `p` before heat: its size against the sheet as made, once heat has done what it can. Heat
 * takes back the share `recovers` of the stretch; film held under tension then shrinks on by what the sheet gives as
 * heat shrink, but by no more than it was stretched. 1 where film is not pre-stretched. [–] Assumed, until a shop's own
 * readings say otherwise.
 */
export const sizeAfterHeat = (p: number, film: Pick<FilmSheet, 'recovers' | 'heatShrink'>): number =>
  (1 + p * (1 - film.recovers)) * (1 - Math.min(film.heatShrink, p))

/** Stretch against the sheet as made, where a map from unstretched film takes `stretch`. Never below 0. [–] */
export const stretchAsMade = (stretch: number, p: number, film: Pick<FilmSheet, 'recovers' | 'heatShrink'>): number =>
  Math.max(0, (1 + stretch) * sizeAfterHeat(p, film) - 1)

/**
 * How much of its laid size pre-stretched film can give up before it wrinkles; of film that is not, what heat
 * shrinks. [–]
 */
export const shrinkCapacity = (p: number, film: Pick<FilmSheet, 'recovers' | 'heatShrink'>): number =>
  p > 0 ? 1 - sizeAfterHeat(p, film) / (1 + p) : film.heatShrink

/** Pre-stretch to offer for a film [–]: as much as it takes cold, else warmed; 0 where it takes none worth the work. */
export const offeredPreStretch = (film: Pick<FilmSheet, 'preStretchMax'>): number => {
  const { cold, warm } = film.preStretchMax
  const most = cold > 0 ? cold : warm
  return most >= LEAST_WORTH ? most : 0
}
/** Less than this is no pre-stretch that hands can hold. Assumed. */
const LEAST_WORTH = 0.05

/** Steps that a film's bound leaves, for choosing from [–]. */
export const preStretchSteps = (film: Pick<FilmSheet, 'preStretchMax'>): number[] => {
  const { warm } = film.preStretchMax
  const usual = [0.05, 0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6].filter((step) => step <= warm + 1e-9)
  return [...new Set([0, ...usual, ...(warm > 0 ? [warm] : [])])].sort((a, b) => a - b)
}
