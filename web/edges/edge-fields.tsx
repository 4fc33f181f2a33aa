'use client'

import Form from 'react-bootstrap/Form'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import { cutGoes } from '@/core/model/edge/cut-goes'
import { edgeCut, type EdgeSetting } from '@/core/model/edge/edge-leave'
import type { FilmSheet } from '@/core/model/film/schema'
import { CUT_SIDES, GRABS, OPENS, TIGHTNESS, WIDEST_GAP_MM } from '@/core/model/vehicle/kinds'
import type { Edge, Panel } from '@/core/model/vehicle/schema'
import { LengthInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

/** What is known or chosen of one edge, typed in place; each other way says what it would leave. */
export function EdgeFields({
  edge,
  panel,
  film,
  setting,
  decided,
  fmt,
  disabled,
  onEdge,
}: {
  edge: Edge
  panel: Panel
  film: FilmSheet
  setting: EdgeSetting
  decided: EdgeDecision
  fmt: Formatter
  disabled: boolean
  onEdge: (part: Partial<Edge>) => void
}) {
  const mm = (v: number) => fmt.length(v).text
  const would = (cutAs: Edge['cutAs']) => {
    const { cut, leaveMm } = edgeCut({ ...edge, cutAs, leaveMm: null }, panel, film, setting)
    return `${word('cutSide', cut)}, ${fmt.text(fmt.length(leaveMm))} left`
  }
  const length = (label: string, key: 'gapMm' | 'spanMm' | 'leaveMm', min: number, max: number, hint: string) => (
    <label className="edge-field">
      <span className="label">{label}</span>
      <LengthInput
        className="form-control form-control-sm"
        aria-label={label}
        mm={edge[key]}
        optional
        unit={fmt.units.lengthUnit}
        format={mm}
        min={min}
        max={max}
        onValue={(v) => onEdge({ [key]: v })}
      />
      <small className="label">{edge[key] === null ? hint : ''}</small>
    </label>
  )
  return (
    <fieldset disabled={disabled} className="d-flex flex-wrap gap-2 mt-1 mb-2" aria-label="This edge">
      {length(
        'Gap',
        'gapMm',
        0,
        WIDEST_GAP_MM,
        edge.spanMm === null ? `usual: ${fmt.text(fmt.length(decided.gapMm))}` : '',
      )}
      {length('Span', 'spanMm', WIDEST_GAP_MM + 1, 5000, 'none')}
      <Choice
        label="Seal"
        value={edge.tightness}
        none="by its width"
        options={TIGHTNESS}
        name={(t) => word('tightness', t)}
        onPick={(tightness) => onEdge({ tightness })}
      />
      <Choice
        label="Opens"
        value={edge.opens}
        none="as usual"
        options={OPENS}
        name={(o) => word('opens', o, fmt.units.locale)}
        onPick={(opens) => onEdge({ opens })}
      />
      <Choice
        label="Grabbed"
        value={edge.grab}
        options={GRABS}
        name={(g) => word('grab', g)}
        onPick={(grab) => grab && onEdge({ grab })}
      />
      <Choice
        label="Cut"
        wide
        value={edge.cutAs}
        none={`by the rules: ${would(null)}`}
        options={CUT_SIDES.filter((c) => c !== 'none' && (cutGoes(edge.meets, c) || c === edge.cutAs))}
        name={would}
        onPick={(cutAs) => onEdge({ cutAs })}
      />
      {length('Left', 'leaveMm', 0, 120, `by the rules: ${fmt.text(fmt.length(decided.leaveMm))}`)}
    </fieldset>
  )
}

/** One of some words, or none of them where that has a name. */
export function Choice<T extends string>({
  label,
  wide = false,
  value,
  none,
  options,
  name,
  onPick,
}: {
  label: string
  wide?: boolean
  value: T | null
  none?: string
  options: readonly T[]
  name: (option: T) => string
  onPick: (option: T | null) => void
}) {
  return (
    <label className={wide ? 'edge-field wide' : 'edge-field'}>
      <span className="label">{label}</span>
      <Form.Select
        size="sm"
        aria-label={label}
        value={value ?? ''}
        onChange={(e) => onPick(options.find((o) => o === e.target.value) ?? null)}
      >
        {none !== undefined && <option value="">{none}</option>}
        {options.map((o) => (
          <option key={o} value={o}>
            {name(o)}
          </option>
        ))}
      </Form.Select>
    </label>
  )
}
