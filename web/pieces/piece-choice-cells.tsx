'use client'

import Form from 'react-bootstrap/Form'
import type { FilmSheet } from '@/core/model/film/schema'
import { applyChange } from '@/core/model/plan/plan-change'
import type { PieceChoice } from '@/core/model/plan/schema'
import type { Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { preStretchGroups } from '@/web/pieces/pre-stretch-groups'

/** What may be chosen for one panel's pieces, a cell each: parts, pre-stretch, bleed. */
export function PieceChoiceCells({
  panel,
  choice,
  film,
}: {
  panel: Panel
  choice: PieceChoice
  film: FilmSheet | undefined
}) {
  const { plan, fmt, edit } = useJob('plan', 'fmt', 'edit')
  const set = (part: Partial<PieceChoice>) =>
    edit((p) => applyChange(p, { kind: 'piece', panelId: panel.id, set: part }))
  return (
    <>
      <td>
        <Form.Select
          size="sm"
          className="d-inline-block w-auto"
          aria-label={`${panel.name}, parts`}
          value={choice.parts}
          onChange={(e) => set({ parts: Number(e.target.value) })}
        >
          {[...new Set([1, 2, 3, 4, choice.parts])]
            .sort((a, b) => a - b)
            .map((n) => (
              <option key={n} value={n}>
                {n}
              </option>
            ))}
        </Form.Select>{' '}
        {choice.parts > 1 && (
          <Form.Select
            size="sm"
            className="d-inline-block w-auto"
            aria-label={`${panel.name}, divided along`}
            value={choice.along}
            onChange={(e) => set({ along: e.target.value as PieceChoice['along'] })}
          >
            <option value="height">by height</option>
            <option value="width">by width</option>
          </Form.Select>
        )}
      </td>
      <td>
        <Form.Select
          size="sm"
          className="w-auto"
          aria-label={`${panel.name}, pre-stretch`}
          value={choice.preStretch}
          onChange={(e) => set({ preStretch: Number(e.target.value) })}
        >
          {preStretchGroups(film, choice.preStretch).map(([group, steps]) => (
            <optgroup key={group} label={group}>
              {steps.map((v) => (
                <option key={v} value={v}>
                  {v === 0 ? 'no' : `${Math.round(v * 100)} %`}
                </option>
              ))}
            </optgroup>
          ))}
        </Form.Select>
      </td>
      <td className="n" style={{ minWidth: 78 }}>
        <LengthInput
          className="form-control form-control-sm"
          aria-label={`${panel.name}, bleed`}
          placeholder={fmt.length(plan.method.bleedMm).text}
          optional
          mm={choice.bleedMm}
          unit={fmt.units.lengthUnit}
          format={(mm) => fmt.length(mm).text}
          max={300}
          onValue={(bleedMm) => set({ bleedMm })}
        />
      </td>
    </>
  )
}
