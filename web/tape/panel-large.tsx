'use client'

import { PlainButton } from '@/web/kit/plain-button'
import { useMemo, useState } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import { withAnswer, withMeasure, type TapeQuestion } from '@/core/stages/tape/tape-answer'
import { MAX_PANEL_MM } from '@/core/model/vehicle/kinds'
import type { Panel } from '@/core/model/vehicle/schema'
import { panelMarks } from '@/web/charts/panel-marks'
import { LengthInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { changePanel } from './edit-panel'
import { word } from '@/web/words/names'
import { questionName } from './question-words'
import { DimensionMark } from './dimension-mark'
import { PanelShape } from './panel-shape'
import './tape.scss'

/** A panel opened large, all its measures on it; each is pressed, and typed where it stands. */
export function PanelLarge({
  panel,
  edit,
  fmt,
  disabled = false,
  only,
}: {
  panel: Panel
  edit: (change: (plan: Plan) => Plan) => void
  fmt: Formatter
  disabled?: boolean
  /** Draw this one measure alone, for a question about it. */
  only?: string
}) {
  const [open, setOpen] = useState<string | null>(null)
  const m = useMemo(() => panelMarks(panel, only), [panel, only])
  const u = m.unit
  const text = (q: TapeQuestion) => {
    const v = fmt.text(fmt.length(q.mm))
    if (q.ask === 'crown' || q.ask === 'crown_down') return `crown ${v} under ${fmt.text(fmt.length(q.overMm ?? 0))}`
    if (q.ask === 'corner_radius' || q.ask === 'nose' || q.ask === 'wraps')
      return `${q.ask === 'nose' ? 'nose ' : q.ask === 'wraps' ? 'ends ' : ''}r ${v}`
    if (q.ask === 'seal') return q.words?.chosen ? `seal, ${word('tightness', q.words.chosen)}` : 'seal'
    return q.ask === 'recess_depth' ? `${v} deep` : q.ask === 'gap' ? `gap ${v}` : v
  }
  const size = m.sizes.find((z) => z.key === open)
  const typed = m.dimensions.find((d) => d.question.field === open)
  const asked = size
    ? {
        name: size.name,
        at: size.at,
        mm: size.mm,
        confirms: true,
        zero: false,
        min: size.key.endsWith('riseMm') ? -MAX_PANEL_MM : undefined,
        take: (p: Panel, mm: number) => withMeasure(p, size.key, mm),
      }
    : typed
      ? {
          name: questionName(typed.question, fmt),
          at: typed.at,
          mm: typed.question.mm,
          confirms: typed.question.assumed,
          zero: typed.question.ask.startsWith('crown'),
          min: undefined,
          take: (p: Panel, mm: number) => withAnswer(p, typed.question.field, mm, typed.question.overMm),
        }
      : null
  const percent = (v: number, from: number, size: number) => `${((v - from) / size) * 100}%`
  return (
    <div className="panel-large" style={{ aspectRatio: `${m.view.w} / ${m.view.h}` }}>
      <svg
        viewBox={`${m.view.x} ${m.view.y} ${m.view.w} ${m.view.h}`}
        role="group"
        aria-label={`${panel.name} with its measures`}
      >
        <defs>
          <pattern id={`lg-${panel.id}`} width={100} height={100} patternUnits="userSpaceOnUse">
            <path d="M100 0H0V100" fill="none" stroke="var(--rule)" strokeWidth={u / 22} />
          </pattern>
        </defs>
        <rect x={m.view.x} y={m.view.y} width={m.view.w} height={m.view.h} fill={`url(#lg-${panel.id})`} />
        <PanelShape m={m} u={u} />
        {m.dimensions.map((d) => (
          <DimensionMark
            key={d.question.field}
            dimension={d}
            unit={u}
            label={text(d.question)}
            alone={only !== undefined}
          />
        ))}
        {m.sizes.map((z) => (
          <text
            key={z.key}
            className="dimension-size"
            aria-hidden
            transform={`translate(${z.at.x} ${z.at.y}) rotate(${z.turnDeg})`}
            textAnchor="middle"
            fontSize={u * 0.66}
          >
            {fmt.length(z.mm).text}
          </text>
        ))}
      </svg>
      {m.dimensions.map((d) => (
        <PlainButton
          key={d.question.field}
          className="dimension-hit"
          disabled={disabled}
          aria-label={`${questionName(d.question, fmt)}, ${text(d.question)}${d.question.assumed ? ', assumed' : ''}: type it`}
          style={{
            left: percent(d.at.x, m.view.x, m.view.w),
            top: percent(d.at.y, m.view.y, m.view.h),
            ...(d.turnDeg === -90 ? { width: 24, height: 56 } : {}),
          }}
          onClick={() => setOpen(d.question.field)}
        />
      ))}
      {m.sizes.map((z) => (
        <PlainButton
          key={z.key}
          className="dimension-hit small"
          disabled={disabled}
          aria-label={`${z.name}, ${fmt.text(fmt.length(z.mm))}: type it`}
          style={{ left: percent(z.at.x, m.view.x, m.view.w), top: percent(z.at.y, m.view.y, m.view.h) }}
          onClick={() => setOpen(z.key)}
        />
      ))}
      {asked && (
        <div
          className="dimension-typed"
          style={{ left: percent(asked.at.x, m.view.x, m.view.w), top: percent(asked.at.y, m.view.y, m.view.h) }}
          onKeyDown={(e) => {
            if (e.key === 'Enter' || e.key === 'Escape') {
              e.preventDefault()
              setOpen(null)
            }
          }}
          onBlur={(e) => !e.currentTarget.contains(e.relatedTarget) && setOpen(null)}
        >
          <span className="label">{asked.name}</span>
          <LengthInput
            autoFocus
            aria-label={`${panel.name}, ${asked.name}`}
            className="form-control form-control-sm"
            mm={asked.mm}
            unit={fmt.units.lengthUnit}
            format={(mm) => fmt.length(mm).text}
            confirms={asked.confirms}
            optional={asked.zero}
            {...(asked.min === undefined ? {} : { min: asked.min })}
            max={MAX_PANEL_MM}
            onValue={(mm) => edit((p) => changePanel(p, panel.id, (was) => asked.take(was, mm ?? 0)))}
          />
        </div>
      )}
    </div>
  )
}
