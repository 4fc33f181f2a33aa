import { SURFACES } from '../../model/film/kinds'
import type { FilmSheet, StockItem } from '../../model/film/schema'
import type { HeatPoint } from '../../engines/heat/heat-points'
import { isDone, type Verdict } from '../../engines/heat/verdict'
import type { Plan } from '../../model/plan/schema'
import type { Piece } from '../../engines/pieces/pieces'
import type { FilmLayout } from '../../engines/roll/film-layout'
import type { Step } from '../../engines/run-sheet/step'
import { withoutUndoneCuts } from '../../model/log/cut-pieces'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import { defectsOf, type Defect } from '../../engines/heat/defects'
import { HAND_OVER_STEP } from '../../model/log/handed-over'
import type { LogRow } from '../../model/log/schema'

export { handedOver } from '../../model/log/handed-over'

/** What a customer keeps: film and lots, where, temperatures reached, defects, rechecks, care and warranty. */
export interface Handover {
  films: {
    film: FilmSheet
    lots: string[]
    usedMm: number
    panels: string[]
    surfaces: ('vertical' | 'horizontal')[]
    /** Of the job's zone: what the sheet says of these panels' surfaces, and of surfaces it names in its own words. */
    warranty: FilmSheet['warrantyMonths']
  }[]
  readings: {
    piece: string
    point: HeatPoint
    tempC: number | null
    verdict: Verdict | null
    at: string | null
    by: string | null
  }[]
  defects: (Defect & { panel: string })[]
  recheckDueAt: string | null
  recheckDone: string | null
  /** What is still open, as codes; empty when the vehicle may leave. */
  open: ('steps' | 'heat_points' | 'defects' | 'recheck' | 'lots')[]
}

/** What of a reckoning the handover hangs on. */
export interface HandoverInputs {
  pieces: readonly Piece[]
  /** As they were laid: what was read lies on them. */
  laid: readonly Piece[]
  layouts: readonly FilmLayout[]
  points: readonly HeatPoint[]
  steps: readonly Step[]
  recheckDueAt: string | null
}

export function handoverOf(
  plan: Plan,
  r: HandoverInputs,
  stock: readonly StockItem[],
  ledger: readonly LogRow[],
): Handover {
  const films = appliedFilms(plan, r, stock, ledger)
  const readings = r.points.map((point) => {
    const { readings: all } = point
    const best = all.findLast((x) => x.verdict === 'good') ?? all.findLast((x) => isDone(x.verdict)) ?? all.at(-1)
    return {
      piece: r.laid.find((p) => p.id === point.pieceId)?.name ?? point.pieceId,
      point,
      tempC: best?.tempC ?? null,
      verdict: best?.verdict ?? null,
      at: best?.at ?? null,
      by: best?.by ?? null,
    }
  })
  const panelName = (id: string) => plan.panels.find((p) => p.id === id)?.name ?? id
  const defects = defectsOf(ledger, r.points).map((d) => ({ ...d, panel: panelName(d.panelId) }))
  const recheck = r.steps.find((s) => s.code === 'recheck')
  const unfinished = r.steps.some(
    (s) =>
      !['recheck', 'hardware_on', HAND_OVER_STEP].includes(s.code) && (s.state === 'to_do' || s.state === 'running'),
  )
  const open: Handover['open'] = [
    ...(unfinished ? (['steps'] as const) : []),
    ...(r.points.some((p) => p.state === 'due') ? (['heat_points'] as const) : []),
    ...(defects.some((d) => d.closed === null) ? (['defects'] as const) : []),
    ...(recheck && recheck.state !== 'done' && recheck.state !== 'skipped' ? (['recheck'] as const) : []),
    ...(films.some((f) => f.lots.length === 0) ? (['lots'] as const) : []),
  ]
  return { films, readings, defects, recheckDueAt: r.recheckDueAt, recheckDone: recheck?.doneAt ?? null, open }
}

function appliedFilms(
  plan: Plan,
  r: HandoverInputs,
  stock: readonly StockItem[],
  ledger: readonly LogRow[],
): Handover['films'] {
  const cut = withoutUndoneCuts(ledger).flatMap(({ payload }) => {
    const item = payload.kind === 'film_used' ? stock.find((s) => s.id === payload.stockId) : undefined
    return payload.kind === 'film_used' && item ? [{ item, mm: payload.lengthMm }] : []
  })
  return r.layouts.map(({ film }) => {
    const own = cut.filter((c) => c.item.filmId === film.id)
    const panels = plan.panels.filter((p) => p.wrap && (p.filmId ?? plan.film.mainId) === film.id)
    const surfaces = [...new Set(panels.map((p) => PANEL_FACTS[p.kind].surface))]
    const reckonedBy: readonly string[] = SURFACES
    return {
      film,
      lots: [...new Set(own.map((c) => c.item.lot))],
      usedMm: own.reduce((s, c) => s + c.mm, 0),
      panels: panels.map((p) => p.name),
      surfaces,
      warranty: film.warrantyMonths.filter(
        (w) =>
          w.zone === plan.walkaround.zone &&
          ((surfaces as string[]).includes(w.surface) || !reckonedBy.includes(w.surface)),
      ),
    }
  })
}
