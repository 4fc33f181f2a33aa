'use client'

import { useState } from 'react'
import Form from 'react-bootstrap/Form'
import type { FilmSheet } from '@/core/model/film/schema'
import { parseLength, parseTemp } from '@/core/kit/units'
import { WordSelect } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/faults'
import type { FilmField } from './film-fields'
import { Warranty } from './warranty-rows'

/** One field of a film's sheet, typed in this member's units. */
export function FieldInput({
  field: f,
  sheet,
  set,
  fmt,
}: {
  field: FilmField
  sheet: FilmSheet
  set: (part: Partial<FilmSheet>) => void
  fmt: Formatter
}) {
  const unit = fmt.units.lengthUnit
  const format = (mm: number) => fmt.length(mm).text
  const cls = 'form-control form-control-sm'
  switch (f.kind) {
    case 'length':
      return f.path ? (
        <LengthInput
          className={cls}
          aria-label={f.label}
          mm={sheet.soldBy.minimumMm}
          unit={unit}
          format={format}
          max={f.max}
          optional
          onValue={(mm) => set({ soldBy: { ...sheet.soldBy, minimumMm: mm ?? 0 } })}
        />
      ) : (
        <LengthInput
          className={cls}
          aria-label={f.label}
          mm={sheet[f.field] as number}
          unit={unit}
          format={format}
          max={f.max}
          optional
          onValue={(mm) => set({ [f.field]: mm ?? 0 })}
        />
      )
    case 'lengths':
      return (
        <ListInput
          label={f.label}
          values={sheet[f.field] as number[]}
          fmt={fmt}
          max={f.max}
          onValues={(v) => set({ [f.field]: v })}
        />
      )
    case 'percent':
      return f.path ? (
        <NumberInput
          className={cls}
          aria-label={`${f.label}, per cent`}
          value={sheet.preStretchMax[f.path === 'preStretchMax.cold' ? 'cold' : 'warm']}
          scale={100}
          digits={1}
          max={f.max}
          min={0}
          optional
          onValue={(v) =>
            set({
              preStretchMax: { ...sheet.preStretchMax, [f.path === 'preStretchMax.cold' ? 'cold' : 'warm']: v ?? 0 },
            })
          }
        />
      ) : (
        <NumberInput
          className={cls}
          aria-label={`${f.label}, per cent`}
          value={sheet[f.field] as number}
          scale={100}
          digits={1}
          max={f.max}
          min={0}
          optional
          onValue={(v) => set({ [f.field]: v ?? 0 })}
        />
      )
    case 'number':
      return f.path ? (
        <NumberInput
          className={cls}
          aria-label={f.label}
          value={sheet.soldBy.price}
          digits={2}
          max={f.max}
          optional
          onValue={(v) => set({ soldBy: { ...sheet.soldBy, price: v ?? 0 } })}
        />
      ) : (
        <NumberInput
          className={cls}
          aria-label={`${f.label}${f.unit ? `, ${f.unit}` : ''}`}
          value={sheet[f.field] as number | null}
          max={f.max}
          optional
          onValue={(v) => set({ [f.field]: v ?? (f.optional ? null : 0) })}
        />
      )
    case 'span':
      return (
        <SpanInput
          label={f.label}
          unit={f.unit}
          value={sheet[f.field] as { min: number; max: number } | null}
          optional={f.optional ?? false}
          fmt={fmt}
          onValue={(v) => set({ [f.field]: v })}
        />
      )
    case 'temp':
      return (
        <TempInput label={f.label} value={sheet[f.field] as number} fmt={fmt} onValue={(c) => set({ [f.field]: c })} />
      )
    case 'flag':
      return (
        <Form.Check
          type="checkbox"
          aria-label={f.label}
          checked={sheet[f.field] as boolean}
          onChange={(e) => set({ [f.field]: e.target.checked })}
        />
      )
    case 'word':
      return f.path ? (
        <WordSelect
          list={f.list}
          locale={fmt.units.locale}
          className="form-select form-select-sm"
          aria-label={f.label}
          value={sheet.soldBy.unit}
          onCode={(u) => set({ soldBy: { ...sheet.soldBy, unit: u } })}
        />
      ) : (
        <WordSelect
          list={f.list}
          className="form-select form-select-sm"
          aria-label={f.label}
          value={sheet.edgeOrder}
          onCode={(edgeOrder) => set({ edgeOrder })}
        />
      )
    case 'warranty':
      return <Warranty sheet={sheet} set={set} />
    case 'text':
      return (
        <Form.Control
          as="textarea"
          size="sm"
          aria-label={f.label}
          rows={2}
          maxLength={2000}
          value={sheet.care}
          onChange={(e) => set({ care: e.target.value })}
        />
      )
  }
}

/** Several lengths in one field, parted by semicolons. */
function ListInput({
  label,
  values,
  fmt,
  max,
  onValues,
}: {
  label: string
  values: number[]
  fmt: Formatter
  max: number
  onValues: (v: number[]) => void
}) {
  const [draft, setDraft] = useState<string | null>(null)
  const read = (t: string) => t.split(';').map((x) => parseLength(x, fmt.units.lengthUnit))
  const good = (t: string) => read(t).every((r) => r.ok && r.value > 0 && r.value <= max)
  const bad = draft !== null && !good(draft)
  return (
    <span>
      <Form.Control
        size="sm"
        className="num"
        aria-label={`${label}, parted by semicolons`}
        aria-invalid={bad || undefined}
        value={draft ?? values.map((v) => fmt.length(v).text).join('; ')}
        onChange={(e) => {
          setDraft(e.target.value)
          if (good(e.target.value)) onValues(read(e.target.value).flatMap((r) => (r.ok ? [r.value] : [])))
        }}
        onBlur={() => !bad && setDraft(null)}
      />
      {bad && (
        <span className="text-danger small">
          Lengths parted by semicolons, each at most {fmt.text(fmt.longLength(max))}.
        </span>
      )}
    </span>
  )
}

function TempInput({
  label,
  value,
  fmt,
  onValue,
}: {
  label: string
  value: number | null
  fmt: Formatter
  onValue: (c: number) => void
}) {
  const [draft, setDraft] = useState<string | null>(null)
  const bad = draft !== null && !parseTemp(draft, fmt.units.tempUnit).ok
  return (
    <Form.Control
      size="sm"
      className="num"
      aria-label={`${label}, °${fmt.units.tempUnit}`}
      aria-invalid={bad || undefined}
      value={draft ?? (value === null ? '' : fmt.temp(value).text)}
      onChange={(e) => {
        setDraft(e.target.value)
        const t = parseTemp(e.target.value, fmt.units.tempUnit)
        if (t.ok) onValue(t.value)
      }}
      onBlur={() => !bad && setDraft(null)}
    />
  )
}

function SpanInput({
  label,
  unit,
  value,
  optional,
  fmt,
  onValue,
}: {
  label: string
  unit: 'C' | 'h'
  value: { min: number; max: number } | null
  optional: boolean
  fmt: Formatter
  onValue: (v: { min: number; max: number } | null) => void
}) {
  const ends = ['min', 'max'] as const
  const from = value ?? { min: 0, max: 0 }
  return (
    <span>
      <span className="d-flex gap-1 align-items-center">
        {optional && (
          <Form.Check
            type="checkbox"
            aria-label={`${label}, needed`}
            checked={value !== null}
            onChange={(e) => onValue(e.target.checked ? { min: 24, max: 48 } : null)}
          />
        )}
        {value !== null &&
          ends.map((end) =>
            unit === 'C' ? (
              <TempInput
                key={end}
                label={`${label} ${end === 'min' ? 'from' : 'to'}`}
                value={from[end]}
                fmt={fmt}
                onValue={(c) => onValue({ ...from, [end]: c })}
              />
            ) : (
              <NumberInput
                key={end}
                className="form-control form-control-sm"
                aria-label={`${label} ${end === 'min' ? 'from' : 'to'}, hours`}
                value={from[end]}
                max={336}
                optional
                onValue={(v) => onValue({ ...from, [end]: v ?? 0 })}
              />
            ),
          )}
      </span>
      {value && value.min > value.max && (
        <span className="text-danger small">{faultText({ code: 'min_over_max' })}</span>
      )}
    </span>
  )
}
