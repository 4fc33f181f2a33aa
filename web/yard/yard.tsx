'use client'

import Button from 'react-bootstrap/Button'
import Link from 'next/link'
import { FilterBox } from '@/web/kit/fields'
import { useMemo, useState } from 'react'
import type { JobOutline } from '@/core/engines/schedule/job-outline'
import type { BoardPin } from '@/core/engines/schedule/pins'
import type { Alert } from '@/core/model/finding/alert'
import { STAGES } from '@/core/model/finding/stage'
import type { ShopSettings } from '@/core/model/shop/shop'
import { KeepJobs } from '@/web/offline/keep-offline'
import { useHydrated } from '@/web/kit/use-hydrated'
import { formatter, type MemberUnits } from '@/web/words/format'
import { word } from '@/web/words/names'
import { stageWhy } from '@/web/words/stages'
import { Alerts } from './alerts'
import { Board, type BoardRow } from './board'
import type { KeptBoard } from './use-board'
import { NewJob } from './new-job'
import './yard.scss'

export interface YardJob {
  id: string
  name: string
  vehicle: string
  customerRef: string
  stage: string
  stageState: string
  waitsFor: string
  waitsFacts: Record<string, string | number>
  recheckDueAt: string | null
  updatedAt: string
  /** Its last change is not in these columns yet. */
  behind: boolean
  outline: JobOutline | null
  pins: BoardPin[]
  alerts: Alert[]
}

const boardRows = (jobs: readonly YardJob[]): BoardRow[] =>
  jobs.flatMap(({ id, name, stage, outline, pins }) => (outline ? [{ id, name, stage, outline, pins }] : []))

/** The shop's jobs along the order of the work, each with what it waits for. */
export function Yard({
  jobs,
  units,
  mayAdd,
  mayMove,
  settings,
  settled,
}: {
  jobs: YardJob[]
  units: MemberUnits
  mayAdd: boolean
  mayMove: boolean
  settings: ShopSettings
  settled: KeptBoard | null
}) {
  const [filter, setFilter] = useState('')
  const alive = useHydrated()
  const [adding, setAdding] = useState(false)
  const fmt = useMemo(() => formatter(units), [units])
  const wanted = filter.trim().toLowerCase()
  const shown = jobs.filter((j) => `${j.name} ${j.vehicle} ${j.customerRef}`.toLowerCase().includes(wanted))
  const groups = STAGES.map((stage) => ({ stage, jobs: shown.filter((j) => j.stage === stage) })).filter(
    (g) => g.jobs.length > 0,
  )
  return (
    <main className="sheet wide" id="main">
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Yard</h1>
        <span className="label">
          {jobs.length} {jobs.length === 1 ? 'job' : 'jobs'}
        </span>
        <span className="flex-fill" />
        <FilterBox label="Filter jobs" width={240} value={filter} onText={setFilter} />
        {mayAdd && (
          <Button disabled={!alive} onClick={() => setAdding(true)}>
            New job
          </Button>
        )}
      </div>
      {jobs.length === 0 && <p className="plate">No job yet. “New job” takes the first vehicle in.</p>}
      {jobs.length > 0 && shown.length === 0 && <p className="plate">No job matches “{filter}”.</p>}
      <Alerts jobs={shown} fmt={fmt} />
      {jobs.length > 0 && (
        <Board
          jobs={boardRows(jobs)}
          shown={new Set(shown.map((j) => j.id))}
          shop={settings}
          settled={settled}
          fmt={fmt}
          mayMove={mayMove}
        />
      )}
      {groups.map(({ stage, jobs: own }) => (
        <section key={stage} className="row g-2 mb-3 pb-3 border-bottom">
          <h2 className="col-md-2 pt-2">
            {word('stage', stage)} <span className="label">{own.length}</span>
          </h2>
          <div
            className="col-md-10 d-grid gap-2"
            style={{ gridTemplateColumns: 'repeat(auto-fill, minmax(300px, 1fr))' }}
          >
            {own.map((j) => (
              <Link
                key={j.id}
                href={`/jobs/${j.id}/${j.stage}`}
                className="plate text-reset text-decoration-none d-flex gap-3"
              >
                <span className="rivet mt-1" data-state={j.stageState} title={word('state', j.stageState)} />
                <span className="min-w-0">
                  <b className="d-block text-break">{j.name}</b>
                  <span className="label d-block">
                    {j.vehicle}
                    {j.customerRef && ` · ${j.customerRef}`}
                  </span>
                  <span className="d-block">
                    {word('state', j.stageState)}: {stageWhy({ why: j.waitsFor, facts: j.waitsFacts }, fmt)}
                    {j.behind && j.waitsFor !== 'settling' && (
                      <span className="label d-block">The last change is still being reckoned.</span>
                    )}
                  </span>
                </span>
              </Link>
            ))}
          </div>
        </section>
      ))}
      <KeepJobs
        jobIds={jobs
          .filter((j) => j.stageState !== 'settled' || j.stage !== 'handover')
          .slice(0, 16)
          .map((j) => j.id)}
      />
      <NewJob show={adding} onHide={() => setAdding(false)} units={units} />
    </main>
  )
}
