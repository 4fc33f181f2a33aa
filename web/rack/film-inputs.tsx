'use client'

import { useState } from 'react'
import Form from 'react-bootstrap/Form'
import { parseLength, parseTemp } from '@/core/kit/units'
import { NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/faults'

/** Several lengths in one field, parted by semicolons. */
export function ListInput({
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

export function TempInput({
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

export function SpanInput({
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
        <span className="text-danger small" role="alert">
          {faultText({ code: 'min_over_max' })}
        </span>
      )}
    </span>
  )
}
