import type { HeatPoint } from '../../engines/heat/heat-points'
import { safeCell } from '../../kit/table'
import type { LogRow } from '../../model/log/schema'

/** Columns of a table of readings, as it goes out and comes in. */
export const READING_COLUMNS = [
  'point',
  'piece',
  'panel',
  'kind',
  'place',
  'min_c',
  'max_c',
  'limit_c',
  'temp_c',
  'gun_away',
  'at_utc',
  'by',
] as const

/** Every reading of a job as a table, in the order of the ledger; a place that was never read has a row without one. */
export function readingTable(
  points: readonly HeatPoint[],
  ledger: readonly LogRow[],
  panelName: (id: string) => string,
): string[][] {
  const byId = new Map(points.map((p) => [p.id, p]))
  const place = (p: HeatPoint) => [
    p.id,
    p.pieceId,
    panelName(p.panelId),
    p.kind,
    p.name,
    p.range.min,
    p.range.max,
    p.limitC,
  ]
  const read = ledger.flatMap(({ payload, at, by }) => {
    const point = payload.kind === 'reading' ? byId.get(payload.pointId) : undefined
    return payload.kind === 'reading' && point ? [[...place(point), payload.tempC, payload.gunAway, at, by]] : []
  })
  const missing = points.filter((p) => p.readings.length === 0).map((p) => [...place(p), null, null, null, null])
  return [[...READING_COLUMNS], ...[...read, ...missing].map((row) => row.map(safeCell))]
}
