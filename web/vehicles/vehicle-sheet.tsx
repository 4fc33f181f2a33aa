'use client'

import type { Fault } from '@/core/kit/result'
import Button from 'react-bootstrap/Button'
import Table from 'react-bootstrap/Table'
import { useRouter } from 'next/navigation'
import { useEffect, useMemo, useState } from 'react'
import { newPlan } from '@/core/model/plan/new-plan'
import { Plan } from '@/core/model/plan/schema'
import { firstFault } from '@/core/model/plan/parse'
import { tapedShare, vehicleEdits, type MeasuredVehicle } from '@/core/model/plan/vehicle-library'
import { panelFindings } from '@/core/stages/tape/findings'
import { keepVehicle, restoreVehicle } from '@/web/actions/vehicles'
import { call } from '@/web/kit/call'
import { useHydrated } from '@/web/kit/use-hydrated'
import { MeasureGrid } from '@/web/tape/measure-grid'
import { PanelSheet } from '@/web/tape/panel-sheet'
import { formatter, type MemberUnits } from '@/web/words/format'
import { word } from '@/web/words/names'
import { findingText } from '@/web/words/findings'
import { faultText } from '@/web/words/faults'

interface VehicleFile {
  head: { id: string; head: number; name: string; kind: string }
  measured: MeasuredVehicle
  revisions: { number: number; summary: string; author: string; at: string }[]
}
const FIELDS: Record<string, string> = {
  widthMm: 'width',
  heightMm: 'height',
  crownMm: 'crown',
  crownDownMm: 'crown down',
  cornerRadiusMm: 'corner radius',
  crownOverMm: 'straightedge',
}

/** A vehicle of the library: its sheet to correct, and every state it has been in. */
export function VehicleSheet({
  file,
  units,
  mayCorrect,
}: {
  file: VehicleFile
  units: MemberUnits
  mayCorrect: boolean
}) {
  const router = useRouter()
  const alive = useHydrated()
  const fmt = useMemo(() => formatter(units), [units])
  const { measured } = file
  const [plan, setPlan] = useState<Plan>(() => ({
    ...newPlan(measured.vehicle.name, '', measured.vehicle),
    panels: measured.panels,
  }))
  const [picked, setPicked] = useState<string | null>(null)
  const [said, setSaid] = useState('')
  const now: MeasuredVehicle = { vehicle: plan.vehicle, panels: plan.panels, neverCover: measured.neverCover }
  const edits = vehicleEdits(measured, now)
  const unsaved = edits.length > 0
  useEffect(() => {
    const leave = (event: BeforeUnloadEvent) => {
      if (unsaved) event.preventDefault()
    }
    window.addEventListener('beforeunload', leave)
    return () => window.removeEventListener('beforeunload', leave)
  }, [unsaved])
  const findings = useMemo(() => panelFindings(plan).filter((f) => f.level !== 'note'), [plan])
  const current = plan.panels.find((p) => p.id === picked) ?? plan.panels[0]
  const share = tapedShare(plan.panels)
  const after = (out: { ok: boolean; error?: Fault }, good: string) => {
    setSaid(out.ok ? good : faultText(out.error ?? { code: 'went_wrong' }))
    if (out.ok) router.refresh()
  }
  const save = async () => {
    const valid = Plan.safeParse(plan)
    if (!valid.success) return setSaid(faultText(firstFault(valid.error), fmt))
    const first = edits[0]
    const number = (v: unknown) => (typeof v === 'number' ? fmt.text(fmt.length(v)) : '')
    const summary = first
      ? [
          `${first.panel}${first.field ? `: ${FIELDS[first.field] ?? first.field}` : ''}`,
          ...(typeof first.after === 'number' ? [`${number(first.before)} → ${number(first.after)}`] : []),
          ...(edits.length > 1 ? [`and ${edits.length - 1} more`] : []),
        ].join(' ')
      : 'No change'
    after(
      await call(keepVehicle, { id: file.head.id, basedOn: file.head.head, measured: now, summary, fromJob: null }),
      'Corrected.',
    )
  }
  return (
    <main className="sheet" id="main">
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>{file.head.name}</h1>
        <span className="label">
          {word('vehicle', file.head.kind, units.locale)} · {plan.panels.length} panels, {share.taped} of {share.all}{' '}
          figures taped · state {file.head.head}
        </span>
        <span className="flex-fill" />
        {mayCorrect && (
          <Button disabled={!alive || edits.length === 0} onClick={() => void save()}>
            {edits.length === 0
              ? 'Nothing to correct'
              : `Save ${edits.length} ${edits.length === 1 ? 'correction' : 'corrections'}`}
          </Button>
        )}
        <span role="status">{said}</span>
      </div>
      {findings.slice(0, 5).map((f) => (
        <div key={f.id} className="finding" data-level={f.level}>
          {findingText(f, fmt)}
        </div>
      ))}
      <fieldset disabled={!alive || !mayCorrect}>
        <MeasureGrid plan={plan} edit={setPlan} fmt={fmt} picked={current?.id ?? null} onPick={setPicked} />
        {current && (
          <PanelSheet
            key={current.id}
            panel={current}
            plan={plan}
            edit={setPlan}
            fmt={fmt}
            disabled={!alive || !mayCorrect}
          />
        )}
      </fieldset>
      <section className="plate mt-3" aria-label="History">
        <h2>History</h2>
        <Table>
          <tbody>
            {file.revisions.map((r) => (
              <tr key={r.number}>
                <td style={{ width: 60 }}>{r.number}</td>
                <td>{r.summary}</td>
                <td>{r.author}</td>
                <td>{fmt.moment(r.at)}</td>
                <td>
                  {mayCorrect && r.number !== file.head.head && (
                    <Button
                      variant="link"
                      size="sm"
                      className="p-0"
                      aria-label={`Bring back state ${r.number}`}
                      onClick={() =>
                        void call(restoreVehicle, { id: file.head.id, basedOn: file.head.head, number: r.number }).then(
                          (out) => after(out, `State ${r.number} is back.`),
                        )
                      }
                    >
                      Bring back
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
        <p className="label mb-0">Jobs keep the figures they were planned with; the next one starts from these.</p>
      </section>
    </main>
  )
}
