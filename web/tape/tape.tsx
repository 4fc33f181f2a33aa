'use client'

import { useRef, useState, type KeyboardEvent } from 'react'
import { FilterBox, WordSelect } from '@/web/kit/fields'
import { MAX_PANEL_MM, MAX_PANELS, SIDES } from '@/core/vehicle/schema'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { word } from '@/web/words/names'
import { addPanel, changePanel, removePanel, setSize } from './edit-panel'
import { PanelSheet } from './panel-sheet'

const COLUMNS = ['Panel', 'Kind', 'Side', 'Width', 'Height', 'Crown', 'over', 'Corner r', 'Wrap'] as const

/** The measuring sheet: one row a panel, typed without the mouse. */
export function Tape() {
  const { plan, edit, fmt, mayPlan } = useJob()
  const [picked, setPicked] = useState<string | null>(null)
  const [name, setName] = useState('')
  const grid = useRef<HTMLTableElement>(null)
  const [wanted, setWanted] = useState('')
  const { lengthUnit: unit, locale } = fmt.units
  const format = (mm: number) => fmt.length(mm).text
  const shown = plan.panels.filter((p) => p.name.toLowerCase().includes(wanted.trim().toLowerCase()))
  const current = plan.panels.find((p) => p.id === picked) ?? plan.panels[0]

  const go = (row: number, column: number) => {
    const cell = grid.current?.querySelector<HTMLElement>(`[data-cell="${row}:${column}"]`)
    cell?.focus()
    return cell !== null && cell !== undefined
  }
  const keys = (event: KeyboardEvent<HTMLElement>) => {
    const at = (event.target as HTMLElement).closest<HTMLElement>('[data-cell]')?.dataset.cell?.split(':').map(Number)
    if (!at) return
    const [row = 0, column = 0] = at
    const isSelect = event.target instanceof HTMLSelectElement
    const box = event.target instanceof HTMLInputElement && event.target.type === 'text' ? event.target : null
    const whole = box !== null && box.selectionStart === 0 && box.selectionEnd === box.value.length
    const move = (r: number, c: number) => {
      if (go(r, c)) event.preventDefault()
    }
    if (event.key === 'Enter') {
      event.preventDefault()
      if (column === 3) go(row, 4)
      else if (!go(row + 1, column === 4 ? 3 : column)) go(shown.length, 0)
    } else if (event.key === 'ArrowDown' && !isSelect) move(row + 1, row + 1 === shown.length ? 0 : column)
    else if (event.key === 'ArrowUp' && !isSelect) move(row - 1, column)
    else if (event.key === 'ArrowRight' && (!box || whole || box.selectionStart === box.value.length) && !isSelect)
      move(row, column + 1)
    else if (event.key === 'ArrowLeft' && (!box || whole || box.selectionEnd === 0) && !isSelect) move(row, column - 1)
  }
  const add = () => {
    const wantedName = name.trim()
    if (wantedName === '' || plan.panels.length >= MAX_PANELS) return
    edit((p) => addPanel(p, wantedName))
    setName('')
    // The new row is there after the next paint; the hand goes on to its width.
    requestAnimationFrame(() => requestAnimationFrame(() => go(shown.length, 3)))
  }
  return (
    <>
      <div className="bench-head">
        <h1>Tape</h1>
        <span className="label">
          {plan.panels.length} panels · a bare number is in {unit} · also 37 1/2, 37.5in, 3&apos;1&quot;, 95cm, 0.95 m
        </span>
        <span className="spacer" />
        <FilterBox label="Filter panels" width={180} value={wanted} onText={setWanted} />
      </div>
      <Findings stage="tape" limit={4} />
      <fieldset disabled={!mayPlan}>
        <div className="plate scroll-x p-2">
          <table className="tape-grid" ref={grid} onKeyDown={keys}>
            <thead>
              <tr>
                {COLUMNS.map((c) => (
                  <th key={c} scope="col">
                    {c}
                  </th>
                ))}
                <th scope="col">
                  <span className="visually-hidden">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {shown.map((p, row) => {
                const length = (
                  column: number,
                  field: 'widthMm' | 'heightMm' | 'crownMm' | 'crownOverMm' | 'cornerRadiusMm',
                  label: string,
                  optional: boolean,
                ) => (
                  <td data-assumed={p.assumed.includes(field)}>
                    <LengthInput
                      data-cell={`${row}:${column}`}
                      aria-label={`${p.name}, ${label}`}
                      mm={optional && p[field] === 0 ? null : p[field]}
                      unit={unit}
                      format={format}
                      optional={optional}
                      max={field === 'crownMm' ? 1500 : field === 'cornerRadiusMm' ? 2000 : MAX_PANEL_MM}
                      onValue={(mm) =>
                        edit((plan) =>
                          changePanel(plan, p.id, (was) => {
                            if (field === 'widthMm' || field === 'heightMm')
                              return setSize(was, field, mm ?? was[field])
                            if (field === 'cornerRadiusMm') return { ...was, cornerRadiusMm: mm }
                            // A crown without its straightedge means nothing: half a metre or the panel's width, assumed until typed.
                            const over =
                              field === 'crownMm' && (mm ?? 0) > 0 && was.crownOverMm === 0
                                ? {
                                    crownOverMm: Math.min(was.widthMm, was.heightMm, 1000),
                                    assumed: [...was.assumed, 'crownOverMm'],
                                  }
                                : {}
                            return {
                              ...was,
                              [field]: mm ?? 0,
                              ...over,
                              ...(field === 'crownOverMm' ? { assumed: was.assumed.filter((f) => f !== field) } : {}),
                            }
                          }),
                        )
                      }
                    />
                  </td>
                )
                return (
                  <tr
                    key={p.id}
                    id={p.id}
                    data-off={!p.wrap}
                    aria-selected={p.id === current?.id}
                    onFocus={() => setPicked(p.id)}
                  >
                    <td style={{ minWidth: 150 }}>
                      <input
                        data-cell={`${row}:0`}
                        type="text"
                        aria-label={`Name of ${p.name}`}
                        value={p.name}
                        maxLength={120}
                        style={p.id === current?.id ? { fontWeight: 650 } : undefined}
                        onChange={(e) =>
                          e.target.value.trim() !== '' &&
                          edit((plan) => changePanel(plan, p.id, (was) => ({ ...was, name: e.target.value })))
                        }
                      />
                    </td>
                    <td style={{ minWidth: 112 }}>
                      <WordSelect
                        list="panel"
                        locale={locale}
                        data-cell={`${row}:1`}
                        aria-label={`${p.name}, kind`}
                        value={p.kind}
                        onCode={(code) => edit((plan) => changePanel(plan, p.id, (was) => ({ ...was, kind: code })))}
                      />
                    </td>
                    <td style={{ minWidth: 76 }}>
                      <select
                        data-cell={`${row}:2`}
                        aria-label={`${p.name}, side`}
                        value={p.side}
                        onChange={(e) =>
                          edit((plan) =>
                            changePanel(plan, p.id, (was) => ({ ...was, side: e.target.value as typeof p.side })),
                          )
                        }
                      >
                        {SIDES.map((s) => (
                          <option key={s} value={s}>
                            {word('side', s, locale)}
                          </option>
                        ))}
                      </select>
                    </td>
                    {length(3, 'widthMm', 'width', false)}
                    {length(4, 'heightMm', 'height', false)}
                    {length(5, 'crownMm', 'crown', true)}
                    {length(6, 'crownOverMm', 'straightedge', true)}
                    {length(7, 'cornerRadiusMm', 'corner radius', true)}
                    <td className="text-center" style={{ width: 44 }}>
                      <input
                        data-cell={`${row}:8`}
                        type="checkbox"
                        aria-label={`Wrap ${p.name}`}
                        style={{ width: 'auto' }}
                        checked={p.wrap}
                        onChange={(e) =>
                          edit((plan) => changePanel(plan, p.id, (was) => ({ ...was, wrap: e.target.checked })))
                        }
                      />
                    </td>
                    <td style={{ width: 34 }}>
                      <button
                        type="button"
                        className="btn btn-link btn-sm p-1"
                        aria-label={`Remove ${p.name}`}
                        tabIndex={-1}
                        onClick={() => edit((plan) => removePanel(plan, p.id))}
                      >
                        ×
                      </button>
                    </td>
                  </tr>
                )
              })}
              <tr>
                <td colSpan={10}>
                  <input
                    data-cell={`${shown.length}:0`}
                    type="text"
                    aria-label="Name of a new panel"
                    placeholder={
                      plan.panels.length === 0
                        ? 'Type the first panel: bonnet, then Enter'
                        : 'New panel: its name, then Enter'
                    }
                    value={name}
                    maxLength={120}
                    onChange={(e) => setName(e.target.value)}
                    onKeyDown={(e) => {
                      if (e.key !== 'Enter' || name.trim() === '') return
                      e.preventDefault()
                      e.stopPropagation()
                      add()
                    }}
                  />
                </td>
              </tr>
            </tbody>
          </table>
          {plan.panels.length > 0 && shown.length === 0 && <p className="m-2">No panel matches “{wanted}”.</p>}
        </div>
        {plan.panels.some((p) => p.assumed.length > 0) && (
          <p className="label mt-1 mb-0">Hatched cells are assumed until they are taped.</p>
        )}
        {current && <PanelSheet key={current.id} panel={current} />}
      </fieldset>
    </>
  )
}
