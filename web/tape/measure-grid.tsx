'use client'

import { UNIT_NAMES } from '@/web/words/names'
import Table from 'react-bootstrap/Table'
import { useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react'
import { MAX_PANELS } from '@/core/model/vehicle/schema'
import type { Plan } from '@/core/model/plan/schema'
import type { Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/faults'
import { useHeldFault } from '@/web/job/held'
import { addPanel } from './edit-panel'
import { cellText, FIRST_SIZE, LAST_BY_ENTER, nextSize, pasteBlock, SIZES, WRAP_COLUMN } from './grid-columns'
import { GridRow } from './grid-row'
import { NewPanelName } from './new-panel-name'

interface Spot {
  row: number
  column: number
}

/** The measuring sheet: one row a panel, typed without the mouse; blocks go to and from a spreadsheet. */
export function MeasureGrid({
  plan,
  edit,
  fmt,
  wanted = '',
  picked,
  onPick,
  mayRemove = true,
}: {
  plan: Plan
  edit: (change: (plan: Plan) => Plan) => void
  fmt: Formatter
  wanted?: string
  picked: string | null
  onPick: (id: string) => void
  /** Taking a panel away takes its pieces and findings along. */
  mayRemove?: boolean
}) {
  const [name, setName] = useState('')
  const [range, setRange] = useState<{ from: Spot; to: Spot } | null>(null)
  const [said, setSaid] = useState('')
  const grid = useRef<HTMLTableElement>(null)
  const heldFault = useHeldFault()
  const { lengthUnit: unit, locale } = fmt.units
  const format = (mm: number) => fmt.length(mm).text
  const shown = plan.panels.filter((p) => p.name.toLowerCase().includes(wanted.trim().toLowerCase()))

  const moveTo = (row: number, column: number) => {
    const cell = grid.current?.querySelector<HTMLElement>(`[data-cell="${row}:${column}"]`)
    cell?.focus()
    return cell !== null && cell !== undefined
  }
  const spotOf = (target: EventTarget): Spot | null => {
    const at = (target as HTMLElement).closest<HTMLElement>('[data-cell]')?.dataset.cell?.split(':').map(Number)
    return at ? { row: at[0] ?? 0, column: at[1] ?? 0 } : null
  }
  const keys = (event: KeyboardEvent<HTMLElement>) => {
    const at = spotOf(event.target)
    if (!at) return
    const { row, column } = at
    const isSelect = event.target instanceof HTMLSelectElement
    const box = event.target instanceof HTMLInputElement && event.target.type === 'text' ? event.target : null
    const whole = box !== null && box.selectionStart === 0 && box.selectionEnd === box.value.length
    const arrow = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] }[event.key]
    if (arrow && event.shiftKey && !isSelect && (whole || box === null || range)) {
      const start = range ?? { from: at, to: at }
      const to = {
        row: Math.max(0, Math.min(shown.length - 1, start.to.row + (arrow[0] ?? 0))),
        column: Math.max(0, Math.min(WRAP_COLUMN, start.to.column + (arrow[1] ?? 0))),
      }
      setRange({ from: start.from, to })
      event.preventDefault()
      return
    }
    const move = (r: number, c: number) => {
      if (moveTo(r, c)) event.preventDefault()
    }
    if (event.key !== 'Shift' && !(event.ctrlKey || event.metaKey)) setRange(null)
    if (event.key === 'Enter') {
      event.preventDefault()
      const next = nextSize(column, box?.value.trim() === '')
      if (next !== null) moveTo(row, next)
      else if (!moveTo(row + 1, column < FIRST_SIZE || column > LAST_BY_ENTER ? column : FIRST_SIZE))
        moveTo(shown.length, 0)
    } else if (event.key === 'ArrowDown' && !isSelect) move(row + 1, row + 1 === shown.length ? 0 : column)
    else if (event.key === 'ArrowUp' && !isSelect) move(row - 1, column)
    else if (event.key === 'ArrowRight' && (!box || whole || box.selectionStart === box.value.length) && !isSelect)
      move(row, column + 1)
    else if (event.key === 'ArrowLeft' && (!box || whole || box.selectionEnd === 0) && !isSelect) move(row, column - 1)
  }
  const copy = (event: ClipboardEvent) => {
    const at = spotOf(event.target)
    const block = range ?? (at ? { from: at, to: at } : null)
    if (
      !block ||
      (!range &&
        !(
          event.target instanceof HTMLInputElement &&
          event.target.selectionEnd === event.target.value.length &&
          event.target.selectionStart === 0
        ))
    )
      return
    const [r0, r1] = [Math.min(block.from.row, block.to.row), Math.max(block.from.row, block.to.row)]
    const [c0, c1] = [Math.min(block.from.column, block.to.column), Math.max(block.from.column, block.to.column)]
    const text = shown
      .slice(r0, r1 + 1)
      .map((p) => Array.from({ length: c1 - c0 + 1 }, (_, i) => cellText(p, c0 + i, format)).join('\t'))
      .join('\n')
    event.clipboardData.setData('text/plain', text)
    event.preventDefault()
    setSaid(`${r1 - r0 + 1} × ${c1 - c0 + 1} cells copied, in ${unit}.`)
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
  const add = () => {
    const wantedName = name.trim()
    if (wantedName === '' || plan.panels.length >= MAX_PANELS) return
    edit((p) => addPanel(p, wantedName))
    setName('')
    // The new row is there after the next paint; the hand goes on to its width.
    requestAnimationFrame(() => requestAnimationFrame(() => moveTo(shown.length, FIRST_SIZE)))
  }
  const marked = (row: number, column: number): boolean =>
    range !== null &&
    row >= Math.min(range.from.row, range.to.row) &&
    row <= Math.max(range.from.row, range.to.row) &&
    column >= Math.min(range.from.column, range.to.column) &&
    column <= Math.max(range.from.column, range.to.column)
  const heads = ['Panel', 'Kind', 'Side', ...SIZES.map((s) => s.head), 'Wrap']
  return (
    <>
      <div className="plate scroll-x p-2" onCopy={copy} onPaste={paste}>
        <Table bsPrefix="tape-grid" ref={grid} onKeyDown={keys}>
          <thead>
            <tr>
              {heads.map((h, i) => (
                <th key={`${h}${i}`} scope="col">
                  {h}
                </th>
              ))}
              <th scope="col">
                <span className="visually-hidden">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((p, row) => (
              <GridRow
                key={p.id}
                p={p}
                picked={picked}
                onPick={onPick}
                marked={marked}
                row={row}
                edit={edit}
                locale={locale}
                heldFault={heldFault}
                unit={unit}
                format={format}
                mayRemove={mayRemove}
              />
            ))}
            <tr>
              <td colSpan={heads.length + 1}>
                <NewPanelName shown={shown} plan={plan} name={name} setName={setName} add={add} />
              </td>
            </tr>
          </tbody>
        </Table>
        {plan.panels.length > 0 && shown.length === 0 && <p className="m-2">No panel matches “{wanted}”.</p>}
      </div>
      <p className="label mt-1 mb-0" role="status">
        {said ||
          `${plan.panels.some((p) => p.assumed.length > 0) ? 'Hatched cells are assumed until they are taped. ' : ''}` +
            `A number without a unit is in ${UNIT_NAMES[unit]}; 37 1/2, 37.5in, 3'1", 95cm and 0.95 m are read too. Shift and arrows ` +
            'mark cells; Ctrl C and Ctrl V go to and from a spreadsheet.'}
      </p>
    </>
  )
}
