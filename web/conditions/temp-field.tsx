'use client'

import Form from 'react-bootstrap/Form'
import { useState } from 'react'
import { parseTemp } from '@/core/kit/units'
import { useJob } from '@/web/job/job-state'
import { faultText } from '@/web/words/faults'

/** What no vehicle and no surface in a shop is colder or hotter than, °C. Assumed. */
const WIDEST_C = { min: -40, max: 90 }

/** A temperature in the member's unit; empty is none. What lies outside of the bounds is said, and not handed on. */
export function TempField({
  id,
  value,
  onValue,
  label,
  bounds = WIDEST_C,
}: {
  id: string
  value: number | null
  onValue: (c: number | null) => void
  label?: string
  /** °C, both included. */
  bounds?: { min: number; max: number }
}) {
  const { fmt } = useJob('fmt')
  const [draft, setDraft] = useState<string | null>(null)
  const parsed = draft === null || draft.trim() === '' ? null : parseTemp(draft, fmt.units.tempUnit)
  const within = (c: number) => c >= bounds.min && c <= bounds.max
  const bad = parsed !== null && (!parsed.ok || !within(parsed.value))
  return (
    <>
      <Form.Control
        id={id}
        aria-describedby={bad ? `${id}-fault` : undefined}
        className="num"
        inputMode="decimal"
        autoComplete="off"
        aria-label={label}
        aria-invalid={bad || undefined}
        value={draft ?? (value === null ? '' : fmt.temp(value).text)}
        onFocus={(e) => e.target.select()}
        onChange={(e) => {
          setDraft(e.target.value)
          if (e.target.value.trim() === '') return onValue(null)
          const read = parseTemp(e.target.value, fmt.units.tempUnit)
          if (read.ok && within(read.value)) onValue(read.value)
        }}
        onBlur={() => !bad && setDraft(null)}
      />
      {bad && (
        <span id={`${id}-fault`} className="text-danger d-block small" role="alert">
          {parsed.ok
            ? `Between ${fmt.temp(bounds.min).text} and ${fmt.text(fmt.temp(bounds.max))}.`
            : faultText(parsed.error)}
        </span>
      )}
    </>
  )
}
