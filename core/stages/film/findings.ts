import type { FilmSheet } from '../../model/film/schema'
import { finding, placed, type Finding } from '../../model/finding/finding'
import type { Plan } from '../../model/plan/schema'
import { filmFitness } from './fitness'
import { vetoes } from './vetoes'

/** What speaks against the films that the plan uses, and what their sheets rule out of the method. */
export function filmFindings(plan: Plan, films: ReadonlyMap<string, FilmSheet>, now: string): Finding[] {
  const out = plan.film.mainId ? [] : [finding('no_film', 'stop', 'film')]
  const used = new Set([plan.film.mainId, ...plan.panels.filter((p) => p.wrap).map((p) => p.filmId)])
  for (const film of films.values()) {
    if (!used.has(film.id)) continue
    const all = [...filmFitness(film, plan, now), ...vetoes(plan.method, film).map((v) => v.said)]
    for (const said of all) out.push(placed(said, 'film', { id: `${said.code}/film:${film.id}` }))
  }
  return out
}
