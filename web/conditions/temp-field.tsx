'use client'

import Form from 'react-bootstrap/Form'
import { useState } from 'react'
import { parseTemp } from '@/core/kit/units'
import { useJob } from '@/web/job/job-state'
import { faultText } from '@/web/words/faults'

/** A temperature in the member's unit; empty is none. */
export function TempField({
  id,
  value,
  onValue,
  label,
}: {
  id: string
  value: number | null
  onValue: (c: number | null) => void
  label?: string
}) {
  const { fmt } = useJob('fmt')
  const [draft, setDraft] = useState<string | null>(null)
  const parsed = draft === null || draft.trim() === '' ? null : parseTemp(draft, fmt.units.tempUnit)
  const bad = parsed !== null && (!parsed.ok || parsed.value < -40 || parsed.value > 90)
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
          if (read.ok && read.value >= -40 && read.value <= 90) onValue(read.value)
        }}
        onBlur={() => !bad && setDraft(null)}
      />
      {bad && (
        <span id={`${id}-fault`} className="text-danger d-block small" role="alert">
          {parsed.ok ? 'Between −40 and 90 °C.' : faultText(parsed.error)}
        </span>
      )}
    </>
  )
}
