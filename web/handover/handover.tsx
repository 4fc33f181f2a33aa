'use client'

import Button from 'react-bootstrap/Button'
import Table from 'react-bootstrap/Table'
import { useMemo, useState } from 'react'
import { handedOver, handoverOf } from '@/core/stages/handover/handover'
import { reckon } from '@/core/reckon/reckon'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { KeptEntries } from '@/web/job/kept-entries'
import { guardsAfter, guardsBefore, type Guard } from '@/core/engines/run-sheet/guards'
import type { Step } from '@/core/engines/run-sheet/step'
import type { Plan } from '@/core/model/plan/schema'
import { ReadingsIn } from './readings-in'
import { GuardDialog } from '@/web/bay/guard-dialog'
import { useGuards } from '@/web/bay/use-guards'
import { HeatChart } from '@/web/heat/heat-chart'
import { OPEN_WORDS, pointName } from './point-name'
import { word } from '@/web/words/names'
import '@/web/kit/gloves.scss'

type Paper = ReturnType<typeof handoverOf>

const useMoment = () => {
  const { fmt } = useJob('fmt')
  return (iso: string) => fmt.moment(iso, { dateStyle: 'medium', timeStyle: 'short' })
}

/** Once handed over, what was handed over stands: its plan, its film and lots, its readings. */
function usePaper() {
  const { plan, handedOverPlan, reckoning, catalogue, ledger } = useJob(
    'plan',
    'handedOverPlan',
    'reckoning',
    'catalogue',
    'ledger',
  )
  const over = useMemo(() => handedOver(ledger), [ledger])
  const shownPlan = over ? (handedOverPlan ?? plan) : plan
  const paper = useMemo(() => {
    if (!over) return handoverOf(plan, reckoning, catalogue.stock, ledger)
    const frozen = reckon(shownPlan, catalogue, over.until)
    return handoverOf(shownPlan, frozen, catalogue.stock, over.until)
  }, [over, plan, shownPlan, reckoning, catalogue, ledger])
  return { over, shownPlan, paper }
}

/** What was applied where, with lots, readings, rechecks, care and warranty. */
export function Handover() {
  const { jobId, waiting, mayLog } = useJob('jobId', 'waiting', 'mayLog')
  const { over, shownPlan, paper } = usePaper()
  const when = useMoment()
  return (
    <>
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Handover</h1>
        <span className="flex-fill" />
        <a className="btn btn-outline-secondary" href={`/jobs/${jobId}/heat.pdf`}>
          Heat record (PDF)
        </a>
        <a className="btn btn-outline-secondary" href={`/jobs/${jobId}/readings.csv`}>
          Readings (CSV)
        </a>
        {mayLog && <ReadingsIn />}
        <a className={`btn btn-primary${waiting > 0 ? ' disabled' : ''}`} href={`/jobs/${jobId}/handover.pdf`}>
          Handover paper (PDF)
        </a>
      </div>
      <KeptEntries />
      {over && (
        <p className="label" role="status">
          Handed over {when(over.row.at)} by {over.row.by}
          {over.row.revision ? `, plan revision ${over.row.revision}` : ''}: what stands here is what was handed over.
        </p>
      )}
      <Findings stage="handover" />
      {paper.open.length > 0 && (
        <div className="caution" role="status">
          Still open: {paper.open.map((o) => OPEN_WORDS[o]).join(', ')}. The paper says so too.
        </div>
      )}
      <AfterTheRest recheckDueAt={paper.recheckDueAt} />
      <Applied films={paper.films} zone={shownPlan.walkaround.zone} />
      <Temperatures readings={paper.readings} />
      <Defects defects={paper.defects} />
    </>
  )
}

/** The last steps, ticked here too; what speaks against one is asked about first. */
function AfterTheRest({ recheckDueAt }: Pick<Paper, 'recheckDueAt'>) {
  const { reckoning, log, mayLog } = useJob('reckoning', 'log', 'mayLog')
  const when = useMoment()
  const guards = useGuards()
  const [asked, setAsked] = useState<{ guards: readonly Guard[]; step: Step } | null>(null)
  const done = (s: Step) => {
    const found = s.code === 'recheck' ? guardsBefore(s, guards()) : guardsAfter(s, guards())
    if (found.length > 0) return setAsked({ guards: found, step: s })
    log({ kind: 'step_done', stepId: s.id })
  }
  const tick = (code: string, label: string) => {
    const s = reckoning.steps.find((step) => step.code === code)
    if (!s || s.state === 'skipped') return null
    return s.state === 'done' ? (
      <p className="mb-1">
        {label}: done {s.doneAt && when(s.doneAt)}
      </p>
    ) : (
      <Button variant="outline-primary" size="sm" className="me-2" disabled={!mayLog} onClick={() => done(s)}>
        {label} done
      </Button>
    )
  }
  return (
    <>
      {asked && (
        <div className="bay p-0">
          <GuardDialog
            guards={asked.guards}
            onBack={() => setAsked(null)}
            onGoOn={(reason) => {
              for (const { guard, stepId } of asked.guards) log({ kind: 'guard_passed', guard, stepId, reason })
              log({ kind: 'step_done', stepId: asked.step.id })
              setAsked(null)
            }}
          />
        </div>
      )}
      <section className="plate mb-3">
        <h2>After the rest</h2>
        {recheckDueAt && <p className="mb-1">Recheck due {when(recheckDueAt)}</p>}
        {tick('recheck', 'Recheck')}
        {tick('hardware_on', 'Hardware on')}
        {tick('hand_over', 'Hand over')}
      </section>
    </>
  )
}

function Applied({ films, zone }: Pick<Paper, 'films'> & { zone: Plan['walkaround']['zone'] }) {
  const { fmt } = useJob('fmt')
  return (
    <section className="plate mb-3">
      <h2>Applied</h2>
      {films.length === 0 && <p className="mb-0">Nothing yet.</p>}
      {films.map((f) => (
        <div key={f.film.id} className="mb-2">
          <b>{f.film.name}</b> <span className="label">{f.film.maker}</span>
          <br />
          Lot {f.lots.join(', ') || 'not recorded'}
          {f.usedMm > 0 && `, ${fmt.text(fmt.longLength(f.usedMm))} used`}
          <br />
          On: {f.panels.join(', ')}
          <br />
          Warranty, {word('zone', zone)} zone:{' '}
          {f.warranty.map((w) => `${w.surface} ${w.months} months`).join(', ') || 'none on the sheet'}
          <br />
          Care: {f.film.care}
        </div>
      ))}
    </section>
  )
}

function Temperatures({ readings }: Pick<Paper, 'readings'>) {
  const { reckoning, fmt } = useJob('reckoning', 'fmt')
  return (
    <section className="plate mb-3 scroll-x">
      <h2>Temperatures reached</h2>
      <HeatChart points={reckoning.points} fmt={fmt} />
      {readings.length === 0 && <p className="mb-0">No place needs a reading.</p>}
      {readings.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th>Piece</th>
              <th>Place</th>
              <th className="n">Reading</th>
              <th>Wanted</th>
              <th>Verdict</th>
              <th>By</th>
            </tr>
          </thead>
          <tbody>
            {readings.map((r) => (
              <tr key={r.point.id}>
                <td>{r.piece}</td>
                <td>{pointName(r.point)}</td>
                <td className="n">{r.tempC === null ? '–' : fmt.text(fmt.temp(r.tempC))}</td>
                <td>
                  {fmt.temp(r.point.range.min).text}–{fmt.text(fmt.temp(r.point.range.max))}
                </td>
                <td>{r.verdict ? word('verdict', r.verdict) : 'not read'}</td>
                <td>{r.by ?? ''}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </section>
  )
}

function Defects({ defects }: Pick<Paper, 'defects'>) {
  const when = useMoment()
  if (defects.length === 0) return null
  return (
    <section className="plate">
      <h2>Defects</h2>
      <ul className="mb-0">
        {defects.map((d) => (
          <li key={d.id}>
            <b>{d.closed ? 'Closed' : 'Open'}</b>, {d.panel}: {word('defect', d.defect)}
            {d.note && `, ${d.note}`} <span className="label">{`${d.by}, ${when(d.at)}`}</span>
            {d.closed && (
              <>
                . {d.closed.how} <span className="label">{`${d.closed.by}, ${when(d.closed.at)}`}</span>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
