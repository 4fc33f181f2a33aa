import { withoutUndoneCuts } from '../../model/log/cut-pieces'
import { civilToMinutes, minutesToCivil } from '../../kit/civil'
import type { HeatPoint } from '../../engines/heat/heat-points'
import { defectsOf } from '../../engines/heat/defects'
import type { LogRow } from '../../model/log/schema'
import type { FilmLayout } from '../../engines/roll/film-layout'
import type { Step } from '../../engines/run-sheet/steps'
import type { Plan } from '../../model/plan/schema'
import type { Catalogue } from '../../model/catalogue/catalogue'
import { finding, type Finding } from '../../model/finding/finding'

interface Context {
  plan: Plan
  layouts: readonly FilmLayout[]
  points: readonly HeatPoint[]
  steps: readonly Step[]
  catalogue: Catalogue
}

/** What the ledger says is amiss: readings out of range, films of two lots, defects, more film than planned. */
export function logFindings(
  { plan, layouts, points, steps, catalogue }: Context,
  ledger: readonly LogRow[],
): Finding[] {
  const out: Finding[] = []
  for (const point of points) {
    const last = point.readings.at(-1)
    if (!last || last.verdict === 'good') continue
    const facts = {
      panel: panelName(plan, point.panelId),
      point: point.name,
      kind: point.kind,
      c: last.tempC,
      limit_c: point.limitC,
      min_c: point.range.min,
      max_c: point.range.max,
    }
    const of = (code: 'reading_over' | 'reading_too_hot', level: 'note' | 'warn') =>
      finding(code, level, 'bay', { id: `${code}/${point.id}`, panelId: point.panelId, facts })
    if (last.verdict === 'too_hot') out.push(of('reading_too_hot', 'warn'))
    else if (last.verdict === 'over') out.push(of('reading_over', 'note'))
    else if (point.state === 'due')
      out.push(
        finding('reading_under', 'warn', 'bay', { id: `reading_under/${point.id}`, panelId: point.panelId, facts }),
      )
  }
  for (const d of defectsOf(ledger, points)) {
    if (d.closed || d.defect === 'overheated') continue
    const facts = { panel: panelName(plan, d.panelId), defect: d.defect, note: d.note }
    out.push(finding('defect_logged', 'note', 'bay', { id: `defect_logged/${d.id}`, panelId: d.panelId, facts }))
  }
  const lots = new Map<string, { lots: Set<string>; mm: number }>()
  for (const { payload } of withoutUndoneCuts(ledger)) {
    if (payload.kind !== 'film_used') continue
    const item = catalogue.stock.find((s) => s.id === payload.stockId)
    if (!item) continue
    const of = lots.get(item.filmId) ?? { lots: new Set(), mm: 0 }
    of.lots.add(item.lot)
    of.mm += payload.lengthMm
    lots.set(item.filmId, of)
  }
  for (const [filmId, of] of lots) {
    const layout = layouts.find((l) => l.film.id === filmId)
    const film = layout?.film.name ?? filmId
    if (of.lots.size > 1)
      out.push(
        finding('lots_mixed', 'warn', 'bay', {
          id: `lots_mixed/film:${filmId}`,
          facts: { film, lots: [...of.lots].join(', ') },
        }),
      )
    if (layout && of.mm > layout.usedMm * 1.1 + 100)
      out.push(
        finding('more_film_than_planned', 'note', 'bay', {
          id: `more_film/film:${filmId}`,
          facts: { film, used_mm: of.mm, planned_mm: layout.usedMm },
        }),
      )
  }
  const due = recheckDueAt(steps)
  const [d, n] = [due ? civilToMinutes(due) : null, civilToMinutes(catalogue.now)]
  if (due && d !== null && n !== null && steps.find((s) => s.code === 'recheck')?.state !== 'done')
    out.push(
      finding(n >= d ? 'recheck_overdue' : 'recheck_waits', n >= d ? 'warn' : 'note', 'handover', { facts: { due } }),
    )
  return out
}

const panelName = (plan: Plan, id: string): string => plan.panels.find((p) => p.id === id)?.name ?? id

/** The recheck falls due when the rest begun after the check has run (24 h by common practice). Local wall time. */
export function recheckDueAt(steps: readonly Step[]): string | null {
  const rest = steps.find((s) => s.code === 'rest')
  const check = steps.find((s) => s.code === 'check_round')
  const begun = rest?.doneAt ?? check?.doneAt
  if (!rest || !begun) return null
  const t = civilToMinutes(begun)
  return t === null ? null : minutesToCivil(t + rest.waitMin)
}
