import { useState, type ClipboardEvent, type KeyboardEvent, type RefObject } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import type { Panel } from '@/core/model/vehicle/schema'
import { faultText } from '@/web/words/faults'
import type { Formatter } from '@/web/words/format'
import { cellText, FIRST_SIZE, LAST_BY_ENTER, nextSize, pasteBlock, WRAP_COLUMN } from './grid-columns'

interface Spot {
  row: number
  column: number
}

interface Block {
  from: Spot
  to: Spot
}
interface GridSheet {
  shown: readonly Panel[]
  plan: Plan
  edit: (change: (plan: Plan) => Plan) => void
  fmt: Formatter
}

/** Columns of a row that are marked, from first to last. */
export interface MarkedColumns {
  first: number
  last: number
}
const NONE_MARKED: MarkedColumns = { first: 0, last: -1 }

/** A block of cells, its first and last row and column. */
const cornersOf = ({ from, to }: Block) => ({
  top: Math.min(from.row, to.row),
  bottom: Math.max(from.row, to.row),
  first: Math.min(from.column, to.column),
  last: Math.max(from.column, to.column),
})

/** The whole text of a field is marked: an arrow then leaves the field, and Ctrl C takes its cell. */
const allMarked = (box: HTMLInputElement) => box.selectionStart === 0 && box.selectionEnd === box.value.length

/** To the side, the hand stays in a text until it is at its end. */
const leaves = (box: HTMLInputElement | null, right: number): boolean =>
  right === 0 ||
  !box ||
  allMarked(box) ||
  (right > 0 ? box.selectionStart === box.value.length : box.selectionEnd === 0)

const spotOf = (target: EventTarget): Spot | null => {
  const at = (target as HTMLElement).closest<HTMLElement>('[data-cell]')?.dataset.cell?.split(':').map(Number)
  return at ? { row: at[0] ?? 0, column: at[1] ?? 0 } : null
}

const ARROWS: Record<string, [number, number]> = {
  ArrowDown: [1, 0],
  ArrowUp: [-1, 0],
  ArrowRight: [0, 1],
  ArrowLeft: [0, -1],
}

/** The measuring sheet by keys: Enter and arrows walk it, Shift marks blocks, which go to and from a spreadsheet. */
export function useGridKeys({ grid, ...sheet }: GridSheet & { grid: RefObject<HTMLTableElement | null> }) {
  const { shown } = sheet
  const [range, setRange] = useState<Block | null>(null)
  const moveTo = (row: number, column: number) => {
    const cell = grid.current?.querySelector<HTMLElement>(`[data-cell="${row}:${column}"]`)
    cell?.focus()
    return cell !== null && cell !== undefined
  }

  /** Where Enter goes: the next size of the panel, else the first one of the next panel, else the new row. */
  const enter = ({ row, column }: Spot, empty: boolean) => {
    const next = nextSize(column, empty)
    if (next !== null) moveTo(row, next)
    else if (!moveTo(row + 1, column < FIRST_SIZE || column > LAST_BY_ENTER ? column : FIRST_SIZE))
      moveTo(shown.length, 0)
  }

  const widen = (at: Spot, [down, right]: [number, number]) => {
    const start = range ?? { from: at, to: at }
    const to = {
      row: Math.max(0, Math.min(shown.length - 1, start.to.row + down)),
      column: Math.max(0, Math.min(WRAP_COLUMN, start.to.column + right)),
    }
    setRange({ from: start.from, to })
  }

  const keys = (event: KeyboardEvent<HTMLElement>) => {
    const at = spotOf(event.target)
    if (!at) return
    const { row, column } = at
    const isSelect = event.target instanceof HTMLSelectElement
    const box = event.target instanceof HTMLInputElement && event.target.type === 'text' ? event.target : null
    const whole = box !== null && allMarked(box)
    const arrow = ARROWS[event.key]
    if (arrow && event.shiftKey && !isSelect && (whole || box === null || range)) {
      widen(at, arrow)
      event.preventDefault()
      return
    }
    if (event.key !== 'Shift' && !(event.ctrlKey || event.metaKey)) setRange(null)
    if (event.key === 'Enter') {
      event.preventDefault()
      enter(at, box?.value.trim() === '')
      return
    }
    if (!arrow || isSelect) return
    const [down, right] = arrow
    const toNewRow = down > 0 && row + 1 === shown.length
    if (leaves(box, right) && moveTo(row + down, toNewRow ? 0 : column + right)) event.preventDefault()
  }

  const { copy, paste, said } = useGridClipboard({ ...sheet, range })
  const markedIn = (row: number): MarkedColumns => {
    if (!range) return NONE_MARKED
    const { top, bottom, first, last } = cornersOf(range)
    return row >= top && row <= bottom ? { first, last } : NONE_MARKED
  }
  return { moveTo, keys, copy, paste, markedIn, said }
}

/** Blocks of cells to and from a spreadsheet; `said`: what came of it. */
function useGridClipboard({ shown, plan, edit, fmt, range }: GridSheet & { range: Block | null }) {
  const [said, setSaid] = useState('')
  const { lengthUnit: unit } = fmt.units
  const copy = (event: ClipboardEvent) => {
    const at = spotOf(event.target)
    const block = range ?? (at ? { from: at, to: at } : null)
    if (!block || (!range && !(event.target instanceof HTMLInputElement && allMarked(event.target)))) return
    const { top, bottom, first, last } = cornersOf(block)
    const format = (mm: number) => fmt.length(mm).text
    const text = shown
      .slice(top, bottom + 1)
      .map((p) => Array.from({ length: last - first + 1 }, (_, i) => cellText(p, first + i, format)).join('\t'))
      .join('\n')
    event.clipboardData.setData('text/plain', text)
    event.preventDefault()
    setSaid(`${bottom - top + 1} × ${last - first + 1} cells copied, in ${unit}.`)
  }

  const paste = (event: ClipboardEvent) => {
    const at = spotOf(event.target)
    const text = event.clipboardData.getData('text/plain')
    if (!at || at.row >= shown.length || !/[\t\n]/.test(text.replace(/\r?\n$/, ''))) return
    event.preventDefault()
    const ids = shown.map((p) => p.id)
    const out = pasteBlock({ plan, ids, row: at.row, column: at.column, text, unit })
    if (!out.ok) return setSaid(`Nothing pasted. ${faultText(out.error, fmt)}`)
    // On whatever the plan is by then, so that nothing typed meanwhile is lost.
    edit((p) => {
      const again = pasteBlock({ plan: p, ids, row: at.row, column: at.column, text, unit })
      return again.ok ? again.value : p
    })
    setSaid(`${text.replace(/\n$/, '').split('\n').length} rows pasted.`)
  }
  return { copy, paste, said }
}
