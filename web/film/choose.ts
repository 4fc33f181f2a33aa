import type { FilmSheet } from '@/core/model/film/schema'
import type { Plan } from '@/core/model/plan/schema'

/** Sheets that nothing uses any more leave the plan. */
const tidied = (plan: Plan): Plan => {
  const used = new Set([plan.film.mainId, ...plan.panels.map((p) => p.filmId)])
  return { ...plan, film: { ...plan.film, sheets: plan.film.sheets.filter((s) => used.has(s.id)) } }
}
const withSheet = (plan: Plan, sheet: FilmSheet): Plan => ({
  ...plan,
  film: { ...plan.film, sheets: [...plan.film.sheets.filter((s) => s.id !== sheet.id), sheet] },
})

/** The sheet of a film joins the plan when it is chosen, and leaves it when nothing uses it any more. */
export function chooseFilm(plan: Plan, sheet: FilmSheet): Plan {
  const joined = withSheet(plan, sheet)
  // Panels that had this film for themselves are now like the rest.
  const panels = joined.panels.map((p) => (p.filmId === sheet.id ? { ...p, filmId: null } : p))
  return tidied({ ...joined, panels, film: { ...joined.film, mainId: sheet.id } })
}

/** A film of their own for some panels: two-tone, accents. */
export function chooseFor(plan: Plan, sheet: FilmSheet, panelIds: readonly string[]): Plan {
  const joined = withSheet(plan, sheet)
  const filmId = joined.film.mainId === sheet.id ? null : sheet.id
  return tidied({ ...joined, panels: joined.panels.map((p) => (panelIds.includes(p.id) ? { ...p, filmId } : p)) })
}
