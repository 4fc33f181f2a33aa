'use client'

import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { cutsMade, machineEntry, machineKey } from '@/core/engines/roll/cutting'
import type { FilmLayout, RollPlan } from '@/core/engines/roll/film-layout'
import { sendToTable } from '@/web/actions/cutting-table'
import type { TableReport } from '@/web/actions/reads'
import { read } from '@/web/kit/read'
import { useJob } from '@/web/job/job-state'
import { call } from '@/web/kit/call'
import { faultText } from '@/web/words/faults'
import { nameOf } from './roll-name'

type Reports = readonly TableReport[]
const LOOK_MS = 1000

/** Kept plans to the cutting table: what it says of each, and the cut made real when it is done. */
export function CuttingTable({ layout }: { layout: FilmLayout }) {
  const { jobId } = useJob('jobId')
  const [sent, setSent] = useState(false)
  const { data: reports, refetch } = useQuery({
    queryKey: ['table', jobId],
    queryFn: ({ signal }) => read<Reports | null>(`/api/jobs/${jobId}/table`, signal),
    // Something is on the table, or was just sent and has not arrived there yet.
    refetchInterval: ({ state: { data } }) =>
      data?.some((r) => r.state === 'received' || r.state === 'cutting') || (sent && data?.length === 0)
        ? LOOK_MS
        : false,
  })
  if (reports === undefined) return <p className="label">Asking the cutting table …</p>
  if (reports === null) return <p className="label">No cutting table is set up on this server.</p>
  return (
    <section className="mb-3" aria-label="Cutting table">
      <h3>Cutting table</h3>
      {layout.kept !== 'current' && <p className="mb-1">Keep this layout first: the table cuts what is kept.</p>}
      {layout.rolls.map((roll) => (
        <OneRoll
          key={roll.id}
          layout={layout}
          roll={roll}
          report={
            reports
              .filter((r) => r.file.includes(`_${layout.film.id}_${roll.id}_${layout.mark}.`))
              .sort((a, b) => b.at.localeCompare(a.at))[0]
          }
          onSent={() => {
            setSent(true)
            void refetch()
          }}
        />
      ))}
    </section>
  )
}

function OneRoll({
  layout,
  roll,
  report,
  onSent,
}: {
  layout: FilmLayout
  roll: RollPlan
  report: Reports[number] | undefined
  onSent: () => void
}) {
  const { jobId, ledger, log, mayLog, catalogue, fmt } = useJob('jobId', 'ledger', 'log', 'mayLog', 'catalogue', 'fmt')
  const [as, setAs] = useState<'svg' | 'dxf'>('svg')
  const [said, setSaid] = useState('')
  const [from, setFrom] = useState(roll.stock?.id ?? '')
  const made = cutsMade(ledger).has(machineKey(layout, roll))
  const shelf = catalogue.stock.filter(
    (s) => s.filmId === layout.film.id && s.widthMm >= roll.widthMm - 1 && s.leftMm >= roll.usedMm - 1,
  )
  const send = async () => {
    const out = await call(sendToTable, { jobId, filmId: layout.film.id, rollId: roll.id, as })
    setSaid(out.ok ? '' : faultText(out.error))
    if (out.ok) onSent()
  }
  const busy = report?.state === 'received' || report?.state === 'cutting'
  return (
    <div className="d-flex gap-2 align-items-center flex-wrap mb-1">
      <b>{nameOf(layout, roll.id)}</b>
      <Form.Select
        size="sm"
        style={{ width: 'auto' }}
        aria-label={`${nameOf(layout, roll.id)}, drawing as`}
        value={as}
        onChange={(e) => setAs(e.target.value as 'svg')}
      >
        <option value="svg">SVG</option>
        <option value="dxf">DXF</option>
      </Form.Select>
      <Button
        variant="outline-primary"
        size="sm"
        disabled={!mayLog || layout.kept !== 'current' || busy || made}
        onClick={() => void send()}
      >
        Send to the cutting table
      </Button>
      <span role="status">
        {made
          ? 'Cut; its film is off the roll.'
          : !report
            ? ''
            : report.state === 'rejected'
              ? `Not taken: ${report.reason ?? 'no reason given'}.`
              : report.state === 'done'
                ? `Cut: ${report.pieces} outlines, ${fmt.text(fmt.longLength(report.cutMm))} of cut.`
                : `${report.pieces} outlines, ${fmt.text(fmt.longLength(report.doneMm))} of ${fmt.text(fmt.longLength(report.cutMm))} cut.`}
      </span>
      {busy && report && (
        <progress value={report.doneMm} max={Math.max(1, report.cutMm)} aria-label="Cutting" style={{ width: 120 }} />
      )}
      {report?.state === 'done' && !made && (
        <>
          {!roll.stock && (
            <Form.Select
              size="sm"
              style={{ width: 'auto' }}
              aria-label="Cut from"
              value={from}
              onChange={(e) => setFrom(e.target.value)}
            >
              <option value="">from which roll</option>
              {shelf.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}, lot {s.lot}
                </option>
              ))}
            </Form.Select>
          )}
          <Button size="sm" disabled={!mayLog || from === ''} onClick={() => log(machineEntry(layout, roll, from))}>
            Take it off the roll
          </Button>
        </>
      )}
      {made && (
        <Button
          variant="link"
          size="sm"
          disabled={!mayLog}
          onClick={() => log({ kind: 'cut_taken_back', cutKey: machineKey(layout, roll) })}
        >
          Not cut after all
        </Button>
      )}
      {said !== '' && (
        <span className="text-danger" role="alert">
          {said}
        </span>
      )}
    </div>
  )
}
