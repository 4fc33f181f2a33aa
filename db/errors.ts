/** What a database refused, without the query's values: they may be session tokens or uploads. */
export class DatabaseError extends Error {
  constructor(
    readonly code: string,
    readonly constraint: string | null,
    readonly table: string | null,
    message: string,
  ) {
    super(message)
    this.name = 'DatabaseError'
  }
}

interface Raw {
  code?: unknown
  constraint?: unknown
  table?: unknown
  message?: unknown
  cause?: unknown
  query?: unknown
  stack?: unknown
}

const text = (value: unknown): string | null => (typeof value === 'string' && value !== '' ? value : null)
/** Codes of PostgreSQL: five digits and capitals. */
const SQLSTATE = /^[0-9A-Z]{5}$/

/** An error of the database as its code, constraint and table; any other error as it is. */
export function cleanDatabaseError(error: unknown): unknown {
  if (error instanceof DatabaseError || !(error instanceof Error)) return error
  const raw = error as Raw
  const inner = (raw.cause instanceof Error ? raw.cause : error) as Raw
  const code = text(inner.code)
  if (/timeout exceeded when trying to connect|Connection terminated/.test(String(inner.message ?? '')))
    return new DatabaseError('no_connection', null, null, 'no connection to the database in time')
  if (raw.query === undefined && (code === null || !SQLSTATE.test(code))) return error
  const [constraint, table] = [text(inner.constraint), text(inner.table)]
  const of = [constraint && `constraint ${constraint}`, table && `table ${table}`].filter(Boolean).join(', ')
  const clean = new DatabaseError(
    code ?? 'unknown',
    constraint,
    table,
    `database refused: ${code ?? 'unknown'}${of ? ` (${of})` : ''}`,
  )
  // Frames only: the first lines of a stack repeat the message.
  clean.stack = `${clean.message}\n${String(raw.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .join('\n')}`
  return clean
}

/** Waited too long for a row, a statement, a connection: worth trying again. */
const BUSY = new Set(['55P03', '57014', '53300', '25P03', '40001', '40P01', '57P01', 'no_connection'])
export const isBusy = (error: unknown): boolean => {
  const clean = cleanDatabaseError(error)
  return clean instanceof DatabaseError && BUSY.has(clean.code)
}

/** The constraint that a failed query ran into, if it was one. */
export const brokenConstraint = (error: unknown): string | null => {
  const clean = cleanDatabaseError(error)
  return clean instanceof DatabaseError ? clean.constraint : null
}
