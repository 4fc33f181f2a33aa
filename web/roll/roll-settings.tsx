'use client'

import Form from 'react-bootstrap/Form'
import type { Plan } from '@/core/model/plan/schema'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'

/** How it is cut, in what width, with what between and beside the pieces. */
export function RollSettings() {
  const { plan, edit, fmt, mayPlan } = useJob('plan', 'edit', 'fmt', 'mayPlan')
  const { layout } = plan
  const set = (change: Partial<Plan['layout']>) => edit((p) => ({ ...p, layout: { ...p.layout, ...change } }))
  const widths = [...new Set(plan.film.sheets.flatMap((s) => s.widthsMm))].sort((a, b) => b - a)
  return (
    <fieldset disabled={!mayPlan} className="settings-line" aria-label="How it is cut">
      <label>
        <span className="label">Cut</span>
        <Form.Select
          size="sm"
          aria-label="Cut"
          value={layout.cutting}
          onChange={(e) => set({ cutting: e.target.value as Plan['layout']['cutting'] })}
        >
          <option value="crosscut">by hand, straight cuts</option>
          <option value="free">by machine, any placement</option>
        </Form.Select>
      </label>
      {layout.cutting === 'crosscut' && (
        <label>
          <span className="label">Stages of cuts</span>
          <Form.Select
            size="sm"
            aria-label="Stages of cuts"
            value={layout.stages}
            onChange={(e) => set({ stages: Number(e.target.value) })}
          >
            {[2, 3, 4, 5, 6].map((n) => (
              <option key={n} value={n}>
                {n === 2 ? '2: across, lengthwise' : n === 3 ? '3: and across again' : n}
              </option>
            ))}
          </Form.Select>
        </label>
      )}
      {widths.length > 1 && (
        <label>
          <span className="label">Roll width</span>
          <Form.Select
            size="sm"
            aria-label="Roll width"
            value={layout.rollWidthMm ?? ''}
            onChange={(e) => set({ rollWidthMm: e.target.value ? Number(e.target.value) : null })}
          >
            <option value="">whichever is cheapest</option>
            {widths.map((w) => (
              <option key={w} value={w}>
                {fmt.text(fmt.length(w))}
              </option>
            ))}
          </Form.Select>
        </label>
      )}
      {(
        [
          ['Gap', 'Gap between pieces', 'gapMm'],
          ['Edge trim', 'Left unused along both edges of the roll', 'trimMm'],
        ] as const
      ).map(([label, aria, key]) => (
        <label key={key} style={{ width: 96 }}>
          <span className="label">{label}</span>
          <LengthInput
            id={`roll-${key}`}
            className="form-control form-control-sm"
            aria-label={aria}
            optional
            mm={layout[key]}
            unit={fmt.units.lengthUnit}
            format={(mm) => fmt.length(mm).text}
            max={100}
            onValue={(mm) => set({ [key]: mm ?? 0 })}
          />
        </label>
      ))}
      <label className="d-flex gap-2 align-items-center">
        <Form.Check.Input
          type="checkbox"
          className="mt-0"
          checked={layout.reserve}
          onChange={(e) => set({ reserve: e.target.checked })}
        />
        reserve for risky pieces
      </label>
    </fieldset>
  )
}
