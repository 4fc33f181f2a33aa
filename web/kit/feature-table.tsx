'use client'

import { X } from 'react-bootstrap-icons'
import { DateField } from './date-field'
import { memo, type ReactNode } from 'react'
import Button from 'react-bootstrap/Button'
import { WordSelect } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import './grid.scss'

interface Common<T> {
  key: keyof T & string
  label: string
  width?: number
}
/** One column of a small table of like things: what it holds, and how it is typed. */
export type Column<T> = Common<T> &
  (
    | { kind: 'text'; max?: number; required?: boolean }
    | { kind: 'length'; max: number; min?: number; optional?: boolean }
    | { kind: 'number'; max: number; min?: number; optional?: boolean; digits?: number }
    | { kind: 'word'; list: string; none?: string; without?: readonly string[] }
    | { kind: 'flag' }
    | { kind: 'choice'; options: Options; none?: string }
    | { kind: 'date' }
  )

interface RowsProps<T> {
  columns: readonly Column<T>[]
  fmt: Formatter
  onRows: (change: (rows: readonly T[]) => T[]) => void
  extra?: ((row: T) => ReactNode) | undefined
  /** Rows are not taken away by hand. */
  fixed?: boolean
}

/**
 * A table of like things with a row for each, all of it typed in place; rows come and go by buttons. A row is drawn anew
 * where something of it changed: `columns`, `onRows` and `extra` of a long table are the same ones each time.
 */
export function FeatureTable<T extends { id: string }>({
  rows,
  columns,
  fmt,
  onRows,
  make,
  add,
  naming,
  assumed,
  extra,
  extraHead = 'More',
  fixed = false,
}: RowsProps<T> & {
  rows: readonly T[]
  /** A new row; left out where rows are not added by hand. */
  make?: () => T
  add?: string
  /** How a row is called in the labels of its fields. */
  naming: (row: T, index: number) => string
  assumed?: (row: T, key: string) => boolean
  extraHead?: string
}) {
  return (
    <>
      {rows.length > 0 && (
        <div className="scroll-x">
          <table className="tape-grid mb-2">
            <thead>
              <tr>
                {columns.map((c) => (
                  <th key={c.key} scope="col">
                    {c.label}
                  </th>
                ))}
                {extra && <th scope="col">{extraHead}</th>}
                {!fixed && (
                  <th scope="col">
                    <span className="visually-hidden">Remove</span>
                  </th>
                )}
              </tr>
            </thead>
            <tbody>
              {rows.map((row, i) => (
                <KeptRow
                  key={row.id}
                  row={row}
                  name={naming(row, i)}
                  assumed={columns.flatMap((c) => (assumed?.(row, c.key) ? [c.key] : [])).join(' ')}
                  columns={columns}
                  fmt={fmt}
                  onRows={onRows}
                  extra={extra}
                  fixed={fixed}
                />
              ))}
            </tbody>
          </table>
        </div>
      )}
      {make && (
        <Button variant="outline-primary" size="sm" onClick={() => onRows((all) => [...all, make()])}>
          {add}
        </Button>
      )}
    </>
  )
}

interface RowProps<T> extends RowsProps<T> {
  row: T
  name: string
  /** Keys of the columns that hold something assumed, with a space between. */
  assumed: string
}
function Row<T extends { id: string }>({ row, name, assumed, columns, fmt, onRows, extra, fixed }: RowProps<T>) {
  const set = (part: Partial<T>) => onRows((all) => all.map((r) => (r.id === row.id ? { ...r, ...part } : r)))
  const isAssumed = (key: string) => assumed.split(' ').includes(key)
  return (
    <tr>
      {columns.map((c) => (
        <td key={c.key} data-assumed={isAssumed(c.key)} style={{ minWidth: c.width ?? (c.kind === 'text' ? 110 : 64) }}>
          <Cell
            row={row}
            column={c}
            label={`${name}, ${c.label.toLowerCase()}`}
            fmt={fmt}
            confirms={isAssumed(c.key)}
            set={(v) => set({ [c.key]: v } as Partial<T>)}
          />
        </td>
      ))}
      {extra && <td className="px-1">{extra(row)}</td>}
      {!fixed && (
        <td style={{ width: 34 }}>
          <Button
            variant="link"
            size="sm"
            className="p-1"
            aria-label={`Remove ${name}`}
            onClick={() => onRows((all) => all.filter((r) => r.id !== row.id))}
          >
            <X aria-hidden />
          </Button>
        </td>
      )}
    </tr>
  )
}
// `memo` forgets that what the rows hold is of one type.
const KeptRow = memo(Row) as typeof Row

type Options = readonly (readonly [string, string])[]
const ChoiceOptions = memo(function ChoiceOptions({ options, none }: { options: Options; none: string | undefined }) {
  return (
    <>
      {none !== undefined && <option value="">{none}</option>}
      {options.map(([id, name]) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </>
  )
})

function Cell<T>({
  row,
  column: c,
  label,
  fmt,
  confirms,
  set,
}: {
  row: T
  column: Column<T>
  label: string
  fmt: Formatter
  confirms: boolean
  set: (value: unknown) => void
}) {
  const value = row[c.key] as unknown
  switch (c.kind) {
    case 'text':
      return (
        <input
          type="text"
          aria-label={label}
          value={String(value ?? '')}
          maxLength={c.max ?? 120}
          onChange={(e) => (!c.required || e.target.value.trim() !== '') && set(e.target.value)}
        />
      )
    case 'length':
      return (
        <LengthInput
          confirms={confirms}
          aria-label={label}
          mm={value as number | null}
          unit={fmt.units.lengthUnit}
          format={(mm) => fmt.length(mm).text}
          {...(c.min === undefined ? {} : { min: c.min })}
          max={c.max}
          optional={c.optional ?? false}
          onValue={(mm) => set(mm ?? (c.optional ? null : value))}
        />
      )
    case 'number':
      return (
        <NumberInput
          aria-label={label}
          value={value as number | null}
          {...(c.min === undefined ? {} : { min: c.min })}
          max={c.max}
          digits={c.digits ?? 0}
          optional={c.optional ?? false}
          onValue={(v) => set(v ?? (c.optional ? null : value))}
        />
      )
    case 'word':
      return (
        <WordSelect
          list={c.list}
          locale={fmt.units.locale}
          {...(c.none === undefined ? {} : { none: c.none })}
          {...(c.without ? { without: c.without } : {})}
          aria-label={label}
          value={String(value ?? '')}
          onCode={(code) => set(code === '' ? null : code)}
        />
      )
    case 'choice':
      return (
        <select aria-label={label} value={String(value ?? '')} onChange={(e) => set(e.target.value || null)}>
          <ChoiceOptions options={c.options} none={c.none} />
        </select>
      )
    case 'date':
      return (
        <DateField
          label={label}
          value={typeof value === 'string' ? value : null}
          locale={fmt.units.locale}
          onValue={set}
        />
      )
    case 'flag':
      return (
        <input
          type="checkbox"
          style={{ width: 'auto', margin: '0 0.5rem' }}
          aria-label={label}
          checked={Boolean(value)}
          onChange={(e) => set(e.target.checked)}
        />
      )
  }
}
