'use client'

import { memo } from 'react'
import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import { SIDES } from '@/core/model/vehicle/kinds'
import type { Panel } from '@/core/model/vehicle/schema'
import type { Plan } from '@/core/model/plan/schema'
import { WordSelect } from '@/web/kit/fields'
import { LengthInput } from '@/web/kit/quantity-input'
import { word } from '@/web/words/names'
import type { Formatter } from '@/web/words/format'
import { useHeldFault } from '@/web/job/held'
import { changePanel, removePanel } from './edit-panel'
import { FIRST_SIZE, SIZES, sizeOf, withSize, WRAP_COLUMN } from './grid-columns'

/** One panel in the measuring sheet: drawn anew when it is another, not when a panel beside it is typed. */
export const GridRow = memo(function GridRow({
  p,
  row,
  isPicked,
  onPick,
  firstMarked,
  lastMarked,
  edit,
  fmt,
  mayRemove,
}: {
  p: Panel
  row: number
  isPicked: boolean
  onPick: (id: string) => void
  /** Columns that are marked; the last before the first where none is. */
  firstMarked: number
  lastMarked: number
  edit: (change: (plan: Plan) => Plan) => void
  fmt: Formatter
  mayRemove: boolean
}) {
  const heldFault = useHeldFault()
  const { lengthUnit: unit, locale } = fmt.units
  const format = (mm: number) => fmt.length(mm).text
  const isMarked = (column: number) => column >= firstMarked && column <= lastMarked
  return (
    <tr id={p.id} data-off={!p.wrap} data-picked={isPicked} onFocus={() => onPick(p.id)}>
      <td style={{ minWidth: 150 }} data-marked={isMarked(0)}>
        <Form.Control
          data-cell={`${row}:0`}
          type="text"
          aria-label={`Name of ${p.name}`}
          value={p.name}
          maxLength={120}
          onChange={(e) =>
            e.target.value.trim() !== '' &&
            edit((plan) => changePanel(plan, p.id, (was) => ({ ...was, name: e.target.value })))
          }
        />
      </td>
      <td style={{ minWidth: 108 }} data-marked={isMarked(1)}>
        <WordSelect
          list="panel"
          locale={locale}
          data-cell={`${row}:1`}
          aria-label={`${p.name}, kind`}
          value={p.kind}
          onCode={(code) => edit((plan) => changePanel(plan, p.id, (was) => ({ ...was, kind: code })))}
        />
      </td>
      <td style={{ minWidth: 72 }} data-marked={isMarked(2)}>
        <Form.Select
          data-cell={`${row}:2`}
          aria-label={`${p.name}, side`}
          value={p.side}
          onChange={(e) =>
            edit((plan) => changePanel(plan, p.id, (was) => ({ ...was, side: e.target.value as typeof p.side })))
          }
        >
          {SIDES.map((s) => (
            <option key={s} value={s}>
              {word('side', s, locale)}
            </option>
          ))}
        </Form.Select>
      </td>
      {SIZES.map(({ field, label, max, optional }, i) => (
        <td
          key={field}
          data-assumed={p.assumed.includes(field)}
          data-marked={isMarked(FIRST_SIZE + i)}
          style={{ position: 'relative', minWidth: 58 }}
        >
          <LengthInput
            data-cell={`${row}:${FIRST_SIZE + i}`}
            heldFault={heldFault(`panels/${p.id}/${field}`)}
            aria-label={`${p.name}, ${label}`}
            mm={sizeOf(p, field)}
            unit={unit}
            format={format}
            optional={optional}
            confirms={p.assumed.includes(field)}
            max={max}
            onValue={(mm) => edit((plan) => changePanel(plan, p.id, (was) => withSize(was, field, mm)))}
          />
        </td>
      ))}
      <td className="text-center" style={{ width: 44 }} data-marked={isMarked(WRAP_COLUMN)}>
        <Form.Check.Input
          data-cell={`${row}:${WRAP_COLUMN}`}
          type="checkbox"
          aria-label={`Wrap ${p.name}`}
          style={{ width: 'auto' }}
          checked={p.wrap}
          onChange={(e) => edit((plan) => changePanel(plan, p.id, (was) => ({ ...was, wrap: e.target.checked })))}
        />
      </td>
      <td style={{ width: 34 }}>
        <Button
          variant="link"
          size="sm"
          className="p-1"
          aria-label={`Remove ${p.name}`}
          tabIndex={-1}
          disabled={!mayRemove}
          onClick={() => edit((plan) => removePanel(plan, p.id))}
        >
          ×
        </Button>
      </td>
    </tr>
  )
})
