'use client'

import Form from 'react-bootstrap/Form'
import type { FilmSheet } from '@/core/model/film/schema'
import { WordSelect } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import { ListInput, SpanInput, TempInput } from '@/web/rack/film-inputs'
import type { Formatter } from '@/web/words/format'
import type { FilmField } from './film-fields'
import { Warranty } from './warranty-rows'

const CONTROL = 'form-control form-control-sm'
type Group = Record<string, unknown>

/** What a sheet has in one field; a field with a path is one part of a group, such as the price of what is sold. */
function valueOf(sheet: FilmSheet, field: FilmField): unknown {
  if (!('path' in field) || !field.path) return sheet[field.field]
  const [group, part] = field.path.split('.') as [keyof FilmSheet, string]
  return (sheet[group] as Group)[part]
}

/** The part of the sheet that changes when one field does. */
function changed(sheet: FilmSheet, field: FilmField, value: unknown): Partial<FilmSheet> {
  if (!('path' in field) || !field.path) return { [field.field]: value }
  const [group, part] = field.path.split('.') as [keyof FilmSheet, string]
  return { [group]: { ...(sheet[group] as Group), [part]: value } }
}

/** One field of a film's sheet, typed in this member's units. */
export function FieldInput({
  field,
  sheet,
  set,
  fmt,
}: {
  field: FilmField
  sheet: FilmSheet
  set: (part: Partial<FilmSheet>) => void
  fmt: Formatter
}) {
  const value = valueOf(sheet, field)
  const put = (to: unknown) => set(changed(sheet, field, to))
  const { label } = field
  switch (field.kind) {
    case 'length':
      return (
        <LengthInput
          className={CONTROL}
          aria-label={label}
          mm={value as number}
          unit={fmt.units.lengthUnit}
          format={(mm) => fmt.length(mm).text}
          max={field.max}
          optional
          onValue={(mm) => put(mm ?? 0)}
        />
      )
    case 'percent':
      return (
        <NumberInput
          className={CONTROL}
          aria-label={`${label}, per cent`}
          value={value as number}
          scale={100}
          digits={1}
          max={field.max}
          min={0}
          optional
          onValue={(fraction) => put(fraction ?? 0)}
        />
      )
    case 'number':
      return (
        <NumberInput
          className={CONTROL}
          aria-label={`${label}${field.unit ? `, ${field.unit}` : ''}`}
          value={value as number | null}
          {...(field.path ? { digits: 2 } : {})}
          max={field.max}
          optional
          onValue={(number) => put(number ?? (field.optional ? null : 0))}
        />
      )
    case 'lengths':
      return <ListInput label={label} values={value as number[]} fmt={fmt} max={field.max} onValues={put} />
    case 'span':
      return (
        <SpanInput
          label={label}
          unit={field.unit}
          value={value as { min: number; max: number } | null}
          optional={field.optional ?? false}
          fmt={fmt}
          onValue={put}
        />
      )
    case 'temp':
      return <TempInput label={label} value={value as number} fmt={fmt} onValue={put} />
    case 'flag':
      return (
        <Form.Check
          type="checkbox"
          aria-label={label}
          checked={value as boolean}
          onChange={(e) => put(e.target.checked)}
        />
      )
    case 'word':
      return (
        <WordSelect
          list={field.list}
          locale={fmt.units.locale}
          className="form-select form-select-sm"
          aria-label={label}
          value={value as string}
          onCode={put}
        />
      )
    case 'warranty':
      return <Warranty sheet={sheet} set={set} />
    case 'text':
      return (
        <Form.Control
          as="textarea"
          size="sm"
          aria-label={label}
          rows={2}
          maxLength={2000}
          value={value as string}
          onChange={(e) => put(e.target.value)}
        />
      )
  }
}
