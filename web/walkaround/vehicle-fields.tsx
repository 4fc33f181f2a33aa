'use client'

import { Explain } from '@/web/kit/explain'
import { CONTRAST_WRAP_MM, STRONG_CONTRAST_DE } from '@/core/model/vehicle/paint-data'
import { useState } from 'react'
import Form from 'react-bootstrap/Form'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { bodyContrast } from '@/core/engines/paint/contrast'

/** Job, customer and the body's colour. */
export function VehicleFields() {
  const { plan, edit, fmt } = useJob('plan', 'edit', 'fmt')
  const contrast = bodyContrast(plan) ?? 0
  return (
    <section className="plate mb-3">
      <h2>Job and vehicle</h2>
      <div className="row g-3">
        <TextField
          id="job-name"
          label="Job"
          value={plan.name}
          required
          onText={(name) => edit((p) => ({ ...p, name }))}
        />
        <TextField
          id="customer-ref"
          label="Customer reference"
          value={plan.customerRef}
          onText={(customerRef) => edit((p) => ({ ...p, customerRef }))}
        />
        <TextField
          id="colour-name"
          label="Body colour"
          value={plan.vehicle.colour.name}
          required
          onText={(name) => edit((p) => ({ ...p, vehicle: { ...p.vehicle, colour: { ...p.vehicle.colour, name } } }))}
        />
        <div className="col-6 col-lg-3">
          <label className="form-label" htmlFor="colour-hex">
            Nearest shade
          </label>
          <Form.Control
            id="colour-hex"
            type="color"
            className="form-control-color w-100"
            value={plan.vehicle.colour.hex}
            onChange={(e) =>
              edit((p) => ({
                ...p,
                vehicle: { ...p.vehicle, colour: { ...p.vehicle.colour, hex: e.target.value } },
              }))
            }
          />
        </div>
      </div>
      <p className="mt-2 mb-0">
        <span className="label">Contrast against the film</span> <Fig id="walkaround/contrast" />
        <Explain term="delta_e" />
        {contrast >= STRONG_CONTRAST_DE && (
          <span className="d-block">
            Strong: a separate piece for each panel, {fmt.text(fmt.length(CONTRAST_WRAP_MM))} deeper wrap-under (in the
            cut sizes already), and the cut on the neighbour’s side of every gap.
          </span>
        )}
      </p>
    </section>
  )
}

function TextField({
  id,
  label,
  value,
  required = false,
  onText,
}: {
  id: string
  label: string
  value: string
  required?: boolean
  onText: (v: string) => void
}) {
  const [draft, setDraft] = useState<string | null>(null)
  const bad = required && draft !== null && draft.trim() === ''
  return (
    <div className="col-6 col-lg-3">
      <label className="form-label" htmlFor={id}>
        {label}
      </label>
      <Form.Control
        id={id}
        maxLength={120}
        value={draft ?? value}
        aria-invalid={bad || undefined}
        onChange={(e) => {
          setDraft(e.target.value)
          if (!required || e.target.value.trim() !== '') onText(e.target.value)
        }}
        onBlur={() => setDraft(null)}
      />
      {bad && <span className="text-danger small">This cannot be empty; the last text stays.</span>}
    </div>
  )
}
