import type { FilmSheet } from './schema'

/** Kinds with a mirror layer. */
export const CHROME_CLASS: readonly FilmSheet['kind'][] = ['hybrid_chrome']

/** Cast films conform to compound curves; rolled-out ones and sheets shrink back. Common practice, no source. */
export const isFormed = (kind: FilmSheet['kind']): boolean =>
  kind === 'cast' || kind === 'colour_shift' || kind === 'printed_cast'
