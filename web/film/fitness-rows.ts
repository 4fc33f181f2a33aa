import type { FilmSheet } from '@/core/model/film/schema'
import { costTogether, type PanelFitness, type Unfit } from '@/core/stages/film/fitness'
import type { Figures } from '@/web/job/figure'

export interface Row {
  film: FilmSheet
  /** Null: all panels in view together. */
  panelId: string | null
  panelName: string
  level: PanelFitness['level']
  stretch: number
  warranty: number | null
  contrast: number | null
  cost: number
  reasons: { reason: Unfit; count: number }[]
  chosen: boolean
  /** Working of the row's figures, which are another film's than the job's own. */
  figures: Figures
  worstId: string
  costId: string
}

export const RANK = { fits: 0, note: 1, warn: 2, stop: 3 } as const
export function rowOfAllPanels(
  film: FilmSheet,
  parts: readonly PanelFitness[],
  names: ReadonlyMap<string, string>,
  panelId: string | null,
  chosen: boolean,
): Row {
  const reasons = new Map<string, { reason: Unfit; count: number }>()
  for (const p of parts)
    for (const reason of p.reasons) {
      const known = reasons.get(reason.code)
      if (known) known.count++
      else reasons.set(reason.code, { reason, count: 1 })
    }
  const level = parts.reduce<PanelFitness['level']>((w, p) => (RANK[p.level] > RANK[w] ? p.level : w), 'fits')
  const worst = parts.reduce<PanelFitness | null>((w, p) => (!w || p.stretch > w.stretch ? p : w), null)
  const cost = costTogether(film.id, parts)
  const figures = new Map([...parts.flatMap((p) => p.figures), cost].map((f) => [f.id, f]))
  const months = parts.map((p) => p.warrantyMonths).filter((m) => m !== null)
  return {
    film,
    panelId,
    panelName: panelId ? (names.get(panelId) ?? '') : '',
    level,
    stretch: Math.max(0, ...parts.map((p) => p.stretch)),
    warranty: months.length > 0 && months.length === parts.length ? Math.min(...months) : null,
    contrast: parts[0]?.contrast ?? null,
    cost: parts.reduce((s, p) => s + p.cost, 0),
    reasons: [...reasons.values()].sort((a, b) => RANK[b.reason.level] - RANK[a.reason.level] || b.count - a.count),
    chosen,
    figures,
    worstId: `stretch/${worst?.panelId ?? ''}/worst`,
    costId: panelId ? `fitness/${film.id}/${panelId}/cost` : cost.id,
  }
}
