'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import type { SectionMarks } from '@/web/charts/section-marks'
import { LengthInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'

export type MeasureId = SectionMarks['measures'][number]['id']
const TYPED: Record<MeasureId, { name: string; most: number }> = {
  // Wider than a gap can be, it is a span.
  gap: { name: 'Gap', most: 5000 },
  leave: { name: 'Left after the cut', most: 120 },
}

/** The measures of a section where they are drawn: pressed, each becomes a field. Lies over the drawing. */
export function SectionMeasures({
  marks,
  fmt,
  onMeasure,
}: {
  marks: SectionMarks
  fmt: Formatter
  onMeasure: (id: MeasureId, mm: number | null) => void
}) {
  const [open, setOpen] = useState<MeasureId | null>(null)
  const { view } = marks
  const mm = (v: number) => fmt.text(fmt.length(v))
  return marks.measures.map((m) => {
    const { name, most } = TYPED[m.id]
    const place = {
      left: `${((m.label.x - view.x) / view.w) * 100}%`,
      top: `${((m.label.y - view.y) / view.h) * 100}%`,
    }
    return (
      <span
        key={m.id}
        className="section-measure"
        style={place}
        onBlur={(e) => {
          // What is wrong stays, and says why.
          const isWrong = e.currentTarget.querySelector('[aria-invalid]') !== null
          if (!isWrong && !e.currentTarget.contains(e.relatedTarget)) setOpen(null)
        }}
        onKeyDown={(e) => {
          if (e.key === 'Escape' || e.key === 'Enter') setOpen(null)
        }}
      >
        {open === m.id ? (
          <LengthInput
            className="form-control form-control-sm"
            aria-label={`${name} in the drawing`}
            autoFocus
            mm={m.mm}
            optional
            min={0}
            max={most}
            unit={fmt.units.lengthUnit}
            format={(v) => fmt.length(v).text}
            onValue={(v) => onMeasure(m.id, v)}
          />
        ) : (
          <Button
            size="sm"
            variant="outline-primary"
            aria-label={`${name}: ${mm(m.mm)}. Change it`}
            onClick={() => setOpen(m.id)}
          >
            {m.id === 'gap' && marks.broken ? `${mm(m.mm)}, drawn shorter` : mm(m.mm)}
          </Button>
        )}
      </span>
    )
  })
}
