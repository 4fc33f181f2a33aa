'use client'

import Button from 'react-bootstrap/Button'
import { hardwareOf } from '@/core/model/vehicle/families'
import Form from 'react-bootstrap/Form'
import { DamageRecord } from './damage'
import { Signature } from './signature'
import { Cautions, Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { Lists, Walk } from '@/web/walkaround/walkaround-lists'
import { PaintFields } from './paint-fields'
import { VehicleFields } from './vehicle-fields'

/** The look round the vehicle before anything is promised. */
export function WalkaroundView() {
  const { plan, edit, fmt, mayWalkaround, jobId } = useJob('plan', 'edit', 'fmt', 'mayWalkaround', 'jobId')
  const { walkaround: w } = plan
  const fromPanels = hardwareOf(plan.panels, w.hardware)
  const set = (part: Partial<Walk>) => edit((p) => ({ ...p, walkaround: { ...p.walkaround, ...part } }))
  return (
    <>
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Walkaround</h1>
        <span className="label">what removal and warranty will hang on</span>
        <span className="flex-fill" />
        <a className="btn btn-outline-primary btn-sm" href={`/jobs/${jobId}/inspection.pdf`} target="_blank">
          Inspection (PDF)
        </a>
      </div>
      <Findings stage="walkaround" />
      <fieldset disabled={!mayWalkaround}>
        <VehicleFields />
        <PaintFields />
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
