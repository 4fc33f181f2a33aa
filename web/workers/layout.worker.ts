import { keepLayout, layOutFilm } from '@/core/roll/lay-out'
import type { KeptLayout, Plan } from '@/core/plan/schema'
import type { Piece } from '@/core/roll/pieces'

export interface LayoutAsk {
  plan: Plan
  /** Pieces by film. */
  films: { filmId: string; pieces: Piece[] }[]
  rounds: number
}

/** The same layout as on the page, with far more rounds, off the main thread. */
self.onmessage = ({ data }: MessageEvent<LayoutAsk>) => {
  const plan = { ...data.plan, layout: { ...data.plan.layout, kept: [] } }
  const kept: KeptLayout[] = data.films.flatMap(({ filmId, pieces }) => {
    const film = plan.film.sheets.find((s) => s.id === filmId)
    return film ? [keepLayout(layOutFilm(plan, film, pieces, data.rounds))] : []
  })
  self.postMessage(kept)
}
