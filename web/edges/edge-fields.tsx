'use client'

import Form from 'react-bootstrap/Form'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import { edgeCut, type EdgeSetting } from '@/core/model/edge/edge-leave'
import type { FilmSheet } from '@/core/model/film/schema'
import { CUT_SIDES, TIGHTNESS, WIDEST_GAP_MM, type Edge, type Panel } from '@/core/model/vehicle/schema'
import { LengthInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

const GRABS = ['low', 'usual', 'high'] as const
const OPENS = ['panel', 'neighbour', 'none'] as const

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
  const choice = <T extends string>(text: string): T | null => (text === '' ? null : (text as T))
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
    <fieldset disabled={disabled} className="edge-fields" aria-label="This edge">
      {length(
        'Gap',
        'gapMm',
        0,
        WIDEST_GAP_MM,
        edge.spanMm === null ? `usual: ${fmt.text(fmt.length(decided.gapMm))}` : '',
      )}
      {length('Span', 'spanMm', WIDEST_GAP_MM + 1, 5000, 'none')}
      <label className="edge-field">
        <span className="label">Seal</span>
        <Form.Select
          size="sm"
          aria-label="Seal"
          value={edge.tightness ?? ''}
          onChange={(e) => onEdge({ tightness: choice<(typeof TIGHTNESS)[number]>(e.target.value) })}
        >
          <option value="">by its width</option>
          {TIGHTNESS.map((t) => (
            <option key={t} value={t}>
              {word('tightness', t)}
            </option>
          ))}
        </Form.Select>
      </label>
      <label className="edge-field">
        <span className="label">Opens</span>
        <Form.Select
          size="sm"
          aria-label="Opens"
          value={edge.opens ?? ''}
          onChange={(e) => onEdge({ opens: choice<(typeof OPENS)[number]>(e.target.value) })}
        >
          <option value="">as usual</option>
          {OPENS.map((o) => (
            <option key={o} value={o}>
              {word('opens', o, fmt.units.locale)}
            </option>
          ))}
        </Form.Select>
      </label>
      <label className="edge-field">
        <span className="label">Grabbed</span>
        <Form.Select
          size="sm"
          aria-label="Grabbed"
          value={edge.grab}
          onChange={(e) => onEdge({ grab: e.target.value as Edge['grab'] })}
        >
          {GRABS.map((g) => (
            <option key={g} value={g}>
              {word('grab', g)}
            </option>
          ))}
        </Form.Select>
      </label>
      <label className="edge-field wide">
        <span className="label">Cut</span>
        <Form.Select
          size="sm"
          aria-label="Cut"
          value={edge.cutAs ?? ''}
          onChange={(e) => onEdge({ cutAs: choice<(typeof CUT_SIDES)[number]>(e.target.value) })}
        >
          <option value="">by the rules: {would(null)}</option>
          {CUT_SIDES.filter((c) => c !== 'none').map((c) => (
            <option key={c} value={c}>
              {would(c)}
            </option>
          ))}
        </Form.Select>
      </label>
      {length('Left', 'leaveMm', 0, 120, `by the rules: ${fmt.text(fmt.length(decided.leaveMm))}`)}
    </fieldset>
  )
}
