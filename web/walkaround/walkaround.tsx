'use client'

import { Explain } from '@/web/kit/explain'
import { DateField } from '@/web/kit/date-field'
import Button from 'react-bootstrap/Button'
import { ZONES, type FilmSheet } from '@/core/model/film/schema'
import { hardwareOf } from '@/core/model/vehicle/families'
import { bodyContrast } from '@/core/engines/paint/contrast'
import { CONTRAST_WRAP_MM, STRONG_CONTRAST_DE } from '@/core/model/vehicle/paint-data'
import { WordSelect } from '@/web/kit/fields'
import { useState } from 'react'
import Form from 'react-bootstrap/Form'
import { Fig } from '@/web/job/figure'
import { DamageRecord } from './damage'
import { Signature } from './signature'
import { Cautions, Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { NumberInput } from '@/web/kit/quantity-input'
import { word } from '@/web/words/names'
import { Lists, Walk } from '@/web/walkaround/walkaround-lists'

/** Climate zones to choose from: the usual two, those that any sheet names, and the one chosen. */
const zonesNamed = (sheets: readonly FilmSheet[], chosen: string): string[] => [
  ...new Set([...ZONES, ...sheets.flatMap((f) => f.warrantyMonths.map((w) => w.zone)), chosen]),
]

/** The look round the vehicle before anything is promised. */
export function WalkaroundView() {
  const { plan, edit, fmt, mayWalkaround, jobId, catalogue } = useJob()
  const { walkaround: w } = plan
  const contrast = bodyContrast(plan) ?? 0
  const fromPanels = hardwareOf(plan.panels, w.hardware)
  const set = (part: Partial<Walk>) => edit((p) => ({ ...p, walkaround: { ...p.walkaround, ...part } }))
  const paint = (part: Partial<Walk['paint']>) =>
    edit((p) => ({ ...p, walkaround: { ...p.walkaround, paint: { ...p.walkaround.paint, ...part } } }))
  const choose = <T extends string>(id: string, label: string, list: string, value: T, onChange: (v: T) => void) => (
    <div className="col-6 col-lg-3">
      <label className="form-label" htmlFor={id}>
        {label}
      </label>
      <WordSelect list={list} id={id} className="form-select" value={value} onCode={(code) => onChange(code)} />
    </div>
  )
  return (
    <>
      <div className="bench-head">
        <h1>Walkaround</h1>
        <span className="label">what removal and warranty will hang on</span>
        <span className="spacer" />
        <a className="btn btn-outline-primary btn-sm" href={`/jobs/${jobId}/inspection.pdf`} target="_blank">
          Inspection (PDF)
        </a>
      </div>
      <Findings stage="walkaround" />
      <fieldset disabled={!mayWalkaround}>
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
              onText={(name) =>
                edit((p) => ({ ...p, vehicle: { ...p.vehicle, colour: { ...p.vehicle.colour, name } } }))
              }
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
                Strong: a separate piece for each panel, {fmt.text(fmt.length(CONTRAST_WRAP_MM))} deeper wrap-under (in
                the cut sizes already), and the cut on the neighbour’s side of every gap.
              </span>
            )}
          </p>
        </section>
        <section className="plate mb-3">
          <h2>Paint</h2>
          <div className="row g-3">
            {choose('paint-origin', 'Paint', 'origin', w.paint.origin, (origin) => paint({ origin }))}
            {choose('paint-condition', 'Condition', 'condition', w.paint.condition, (condition) =>
              paint({ condition }),
            )}
            <div className="col-6 col-lg-3">
              <label className="form-label" htmlFor="paint-age">
                Age in years
              </label>
              <NumberInput
                id="paint-age"
                className="form-control"
                aria-label="Paint age in years"
                optional
                value={w.paint.ageYears}
                max={120}
                onValue={(ageYears) => paint({ ageYears })}
              />
            </div>
            {w.paint.origin === 'repaint' && (
              <div className="col-6 col-lg-3">
                <label className="form-label" htmlFor="repainted-on">
                  Repainted on
                </label>
                <DateField
                  id="repainted-on"
                  value={w.paint.repaintedOn}
                  locale={fmt.units.locale}
                  timeZone={fmt.units.timeZone}
                  onValue={(repaintedOn) => paint({ repaintedOn })}
                />
              </div>
            )}
            <div className="col-6 col-lg-3">
              <label className="form-label" htmlFor="zone">
                Climate zone
              </label>
              <Form.Select id="zone" value={w.zone} onChange={(e) => set({ zone: e.target.value })}>
                {zonesNamed([...plan.film.sheets, ...catalogue.films], w.zone).map((zone) => (
                  <option key={zone} value={zone}>
                    {word('zone', zone)}
                  </option>
                ))}
              </Form.Select>
            </div>
          </div>
        </section>
        <section className="plate mb-3">
          <h2>Repainted panels</h2>
          <Lists list="repaints" />
        </section>
        <DamageRecord />
        <section className="plate mb-3">
          <h2>Hardware</h2>
          <Lists list="hardware" />
          {fromPanels.length > 0 && (
            <Button
              variant="outline-primary"
              size="sm"
              className="ms-2"
              onClick={() => set({ hardware: [...w.hardware, ...fromPanels] })}
            >
              Add {fromPanels.length} from the panels
            </Button>
          )}
        </section>
        <section className="plate mb-3">
          <h2>Stays free of film</h2>
          <Lists list="neverCover" />
          <div className="mt-2">
            <Cautions codes={['never_cover', 'airbag_trim']} />
          </div>
        </section>
        <section className="plate mb-3">
          <label className="h2" htmlFor="walk-note">
            Note
          </label>
          <Form.Control
            as="textarea"
            id="walk-note"
            rows={2}
            maxLength={2000}
            value={w.note}
            onChange={(e) => set({ note: e.target.value })}
          />
        </section>
        <Signature />
      </fieldset>
      <p className="label mt-2">
        Temperatures in {fmt.units.tempUnit === 'C' ? '°C' : '°F'}, lengths in {fmt.units.lengthUnit}; change both at
        the top.
      </p>
    </>
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
