'use client'

import { UNIT_NAMES } from '@/web/words/names'
import Table from 'react-bootstrap/Table'
import { useRef, useState } from 'react'
import { MAX_PANELS } from '@/core/model/vehicle/kinds'
import type { Plan } from '@/core/model/plan/schema'
import type { Formatter } from '@/web/words/format'
import { addPanel } from './edit-panel'
import { FIRST_SIZE, SIZES } from './grid-columns'
import { GridRow } from './grid-row'
import { NewPanelName } from './new-panel-name'
import { useGridKeys } from './use-grid-keys'
import '@/web/kit/grid.scss'

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
  const grid = useRef<HTMLTableElement>(null)
  const { lengthUnit: unit } = fmt.units
  const shown = plan.panels.filter((p) => p.name.toLowerCase().includes(wanted.trim().toLowerCase()))

  const { moveTo, keys, copy, paste, markedIn, said } = useGridKeys({ grid, shown, plan, edit, fmt })
  const add = () => {
    const wantedName = name.trim()
    if (wantedName === '' || plan.panels.length >= MAX_PANELS) return
    edit((p) => addPanel(p, wantedName))
    setName('')
    // The new row is there after the next paint; the hand goes on to its width.
    requestAnimationFrame(() => requestAnimationFrame(() => moveTo(shown.length, FIRST_SIZE)))
  }
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
                row={row}
                isPicked={p.id === picked}
                onPick={onPick}
                firstMarked={markedIn(row).first}
                lastMarked={markedIn(row).last}
                edit={edit}
                fmt={fmt}
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
