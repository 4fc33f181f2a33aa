import { parseLength, type LengthUnit } from '@/core/kit/units'
import { err, ok, type Fault, type Result } from '@/core/kit/result'
import type { Plan } from '@/core/model/plan/schema'
import { setSize, taped } from '@/core/model/vehicle/resize'
import { straightedgeMm } from '@/core/model/vehicle/straightedge'
import { MAX_PANEL_MM, PANEL_KINDS, SIDES } from '@/core/model/vehicle/kinds'
import type { Panel } from '@/core/model/vehicle/schema'
import { changePanel } from './edit-panel'

export type SizeField =
  'widthMm' | 'heightMm' | 'crownMm' | 'crownOverMm' | 'crownDownMm' | 'crownDownOverMm' | 'cornerRadiusMm'
/** The columns of the sheet that hold lengths, left to right after name, kind and side. */
export const SIZES: readonly { field: SizeField; head: string; label: string; max: number; optional: boolean }[] = [
  { field: 'widthMm', head: 'Width', label: 'width', max: MAX_PANEL_MM, optional: false },
  { field: 'heightMm', head: 'Height', label: 'height', max: MAX_PANEL_MM, optional: false },
  { field: 'crownMm', head: 'Crown', label: 'crown', max: 1500, optional: true },
  { field: 'crownOverMm', head: 'over', label: 'straightedge', max: MAX_PANEL_MM, optional: true },
  { field: 'crownDownMm', head: 'Crown ↓', label: 'crown down', max: 1500, optional: true },
  { field: 'crownDownOverMm', head: 'over', label: 'straightedge down', max: MAX_PANEL_MM, optional: true },
  { field: 'cornerRadiusMm', head: 'Corner r', label: 'corner radius', max: 2000, optional: true },
]
export const FIRST_SIZE = 3
export const WRAP_COLUMN = FIRST_SIZE + SIZES.length

/** Enter goes through the sizes up to the crowns; the corner's radius is reached by Tab or arrow. */
export const LAST_BY_ENTER = FIRST_SIZE + SIZES.findIndex((s) => s.field === 'crownDownOverMm')
/**
 * The column that Enter goes on to in the same row; null where the row is done. A crown left empty needs no
 * straightedge.
 */
export function nextSize(column: number, empty: boolean): number | null {
  if (column < FIRST_SIZE || column >= LAST_BY_ENTER) return null
  const isCrown = ['crownMm', 'crownDownMm'].includes(SIZES[column - FIRST_SIZE]?.field ?? '')
  const next = column + (isCrown && empty ? 2 : 1)
  return next > LAST_BY_ENTER ? null : next
}

/** What a size cell shows: nothing where nothing was taken. */
export const sizeOf = (p: Panel, field: SizeField): number | null => {
  const v = p[field]
  return v === 0 && field !== 'crownDownMm' ? null : v
}

/**
 * A size typed into its cell. A crown without its straightedge means nothing, so a usual one is assumed until it is
 * typed.
 */
export function withSize(was: Panel, field: SizeField, mm: number | null): Panel {
  if (field === 'widthMm' || field === 'heightMm') return setSize(was, field, mm ?? was[field])
  if (field === 'cornerRadiusMm') return taped({ ...was, cornerRadiusMm: mm }, field)
  if (field === 'crownDownMm') {
    const over = (mm ?? 0) > 0 && was.crownDownOverMm === 0 ? straightedgeMm(was.heightMm) : was.crownDownOverMm
    return taped({ ...was, crownDownMm: mm, crownDownOverMm: over }, field)
  }
  if (field === 'crownMm' && (mm ?? 0) > 0 && was.crownOverMm === 0) {
    const over = straightedgeMm(Math.min(was.widthMm, was.heightMm))
    return {
      ...taped({ ...was, crownMm: mm ?? 0, crownOverMm: over }, field),
      assumed: [...was.assumed.filter((f) => f !== field), 'crownOverMm'],
    }
  }
  return taped({ ...was, [field]: mm ?? 0 }, field)
}

/** A cell as text for a spreadsheet: plain numbers in the member's unit. */
export function cellText(p: Panel, column: number, format: (mm: number) => string): string {
  if (column === 0) return p.name
  if (column === 1) return p.kind
  if (column === 2) return p.side
  if (column === WRAP_COLUMN) return p.wrap ? 'yes' : 'no'
  const size = SIZES[column - FIRST_SIZE]
  const v = size ? sizeOf(p, size.field) : null
  return v === null ? '' : format(v)
}

/**
 * A block from a spreadsheet, pasted with its top left at a cell: all of it or none.
 * Errors: paste_too_low, paste_too_wide, or the first cell that cannot be read, with its panel.
 */
export function pasteBlock({
  plan,
  ids,
  row,
  column,
  text,
  unit,
}: {
  plan: Plan
  ids: readonly string[]
  row: number
  column: number
  text: string
  unit: LengthUnit
}): Result<Plan> {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .replace(/\n$/, '')
    .split('\n')
    .map((l) => l.split('\t'))
  if (row + lines.length > ids.length)
    return err({ code: 'paste_too_low', facts: { rows: lines.length, room: ids.length - row } })
  let next = plan
  for (const [i, cells] of lines.entries()) {
    const id = ids[row + i] ?? ''
    const name = plan.panels.find((p) => p.id === id)?.name ?? ''
    if (column + cells.length > WRAP_COLUMN + 1)
      return err({ code: 'paste_too_wide', facts: { columns: cells.length } })
    for (const [j, raw] of cells.entries()) {
      const changed = pasteCell(next, id, column + j, raw.trim(), unit)
      if (!changed.ok)
        return err({
          ...changed.error,
          at: `${name}, ${SIZES[column + j - FIRST_SIZE]?.label ?? 'column ' + (column + j + 1)}`,
        })
      next = changed.value
    }
  }
  return ok(next)
}

function pasteCell(plan: Plan, id: string, column: number, text: string, unit: LengthUnit): Result<Plan, Fault> {
  const set = (change: (p: Panel) => Panel): Result<Plan> => ok(changePanel(plan, id, change))
  const word = (allowed: readonly string[]): Fault => ({
    code: 'not_a_word',
    facts: { text: text.slice(0, 40), allowed: allowed.join(', ') },
  })
  if (column === 0)
    return text === '' || text.length > 120 ? err({ code: 'empty' }) : set((p) => ({ ...p, name: text }))
  const low = text.toLowerCase()
  if (column === 1)
    return (PANEL_KINDS as readonly string[]).includes(low)
      ? set((p) => ({ ...p, kind: low as Panel['kind'] }))
      : err(word(PANEL_KINDS))
  if (column === 2)
    return (SIDES as readonly string[]).includes(low)
      ? set((p) => ({ ...p, side: low as Panel['side'] }))
      : err(word(SIDES))
  if (column === WRAP_COLUMN)
    return low === 'yes' || low === 'no' ? set((p) => ({ ...p, wrap: low === 'yes' })) : err(word(['yes', 'no']))
  const size = SIZES[column - FIRST_SIZE]
  if (!size) return ok(plan)
  if (text === '') return size.optional ? set((p) => withSize(p, size.field, null)) : err({ code: 'empty' })
  const mm = parseLength(text, unit)
  if (!mm.ok) return mm
  if (mm.value < 0 || (mm.value === 0 && !size.optional))
    return err({ code: 'too_small', facts: { minimum: 'more than 0' } })
  if (mm.value > size.max) return err({ code: 'too_big', facts: { maximum: `${size.max / 1000} m` } })
  return set((p) => withSize(p, size.field, mm.value))
}
