import type { HeatPoint } from '../../engines/heat/heat-points'
import { defectsOf } from '../../engines/heat/defects'
import type { FilmLayout } from '../../engines/roll/film-layout'
import type { StockItem } from '../../model/film/schema'
import { finding, type Finding } from '../../model/finding/finding'
import { withoutUndoneCuts } from '../../model/log/cut-pieces'
import type { LogRow } from '../../model/log/schema'
import type { Plan } from '../../model/plan/schema'

interface Context {
  plan: Plan
  layouts: readonly FilmLayout[]
  points: readonly HeatPoint[]
  stock: readonly StockItem[]
}

/** More film than planned by this share and length is told. Assumed. */
const MORE_FILM = { share: 1.1, mm: 100 }

/** What the ledger says is amiss: readings out of range, films of two lots, defects, more film than planned. */
export const logFindings = (c: Context, ledger: readonly LogRow[]): Finding[] => [
  ...c.points.flatMap((point) => readingFindings(c.plan, point)),
  ...defectFindings(c, ledger),
  ...usedFilmFindings(c, ledger),
]

const panelName = (plan: Plan, id: string): string => plan.panels.find((p) => p.id === id)?.name ?? id

/** The last reading of a heat point against its film's range. */
function readingFindings(plan: Plan, point: HeatPoint): Finding[] {
  const last = point.readings.at(-1)
  if (!last || last.verdict === 'good' || last.verdict === 'gun_on') return []
  const details = (code: string) => ({
    id: `${code}/${point.id}`,
    panelId: point.panelId,
    facts: {
      panel: panelName(plan, point.panelId),
      point: point.name,
      kind: point.kind,
      c: last.tempC,
      limit_c: point.limitC,
      min_c: point.range.min,
      max_c: point.range.max,
    },
  })
  if (last.verdict === 'too_hot') return [finding('reading_too_hot', 'warn', 'bay', details('reading_too_hot'))]
  if (last.verdict === 'over') return [finding('reading_over', 'note', 'bay', details('reading_over'))]
  return point.state === 'due' ? [finding('reading_under', 'warn', 'bay', details('reading_under'))] : []
}

function defectFindings({ plan, points }: Context, ledger: readonly LogRow[]): Finding[] {
  return defectsOf(ledger, points).flatMap((d) => {
    if (d.closed || d.defect === 'overheated') return []
    const facts = { panel: panelName(plan, d.panelId), defect: d.defect, note: d.note }
    return finding('defect_logged', 'note', 'bay', { id: `defect_logged/${d.id}`, panelId: d.panelId, facts })
  })
}

/** Film that was cut from more than one lot, or more of it than planned. */
function usedFilmFindings({ layouts, stock }: Context, ledger: readonly LogRow[]): Finding[] {
  const out: Finding[] = []
  for (const [filmId, used] of usedByFilm(stock, ledger)) {
    const layout = layouts.find((l) => l.film.id === filmId)
    const film = layout?.film.name ?? filmId
    if (used.lots.size > 1)
      out.push(
        finding('lots_mixed', 'warn', 'bay', {
          id: `lots_mixed/film:${filmId}`,
          facts: { film, lots: [...used.lots].join(', ') },
        }),
      )
    if (layout && used.mm > layout.usedMm * MORE_FILM.share + MORE_FILM.mm)
      out.push(
        finding('more_film_than_planned', 'note', 'bay', {
          id: `more_film/film:${filmId}`,
          facts: { film, used_mm: used.mm, planned_mm: layout.usedMm },
        }),
      )
  }
  return out
}

function usedByFilm(stock: readonly StockItem[], ledger: readonly LogRow[]) {
  const byFilm = new Map<string, { lots: Set<string>; mm: number }>()
  for (const { payload } of withoutUndoneCuts(ledger)) {
    if (payload.kind !== 'film_used') continue
    const item = stock.find((s) => s.id === payload.stockId)
    if (!item) continue
    const used = byFilm.get(item.filmId) ?? { lots: new Set<string>(), mm: 0 }
    used.lots.add(item.lot)
    used.mm += payload.lengthMm
    byFilm.set(item.filmId, used)
  }
  return byFilm
}
