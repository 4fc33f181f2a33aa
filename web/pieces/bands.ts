import type { FilmSheet } from '@/core/model/film/schema'

export const STRETCH_NAMES = ['flat', 'easy', 'even pull', 'post-heat', 'past the limit'] as const

/** Stretch in five ordered bands of this film's own limits, each with its word. */
export function stretchBand(value: number, film: FilmSheet): { step: 1 | 2 | 3 | 4 | 5; text: string } {
  const step =
    value > film.stretchLimit
      ? 5
      : value > film.postHeatOver
        ? 4
        : value > film.postHeatOver / 2
          ? 3
          : value > 0.01
            ? 2
            : 1
  return { step, text: STRETCH_NAMES[step - 1] ?? '' }
}

/** The bands of a stretch map, ordered by lightness, told apart by hatching and by name too. */
export const BAND_FILLS = ['#f3ecd9', '#e0c98c', '#b98a3c', '#6d3b1f', '#22304a'] as const
export const BAND_NAMES = ['hardly stretched', 'stretched, fine', 'post-heat', 'past the limit', 'wrinkles'] as const
export const BAND_WHY = [
  '',
  '',
  'The film’s memory would pull it back: heat it past the temperature that the sheet gives, and read it.',
  'More than the film’s sheet allows: it thins, and lifts or tears. Take one of the ways out.',
  'Film would have to shrink in its own plane by more than heat can shrink it: fingers at the edge, a fold.',
] as const

/** Where the bands of a stretch map part, as fractions: fine, to be post-heated, past the limit. As `feelOf` has them. */
export const bandLimits = (film: FilmSheet): number[] => [film.postHeatOver / 2, film.postHeatOver, film.stretchLimit]
