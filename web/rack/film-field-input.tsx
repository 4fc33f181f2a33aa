'use client'

import { ListInput, TempInput, SpanInput } from '@/web/rack/film-inputs'

import Form from 'react-bootstrap/Form'
import type { FilmSheet } from '@/core/model/film/schema'
import { WordSelect } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
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
