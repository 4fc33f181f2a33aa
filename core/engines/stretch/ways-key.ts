import { textHash } from '../../kit/random'
import type { FilmSheet } from '../../model/film/schema'

/** Raised whenever the same panel would get other ways out. */
const WAYS_VERSION = 2
/** The best ways out that are kept with a panel. */
export const BEST_WAYS = 3

/** What the ways out of one panel hang on: its stretch, and the films that might take it. */
export const waysKey = (stretch: string, panelId: string, films: readonly FilmSheet[]): string =>
  textHash(JSON.stringify([WAYS_VERSION, BEST_WAYS, stretch, panelId, films]))
