import { sheetOfLot } from '../film/strip-test'
import { choiceFor, filmOf } from './piece-choice'
import type { Plan } from './schema'

/** A change to the plan that answers a finding, as data: applied by `applyWayOut`, priced by `priceWayOut`. */
export type PlanChange =
  | { kind: 'piece'; panelId: string; set: Partial<Plan['pieces'][number]> }
  | { kind: 'recess'; panelId: string; recessId: string; set: Partial<Plan['panels'][number]['recesses'][number]> }
  | { kind: 'method'; set: Partial<Plan['method']> }
  | { kind: 'panel'; panelId: string; set: Partial<Pick<Plan['panels'][number], 'filmId' | 'wrap'>> }
  /** A panel in another film, whose sheet comes with it. */
  | { kind: 'film'; panelId: string; sheet: Plan['film']['sheets'][number] }
  | { kind: 'drop_kept_layout' }
  /** A film's sheet as this job takes it for the lot that it is cut from. */
  | { kind: 'lot_residue'; filmId: string; residue: number }
  | { kind: 'run_sheet'; set: Partial<Pick<Plan['runSheet'], 'crew' | 'startAt' | 'locks'>> }
  | { kind: 'together'; panelIds: [string, string] }
/** The plan with one way out taken. Pure; the caller saves it as a revision. */
export function applyChange(plan: Plan, change: PlanChange): Plan {
  switch (change.kind) {
    case 'piece': {
      const panel = plan.panels.find((p) => p.id === change.panelId)
      if (!panel) return plan
      const was = choiceFor(plan, panel, filmOf(plan, panel))
      return {
        ...plan,
        pieces: [...plan.pieces.filter((c) => c.panelId !== change.panelId), { ...was, ...change.set }],
      }
    }
    case 'recess':
      return {
        ...plan,
        panels: plan.panels.map((p) =>
          p.id === change.panelId
            ? { ...p, recesses: p.recesses.map((r) => (r.id === change.recessId ? { ...r, ...change.set } : r)) }
            : p,
        ),
      }
    case 'method':
      return { ...plan, method: { ...plan.method, ...change.set } }
    case 'run_sheet':
      return { ...plan, runSheet: { ...plan.runSheet, ...change.set } }
    case 'panel':
      return { ...plan, panels: plan.panels.map((p) => (p.id === change.panelId ? { ...p, ...change.set } : p)) }
    case 'film':
      return {
        ...plan,
        film: plan.film.sheets.some((s) => s.id === change.sheet.id)
          ? plan.film
          : { ...plan.film, sheets: [...plan.film.sheets, change.sheet] },
        panels: plan.panels.map((p) => (p.id === change.panelId ? { ...p, filmId: change.sheet.id } : p)),
      }
    case 'together':
      return {
        ...plan,
        layout: {
          ...plan.layout,
          kept: [],
          together: [
            ...plan.layout.together.filter((pair) => !pair.some((id) => change.panelIds.includes(id))),
            change.panelIds,
          ],
        },
      }
    case 'lot_residue':
      return {
        ...plan,
        film: {
          ...plan.film,
          sheets: plan.film.sheets.map((s) => (s.id === change.filmId ? sheetOfLot(s, change.residue) : s)),
        },
      }
    case 'drop_kept_layout':
      return { ...plan, layout: { ...plan.layout, kept: [] } }
  }
}
