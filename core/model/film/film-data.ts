import type { Standing } from '../figure/figure'
import type { FilmSheet } from './schema'

/** How well a field of a sheet is known: the maker's sheet unless it says otherwise. */
export const filmStanding = (film: FilmSheet | undefined, field: keyof FilmSheet['standings']): Standing =>
  film?.standings[field] ?? 'film_sheet'

/** Kinds with a mirror layer. */
export const CHROME_CLASS: readonly FilmSheet['kind'][] = ['hybrid_chrome']

/** Cast films conform to compound curves; rolled-out ones and sheets shrink back. Common practice, no source. */
export const isFormed = (kind: FilmSheet['kind']): boolean =>
  kind === 'cast' || kind === 'colour_shift' || kind === 'printed_cast'
