import { standing } from '../roll/cut-pieces'
import type { FilmSheet, StockItem } from '../film/schema'
import type { HeatPoint } from '../heat/heat-points'
import type { Plan } from '../plan/schema'
import type { Reckoning } from '../reckon/reckon'
import { PANEL_FACTS } from '../vehicle/panel-data'
import type { LogRow } from './schema'

/** What a customer keeps: film and lots, where, temperatures reached, rechecks, care and warranty. */
export interface Handover {
  films: {
    film: FilmSheet
    lots: string[]
    usedMm: number
    panels: string[]
    surfaces: ('vertical' | 'horizontal')[]
    warranty: FilmSheet['warrantyMonths']
  }[]
  readings: {
    piece: string
    point: HeatPoint
    tempC: number | null
    verdict: 'under' | 'good' | 'over' | null
    at: string | null
    by: string | null
  }[]
  defects: { panel: string; defect: string; note: string; at: string }[]
  recheckDueAt: string | null
  recheckDone: string | null
  /** What is still open, as codes; empty when the vehicle may leave. */
  open: ('steps' | 'heat_points' | 'recheck' | 'lots')[]
}

export function handoverOf(plan: Plan, r: Reckoning, stock: readonly StockItem[], ledger: readonly LogRow[]): Handover {
  const cut = standing(ledger).flatMap(({ payload }) => {
    const item = payload.kind === 'film_used' ? stock.find((s) => s.id === payload.stockId) : undefined
    return payload.kind === 'film_used' && item ? [{ item, mm: payload.lengthMm }] : []
  })
  const films = r.layouts.map(({ film }) => {
    const own = cut.filter((c) => c.item.filmId === film.id)
    const panels = plan.panels.filter((p) => p.wrap && (p.filmId ?? plan.film.mainId) === film.id)
    const surfaces = [...new Set(panels.map((p) => PANEL_FACTS[p.kind].surface))]
    return {
      film,
      lots: [...new Set(own.map((c) => c.item.lot))],
      usedMm: own.reduce((s, c) => s + c.mm, 0),
      panels: panels.map((p) => p.name),
      surfaces,
      warranty: film.warrantyMonths.filter((w) => w.zone === plan.walkaround.zone && surfaces.includes(w.surface)),
    }
  })
  const readings = r.points.map((point) => {
    const best = point.readings.findLast((x) => x.verdict === 'good') ?? point.readings.at(-1)
    return {
      piece: r.pieces.find((p) => p.id === point.pieceId)?.name ?? point.pieceId,
      point,
      tempC: best?.tempC ?? null,
      verdict: best?.verdict ?? null,
      at: best?.at ?? null,
      by: best?.by ?? null,
    }
  })
  const defects = ledger.flatMap(({ payload, at }) =>
    payload.kind === 'defect'
      ? [
          {
            panel: plan.panels.find((p) => p.id === payload.panelId)?.name ?? '',
            defect: payload.defect,
            note: payload.note,
            at,
          },
        ]
      : [],
  )
  const recheck = r.steps.find((s) => s.code === 'recheck')
  const open: Handover['open'] = []
  if (
    r.steps.some(
      (s) =>
        !['recheck', 'hardware_on', 'hand_over'].includes(s.code) && (s.state === 'to_do' || s.state === 'running'),
    )
  )
    open.push('steps')
  if (r.points.some((p) => p.state === 'due')) open.push('heat_points')
  if (recheck && recheck.state !== 'done' && recheck.state !== 'skipped') open.push('recheck')
  if (films.some((f) => f.lots.length === 0)) open.push('lots')
  return { films, readings, defects, recheckDueAt: r.recheckDueAt, recheckDone: recheck?.doneAt ?? null, open }
}
