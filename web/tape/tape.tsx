'use client'

import { FilePicker } from '@/web/kit/file-picker'
import Button from 'react-bootstrap/Button'
import { useOnce } from '@/web/kit/use-once'
import { useSearchParams, usePathname } from 'next/navigation'
import { useDeferredValue, useRef, useState } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import { panelsFromTable } from '@/core/stages/tape/panel-table'
import { measuresFromOtherSide, otherSideId } from '@/core/model/vehicle/mirror'
import { tapedShare, vehicleOf } from '@/core/model/plan/vehicle-library'
import { MAX_FILE_BYTES } from '@/core/kit/json-guard'
import { keepVehicle } from '@/web/actions/vehicles'
import { call, newId } from '@/web/kit/call'
import { readCsv } from '@/web/kit/csv'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { FilterBox } from '@/web/kit/fields'
import { LengthInput } from '@/web/kit/quantity-input'
import { SkinPlate } from '@/web/skin/skin-panel'
import { faultText } from '@/web/words/faults'
import { tableFaults } from '@/web/words/table'
import { GuidedTape } from './guided-tape'
import { MeasureGrid } from './measure-grid'
import { PanelSheet } from './panel-sheet'
import { TapeFirst } from './tape-first'

/** Every right panel takes the measures of its left fellow, where the two mirror each other. */
export const fillRight = (plan: Plan): Plan => ({
  ...plan,
  panels: plan.panels.map((p) => {
    const from = plan.panels.find((x) => x.id === otherSideId(p.id) && x.id !== p.id)
    return p.id.endsWith('-right') && p.mirrored && from?.mirrored ? measuresFromOtherSide(p, from) : p
  }),
})

/** The vehicle into figures: what to tape first, the map, the sheet, and each panel in full. */
export function Tape() {
  const { plan, edit, fmt, mayTape, mayPlan, jobId } = useJob('plan', 'edit', 'fmt', 'mayTape', 'mayPlan', 'jobId')
  const guided = useSearchParams().get('guide') === '1'
  const [picked, setPicked] = useState<string | null>(null)
  const [wanted, setWanted] = useState('')
  const full = useRef<HTMLDivElement>(null)
  const current = plan.panels.find((p) => p.id === picked) ?? plan.panels[0]
  // What is typed and the rail come first; the ranking and the map follow as soon as there is time.
  const later = useDeferredValue(plan)
  const share = tapedShare(plan.panels)
  const path = usePathname()
  const guide = (on: boolean) => window.history.pushState(null, '', on ? `${path}?guide=1` : path)
  if (guided && mayTape) return <GuidedTape plan={plan} edit={edit} fmt={fmt} onClose={() => guide(false)} />
  return (
    <>
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Tape</h1>
        <span className="label">
          {plan.panels.length} panels, {share.taped} of {share.all} figures taped
        </span>
        <span className="flex-fill" />
        <Button disabled={!mayTape || plan.panels.length === 0} onClick={() => guide(true)}>
          Guided tape
        </Button>
        <FilterBox label="Filter panels" width={160} value={wanted} onText={setWanted} />
      </div>
      <Findings stage="tape" limit={4} />
      <fieldset disabled={!mayTape}>
        <TapeFirst plan={later} edit={edit} fmt={fmt} onPick={setPicked} />
      </fieldset>
      {plan.panels.length > 0 && (
        <SkinPlate
          plan={later}
          layers={['state', 'size', 'edges', 'surface', 'film', 'contrast']}
          selected={picked ? [picked] : []}
          onSelect={(ids) => setPicked(ids.at(-1) ?? null)}
          onOpen={(id) => {
            setPicked(id)
            full.current?.scrollIntoView({ block: 'start' })
          }}
          height={360}
        />
      )}
      <fieldset disabled={!mayTape}>
        <MeasureGrid
          mayRemove={mayPlan}
          plan={plan}
          edit={edit}
          fmt={fmt}
          wanted={wanted}
          picked={current?.id ?? null}
          onPick={setPicked}
        />
        <SheetTools />
        <div ref={full}>
          {current && (
            <PanelSheet key={current.id} panel={current} plan={plan} edit={edit} fmt={fmt} disabled={!mayTape} />
          )}
        </div>
      </fieldset>
      <p className="label mt-3 mb-0">
        <a href={`/jobs/${jobId}/skin`}>The skin alone, on one page</a>
      </p>
    </>
  )
}

/** What the whole sheet can do: fill, bring in, send out, keep for the next job. */
function SheetTools() {
  const { plan, edit, fmt, jobId, mayPlan } = useJob('plan', 'edit', 'fmt', 'jobId', 'mayPlan')
  const [said, setSaid] = useState<string[]>([])
  const [libraryId] = useState(newId)
  const format = (mm: number) => fmt.length(mm).text
  const bring = async (file: File | undefined) => {
    if (!file) return
    if (file.size > MAX_FILE_BYTES) return setSaid([faultText({ code: 'too_large', facts: { limit: MAX_FILE_BYTES } })])
    const rows = readCsv(await file.text())
    const read = rows.ok ? panelsFromTable(rows.value, plan.panels) : rows
    if (!read.ok) return setSaid(['Nothing was taken from the file.', ...tableFaults(read.error)])
    const { changed, added } = read.value
    edit((p) => {
      const again = rows.ok ? panelsFromTable(rows.value, p.panels) : rows
      return again.ok ? { ...p, panels: again.value.panels } : p
    })
    setSaid([`${changed} panels changed, ${added} added.`])
  }
  const keep = useOnce(async () => {
    const out = await call(keepVehicle, {
      id: libraryId,
      basedOn: 0,
      measured: vehicleOf(plan),
      summary: `Kept from ${plan.name}`,
      fromJob: jobId,
    })
    if (!out.ok) return setSaid([faultText(out.error)])
    if (!plan.vehicle.libraryId) edit((p) => ({ ...p, vehicle: { ...p.vehicle, libraryId: out.value.id } }))
    setSaid([`${plan.vehicle.name} is in the library for the next job.`])
  })
  return (
    <div className="d-flex gap-2 align-items-center flex-wrap my-2">
      <Button variant="outline-primary" size="sm" onClick={() => edit(fillRight)} disabled={plan.panels.length === 0}>
        Fill right side from left
      </Button>
      <label className="d-flex gap-1 align-items-center label">
        Tolerance
        <span style={{ width: 70 }}>
          <LengthInput
            className="form-control form-control-sm"
            aria-label="Tolerance between panels"
            disabled={!mayPlan}
            mm={plan.vehicle.toleranceMm}
            unit={fmt.units.lengthUnit}
            format={format}
            min={1}
            max={200}
            onValue={(mm) =>
              edit((p) => ({ ...p, vehicle: { ...p.vehicle, toleranceMm: mm ?? p.vehicle.toleranceMm } }))
            }
          />
        </span>
      </label>
      <span className="ms-auto d-flex gap-2 flex-wrap align-items-center">
        <FilePicker
          label="Measurement sheet as CSV"
          accept=".csv,text/csv"
          onFile={(file) => void bring(file)}
          size="sm"
        >
          Bring in CSV
        </FilePicker>
        <a className="btn btn-outline-primary btn-sm" href={`/jobs/${jobId}/panels.csv`}>
          CSV
        </a>
        <a className="btn btn-outline-primary btn-sm" href={`/jobs/${jobId}/measure.pdf`} target="_blank">
          Blank sheet (PDF)
        </a>
        <Button
          variant="outline-primary"
          size="sm"
          disabled={!mayPlan || plan.panels.length === 0}
          onClick={() => void keep()}
        >
          Keep in the library
        </Button>
      </span>
      {said.length > 0 && (
        <div className="w-100 plate py-2" role="status">
          {said.map((s) => (
            <div key={s}>{s}</div>
          ))}
        </div>
      )}
    </div>
  )
}
