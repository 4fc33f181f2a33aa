import type { HeatPoint } from './heat-points'
import { readingVerdict } from './verdict'
import type { LogRow } from '../../model/log/schema'

export interface Defect {
  /** Id of the entry that told of it. */
  id: string
  panelId: string
  /** One of the ledger's kinds, or `overheated` where a reading passed the film's limit. */
  defect: string
  note: string
  at: string
  by: string
  /** Null while it is open. */
  closed: { at: string; by: string; how: string; outcome: 'mended' | 'redone' | 'accepted' } | null
  photoIds: readonly string[]
}

/**
 * Every defect of a job in the order they were found: logged by hand, or read past a film's limit; each open or
 * closed.
 */
export function defectsOf(ledger: readonly LogRow[], points: readonly HeatPoint[]): Defect[] {
  const pointById = new Map(points.map((p) => [p.id, p]))
  const out: Defect[] = []
  for (const { id, at, by, payload } of ledger) {
    if (payload.kind === 'defect')
      out.push({
        id,
        panelId: payload.panelId,
        defect: payload.defect,
        note: payload.note,
        at,
        by,
        closed: null,
        photoIds: payload.photoIds ?? [],
      })
    if (payload.kind === 'reading') {
      const point = pointById.get(payload.pointId)
      if (point && readingVerdict(payload, point) === 'too_hot')
        out.push({
          id,
          panelId: point.panelId,
          defect: 'overheated',
          note: `${payload.tempC} °C`,
          at,
          by,
          closed: null,
          photoIds: [],
        })
    }
    if (payload.kind !== 'defect_closed') continue
    const open = out.findIndex((d) => d.id === payload.defectId)
    const found = out[open]
    if (found) out[open] = { ...found, closed: { at, by, how: payload.how, outcome: payload.outcome ?? 'mended' } }
  }
  return out
}
