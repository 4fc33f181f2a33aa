import Papa from 'papaparse'
import { err, ok, type Result } from '@/core/kit/result'
import { MAX_TABLE_COLUMNS, type CellFault } from '@/core/kit/table'

/**
 * A CSV file's text as rows (RFC 4180; comma, semicolon or tab; a byte order mark is fine). Errors: bad_quotes, by
 * line.
 */
export function readCsv(text: string): Result<string[][], CellFault[]> {
  const clean = text.replace(/^\uFEFF/, '')
  const columns = headColumns(clean)
  if (columns > MAX_TABLE_COLUMNS)
    return err([{ code: 'too_many_columns', line: 1, column: '', facts: { columns, limit: MAX_TABLE_COLUMNS } }])
  const parsed = Papa.parse<string[]>(clean, { skipEmptyLines: false, delimiter: separatorOf(clean) })
  const quotes = parsed.errors.find((e) => e.type === 'Quotes')
  if (quotes) return err([{ code: 'bad_quotes', line: (quotes.row ?? 0) + 1, column: '', facts: {} }])
  const rows = parsed.data
  // The line break at a file's end is no row of its own.
  if (rows.length > 1 && rows.at(-1)?.length === 1 && rows.at(-1)?.[0] === '') rows.pop()
  return ok(rows)
}

export const writeCsv = (rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse(rows as string[][], { newline: '\r\n' })}\r\n`

/** Separators of the first line, counted before anything is taken apart. */
function headColumns(text: string): number {
  const head = text.split(/\r?\n/, 1)[0] ?? ''
  const mark = separatorOf(text)
  let count = 1
  for (let i = 0; i < head.length; i++) if (head[i] === mark) count++
  return count
}

/** Comma, semicolon or tab, whichever parts the first line most; cells below may hold any of them. */
function separatorOf(text: string): string {
  const head = (text.split(/\r?\n/, 1)[0] ?? '').replace(/"[^"]*"/g, '')
  const times = (mark: string) => head.split(mark).length
  return [',', ';', '\t'].sort((a, b) => times(b) - times(a))[0] ?? ','
}
