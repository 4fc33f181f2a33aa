import type { FilmSheet } from '@/core/film/schema'

/** Stretch in five ordered bands of this film's own limits, each with its word. */
export function stretchBand(value: number, film: FilmSheet): { step: 1 | 2 | 3 | 4 | 5; text: string } {
  if (value > film.stretchLimit) return { step: 5, text: 'past the limit' }
  if (value > film.postHeatOver) return { step: 4, text: 'post-heat' }
  if (value > film.postHeatOver / 2) return { step: 3, text: 'even pull' }
  return value > 0.01 ? { step: 2, text: 'easy' } : { step: 1, text: 'flat' }
}
