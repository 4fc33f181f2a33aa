import type { FaultCode } from '../../kit/fault-code'
import type { HeatPoint } from '../../engines/heat/heat-points'
import { civilToMinutes, minutesToCivil } from '../../kit/civil'
import { textHash } from '../../kit/random'
import { err, ok, type Result } from '../../kit/result'
import { readTable, type CellFault } from '../../kit/table'
import { LogPayload, type LogRow } from '../../model/log/schema'
import { READING_COLUMNS } from './reading-table'

/** A reading from a file, ready to be logged: its id is made of what it says, so that the same row counts once. */
export interface ImportedReading {
  id: string
  /** UTC. */
  at: string
  payload: Extract<LogPayload, { kind: 'reading' }>
}
export interface ReadingImport {
  readings: ImportedReading[]
  /** Rows that the ledger has already, by their id or because place, moment and figure are the same. */
  known: number
  faults: CellFault[]
}

const YES: readonly string[] = ['yes', 'true', '1']
const NO: readonly string[] = ['no', 'false', '0']

/**
 * Readings of a table such as `readingTable` writes: by point, figure, gun away and moment. A row that cannot be read is
 * told with its line and holds back no other; a place without a reading is no fault. Errors: those of `readTable`.
 */
export function readReadings(
  rows: readonly (readonly string[])[],
  { jobId, points, ledger }: { jobId: string; points: readonly HeatPoint[]; ledger: readonly LogRow[] },
): Result<ReadingImport, CellFault[]> {
  const table = readTable(rows, {
    known: (column) => (READING_COLUMNS as readonly string[]).includes(column),
    required: [['point'], ['temp_c'], ['gun_away'], ['at_utc']],
    limit: 5000,
  })
  if (!table.ok) return table
  const byId = new Map(points.map((p) => [p.id, p]))
  const there = new Set(ledger.map((row) => row.id))
  for (const { payload, at } of ledger) if (payload.kind === 'reading') there.add(sameAs(payload.pointId, at, payload))
  const out: ReadingImport = { readings: [], known: 0, faults: [] }
  for (const { line, cells } of table.value.rows) {
    if ((cells.temp_c ?? '') === '' && (cells.at_utc ?? '') === '') continue
    const read = readingOf(cells, byId)
    if (!read.ok) {
      out.faults.push({ code: read.error.code, line, column: read.error.column, facts: {} })
      continue
    }
    const { at, payload } = read.value
    const id = idOf(`${jobId}/${payload.pointId}/${at}/${payload.tempC}/${payload.gunAway}`)
    if (there.has(id) || there.has(sameAs(payload.pointId, at, payload))) {
      out.known++
      continue
    }
    there.add(id)
    out.readings.push({ id, at, payload })
  }
  return ok(out)
}

const sameAs = (pointId: string, at: string, { tempC }: { tempC: number }): string =>
  `${pointId} ${utcOf(at) ?? at} ${tempC}`

interface RowFault {
  code: FaultCode
  column: string
}

function readingOf(
  cells: Record<string, string>,
  byId: ReadonlyMap<string, HeatPoint>,
): Result<Omit<ImportedReading, 'id'>, RowFault> {
  const point = byId.get(cells.point ?? '')
  if (!point) return err({ code: 'no_such_point', column: 'point' })
  const text = (cells.temp_c ?? '').replace(',', '.')
  const tempC = text === '' ? NaN : Number(text)
  const away = (cells.gun_away ?? '').toLowerCase()
  if (!YES.includes(away) && !NO.includes(away)) return err({ code: 'yes_or_no', column: 'gun_away' })
  const at = utcOf(cells.at_utc ?? '')
  if (at === null) return err({ code: 'no_such_moment', column: 'at_utc' })
  const payload = LogPayload.safeParse({
    kind: 'reading',
    pieceId: point.pieceId,
    pointId: point.id,
    tempC,
    gunAway: YES.includes(away),
  })
  if (!payload.success || payload.data.kind !== 'reading') return err({ code: 'no_temperature', column: 'temp_c' })
  return ok({ at, payload: payload.data })
}

const MOMENT = /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2})(?::(\d{2})(?:\.(\d{1,3})\d*)?)?(?:Z|([+-])(\d{2}):?(\d{2}))?$/

/** A moment as the ledger writes it: UTC, to the millisecond; without a zone it is taken for UTC. Null: none. */
function utcOf(text: string): string | null {
  const [, wall = '', second = '00', parts = '0', sign, hours = '0', minutes = '0'] = MOMENT.exec(text.trim()) ?? []
  const civil = civilToMinutes(wall)
  if (civil === null || Number(second) > 59) return null
  const aheadMin = (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes))
  return `${minutesToCivil(civil - aheadMin)}:${second}.${parts.padEnd(3, '0')}Z`
}

/** A UUID of version 8 out of what a row says. */
function idOf(text: string): string {
  const hex = textHash(text) + textHash(`${text}#`)
  const variant = ((parseInt(hex[16] ?? '0', 16) & 3) | 8).toString(16)
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-${variant}${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}
