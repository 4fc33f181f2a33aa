'use client'

import { useCallback } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import type { Plan } from '@/core/model/plan/schema'
import { otherSideId } from '@/core/model/vehicle/mirror'
import { taped } from '@/core/model/vehicle/resize'
import type { Panel } from '@/core/model/vehicle/schema'
import { acceptPanel, sameAsOtherSide } from '@/core/stages/tape/tape-answer'
import type { Formatter } from '@/web/words/format'
import { changePanel } from './edit-panel'
import { PanelEdges } from './panel-edges'
import { PanelFeatures } from './panel-features'
import { PanelLarge } from './panel-large'
import { PanelSurface } from './panel-surface'
import { Wraps } from './wraps'

/** One panel in full: drawn to scale with its measures, its edges and what they meet, all that is on it. */
export function PanelSheet({
  panel,
  plan,
  edit,
  fmt,
  disabled = false,
}: {
  panel: Panel
  plan: Plan
  edit: (change: (plan: Plan) => Plan) => void
  fmt: Formatter
  disabled?: boolean
}) {
  const { id } = panel
  const change = useCallback((f: (p: Panel) => Panel) => edit((was) => changePanel(was, id, f)), [edit, id])
  const twin = plan.panels.find((p) => p.id === otherSideId(panel.id) && p.id !== panel.id)
  return (
    <section className="plate mt-3" aria-label={`${panel.name} in full`}>
      <div className="d-flex flex-wrap gap-2 align-items-baseline mb-2">
        <h2 className="mb-0">{panel.name}</h2>
        {panel.assumed.length > 0 && <span className="label">{panel.assumed.length} figures assumed</span>}
        <span className="ms-auto d-flex gap-2 flex-wrap">
          {twin && (
            <Button variant="outline-primary" size="sm" onClick={() => edit((p) => sameAsOtherSide(p, panel.id))}>
              Same as {twin.name}
            </Button>
          )}
          {panel.assumed.length > 0 && (
            <Button variant="outline-primary" size="sm" onClick={() => change(acceptPanel)}>
              It is as it stands here
            </Button>
          )}
        </span>
      </div>
      <PanelLarge panel={panel} edit={edit} fmt={fmt} disabled={disabled} />
      <PanelEdges panel={panel} plan={plan} change={change} fmt={fmt} />
      <div className="row g-3">
        <PanelFeatures panel={panel} change={change} fmt={fmt} />
        <PanelSurface panel={panel} change={change} fmt={fmt} />
        <Wraps panel={panel} fmt={fmt} onChange={(wraps) => change((p) => taped({ ...p, wraps }, 'wraps'))} />
        <div className="col-12 col-md-6">
          <label className="form-label" htmlFor="paint-note">
            Paint on this panel
          </label>
          <Form.Control
            id="paint-note"
            maxLength={2000}
            value={panel.paintNote}
            onChange={(e) => change((p) => ({ ...p, paintNote: e.target.value }))}
          />
        </div>
        {twin && (
          <div className="col-12">
            <label className="d-flex gap-2 align-items-center">
              <Form.Check.Input
                type="checkbox"
                checked={panel.mirrored}
                onChange={(e) => change((p) => ({ ...p, mirrored: e.target.checked }))}
              />
              Mirrors {twin.name}
            </label>
          </div>
        )}
      </div>
    </section>
  )
}
