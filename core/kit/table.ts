import type { FaultCode } from './fault-code'
import { err, ok, type Result } from './result'

/** One fault of a table, by the line it starts on and its column. */
export interface CellFault {
  code: FaultCode
  line: number
  column: string
  facts: Record<string, string | number>
}
/** Rows of a file with the line that each starts on (quoted cells may hold line breaks). */
export interface TableRow {
  line: number
  cells: Record<string, string>
}

export const MAX_TABLE_ROWS = 2000
/** More columns than any table of ours has by far. */
export const MAX_TABLE_COLUMNS = 200

/**
 * Cells by their column's name. Names are matched without case or blanks; a cell that was neutralised against being
 * taken for a formula (an apostrophe before = + - @) is read as it was meant. Errors: empty, too_many_rows,
 * missing_columns, unknown_column, column_twice, ragged_row, each with its line.
 */
export function readTable(
  rows: readonly (readonly string[])[],
  {
    known,
    required,
    limit = MAX_TABLE_ROWS,
  }: { known: (column: string) => boolean; required: readonly string[][]; limit?: number },
): Result<{ columns: string[]; rows: TableRow[] }, CellFault[]> {
  const head = rows[0]
  const fault = (code: FaultCode, line: number, column = '', facts: CellFault['facts'] = {}) =>
    err([{ code, line, column, facts }])
  if (!head || rows.length < 2) return fault('empty_table', 1)
  if (rows.length - 1 > limit) return fault('too_many_rows', limit + 2, '', { rows: rows.length - 1, limit })
  if (head.length > MAX_TABLE_COLUMNS)
    return fault('too_many_columns', 1, '', { columns: head.length, limit: MAX_TABLE_COLUMNS })
  const columns = head.map((c) =>
    c
      .replace(/^\uFEFF/, '')
      .trim()
      .toLowerCase()
      .replace(/\s+/g, '_'),
  )
  const seen = new Set<string>()
  const twice = columns.find((c) => c !== '' && (seen.has(c) || !seen.add(c)))
  if (twice) return fault('column_twice', 1, twice)
  const strange = columns.find((c) => !known(c))
  if (strange !== undefined) return fault('unknown_column', 1, strange === '' ? `${columns.indexOf('') + 1}` : strange)
  const missing = required.filter((any) => !any.some((c) => columns.includes(c)))
  if (missing.length > 0) return fault('missing_columns', 1, missing.map((m) => m[0]).join(', '))
  let line = 1 + breaks(head)
  const out: TableRow[] = []
  for (const row of rows.slice(1)) {
    line++
    const at = line
    line += breaks(row)
    if (row.every((c) => c.trim() === '')) continue
    if (row.length !== columns.length)
      return fault('ragged_row', at, '', { cells: row.length, columns: columns.length })
    out.push({ line: at, cells: Object.fromEntries(columns.map((c, i) => [c, meant(row[i] ?? '')])) })
  }
  return out.length === 0 ? fault('empty_table', 2) : ok({ columns, rows: out })
}

const breaks = (row: readonly string[]): number => row.reduce((s, c) => s + (c.match(/\n/g)?.length ?? 0), 0)
/** Cells that a spreadsheet would take for a formula. */
const FORMULA = /^[=+\-@\t\r]/
const meant = (cell: string): string =>
  (cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell).trim()

/**
 * A cell as it may be written to a file: text that would be taken for a formula is neutralised by an apostrophe;
 * plain numbers are left.
 */
export const safeCell = (value: string | number | boolean | null): string => {
  const text = value === null ? '' : typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value)
  return FORMULA.test(text) && !/^-?\d+([.,]\d+)?$/.test(text) ? `'${text}` : text
}
