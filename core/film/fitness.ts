import type { FilmSheet } from './schema'
import type { Plan } from '../plan/schema'
import { PANEL_FACTS } from '../vehicle/panel-data'
import { daysBetween, REPAINT_GAS_OUT_DAYS } from '../vehicle/walkaround-rules'
import { CHROME_CLASS, isFormed } from './film-data'

export interface Unfit {
  code: string
  level: 'stop' | 'warn' | 'note'
  facts: Record<string, string | number>
}

/** Why a film does not suit this vehicle as the walkaround and the tape describe it; empty where it does. */
export function filmFitness(film: FilmSheet, plan: Plan, now: string): Unfit[] {
  const out: Unfit[] = []
  const { paint } = plan.walkaround
  const wrapped = plan.panels.filter((p) => p.wrap && (p.filmId ?? plan.film.mainId ?? film.id) === film.id)
  const compound = wrapped.filter((p) => p.recesses.length > 0 || p.crownMm > 0 || PANEL_FACTS[p.kind].compound)
  const deep = wrapped.filter((p) => p.recesses.some((r) => r.depthMm > 10 && r.way === 'bridge'))
  if (paint.condition === 'peeling' || paint.condition === 'rust')
    out.push({ code: 'unfit_paint', level: 'stop', facts: { condition: paint.condition } })
  const since = paint.repaintedOn ? daysBetween(paint.repaintedOn, now) : null
  if (paint.origin === 'repaint' && since !== null && since < REPAINT_GAS_OUT_DAYS)
    out.push({ code: 'unfit_fresh_repaint', level: 'stop', facts: { days: since, need: REPAINT_GAS_OUT_DAYS } })
  if (film.kind === 'calendered' && compound.length > 0)
    out.push({
      code: 'unfit_calendered_curves',
      level: 'warn',
      facts: { panels: compound.length, first: compound[0]?.name ?? '' },
    })
  if (film.kind === 'sheet_goods' && compound.length > 0)
    out.push({
      code: 'unfit_sheet_curves',
      level: 'warn',
      facts: { panels: compound.length, first: compound[0]?.name ?? '' },
    })
  if (CHROME_CLASS.includes(film.kind)) {
    if (compound.length > 0)
      out.push({
        code: 'chrome_needs_seams',
        level: 'note',
        facts: { panels: compound.length, first: compound[0]?.name ?? '' },
      })
    out.push({ code: 'chrome_law', level: 'note', facts: {} })
  }
  if (!isFormed(film.kind) && deep.length > 0)
    out.push({ code: 'unfit_deep_recess', level: 'warn', facts: { panels: deep.length, first: deep[0]?.name ?? '' } })
  if (film.gasOutHours)
    out.push({ code: 'print_gas_out', level: 'note', facts: { min: film.gasOutHours.min, max: film.gasOutHours.max } })
  const months = film.warrantyMonths.filter((w) => w.zone === plan.walkaround.zone).map((w) => w.months)
  if (months.length > 0 && Math.min(...months) <= 12)
    out.push({ code: 'short_warranty', level: 'note', facts: { months: Math.min(...months) } })
  if (months.length === 0) out.push({ code: 'no_warranty_zone', level: 'warn', facts: { zone: plan.walkaround.zone } })
  return out
}
