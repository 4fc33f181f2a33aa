import type { FilmSheet } from '../../model/film/schema'

/**
 * What film of each kind does where it is stretched. All assumed, until a shop's own rechecks or a film's sheet say
 * otherwise: `memoryLeft` is the share of its stretch that still pulls after a full post-heat; `changesOver` the
 * stretch past which its look changes, and how.
 */
export interface FilmFeel {
  memoryLeft: number
  changesOver: number | null
  look: 'whitens' | 'hue' | 'print' | 'gloss'
}
export const FILM_FEEL: Record<FilmSheet['kind'], FilmFeel> = {
  cast: { memoryLeft: 0.1, changesOver: 0.2, look: 'gloss' },
  calendered: { memoryLeft: 0.35, changesOver: 0.1, look: 'gloss' },
  hybrid_chrome: { memoryLeft: 0.35, changesOver: 0.05, look: 'whitens' },
  colour_shift: { memoryLeft: 0.1, changesOver: 0.05, look: 'hue' },
  printed_cast: { memoryLeft: 0.15, changesOver: 0.02, look: 'print' },
  sheet_goods: { memoryLeft: 0.4, changesOver: 0.05, look: 'print' },
}
/** Metallic and satin finishes show a change of hue as colour-shift films do. Assumed. */
export const SHIFTING_FINISHES: readonly FilmSheet['finish'][] = ['shift', 'satin']
