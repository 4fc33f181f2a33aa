'use client'

import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import type { LogRow } from '@/core/model/log/schema'
import { runningTimers } from '@/core/model/log/timers'
import type { Step } from '@/core/engines/run-sheet/step'
import { Cautions } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { KeptEntries, SentMark } from '@/web/job/kept-entries'
import { findingText } from '@/web/words/findings'
import { stepHint, stepTitle } from '@/web/words/steps'
import { FilmUsed } from './film-used'
import { HeatLog } from './heat-log'
import { Notes } from './notes'
import { PieceCard } from './piece-card'
import { RunningTimers, StartTimer } from './timers'
import { useNow } from './use-now'

/** Stops of other stages that somebody with film in hand has to know of. */
const STOPS_IN_THE_BAY = new Set(['surface_near_dew', 'unfit_paint', 'unfit_fresh_repaint', 'panels_blocked'])

const TABS = [
  ['steps', 'Steps'],
  ['heat', 'Heat'],
  ['film', 'Film'],
  ['notes', 'Defects'],
] as const

type Tab = (typeof TABS)[number][0]

/** The bay: what now, how hot, how long to wait, log it. Large, dark, with gloves. */
export function Bay() {
  const { reckoning, fmt, plan, mayLog } = useJob()
  const [tab, setTab] = useState<Tab>('steps')
  const due = reckoning.points.filter((p) => p.state === 'due').length
  const findings = reckoning.findings.filter((f) => f.stage === 'bay' && f.level !== 'note')
  // What stops hands at the car, wherever it was found.
  const stops = reckoning.findings.filter((f) => f.level === 'stop' && STOPS_IN_THE_BAY.has(f.code))
  return (
    <div className="bay">
      <div className="d-flex gap-3 align-items-baseline flex-wrap mb-2">
        <h1>Bay</h1>
        <span>{plan.vehicle.name}</span>
        <span className="ms-auto">
          <SentMark />
        </span>
      </div>
      <KeptEntries />
      <PieceCard />
      {stops.map((f) => (
        <div key={f.id} className="finding" data-level="stop" role="alert">
          {findingText(f, fmt)}
        </div>
      ))}
      <fieldset disabled={!mayLog}>
        <RunningTimers />
        <div className="d-flex gap-2 my-3 flex-wrap" role="group" aria-label="Bay views">
          {TABS.map(([code, label]) => (
            <Button
              variant="plain"
              key={code}
              className="flex-fill"
              aria-pressed={tab === code}
              onClick={() => setTab(code)}
            >
              {label}
              {code === 'heat' && due > 0 && ` (${due} due)`}
            </Button>
          ))}
        </div>
        {tab === 'steps' && <Steps />}
        {tab === 'heat' && <HeatLog />}
        {tab === 'film' && <FilmUsed />}
        {tab === 'notes' && <Notes />}
        <StartTimer />
      </fieldset>
      {findings.length > 0 && (
        <section className="mt-3" aria-label="Look here">
          {findings.map((f) => (
            <div key={f.id} className="finding" data-level={f.level}>
              {findingText(f, fmt)}
            </div>
          ))}
        </section>
      )}
    </div>
  )
}

function Steps() {
  const { reckoning, fmt } = useJob()
  const [picked, setPicked] = useState<string | null>(null)
  const open = plannedSteps(reckoning.steps)
  const current =
    open.find((s) => s.id === picked) ??
    open.find((s) => s.state === 'running') ??
    open.find((s) => s.state === 'to_do')
  const done = open.filter((s) => s.state === 'done').length
  if (!current) return <p className="fs-4">Every step is done.</p>
  return (
    <div className="row g-3">
      <div className="col-lg-7">
        <div className="plate">
          <span className="label">
            Step {open.indexOf(current) + 1} of {open.length}, {done} done
          </span>
          <h2 className="mt-1">{stepTitle(current)}</h2>
          <p className="fs-5">{stepHint(current, fmt)}</p>
          <div className="d-flex gap-4 flex-wrap mb-3">
            <Big label="Work" text={fmt.text(fmt.minutes(current.minutes))} />
            <Big label="People" text={String(current.people)} />
            {current.waitMin > 0 && <Big label="Then wait" text={fmt.text(fmt.minutes(current.waitMin))} />}
            {current.range && (
              <Big
                label="Surface"
                text={`${fmt.temp(current.range.min).text}–${fmt.text(fmt.temp(current.range.max))}`}
              />
            )}
          </div>
          {current.state === 'running' && (
            <p>
              Running for <Elapsed since={current.startedAt ?? ''} />
            </p>
          )}
          <StepButtons step={current} onDone={() => setPicked(null)} />
          <div className="mt-3">
            <Cautions codes={current.cautions} />
          </div>
        </div>
      </div>
      <div className="col-lg-5">
        <ol
          className="list-unstyled mb-0"
          style={{ maxHeight: 620, overflowY: 'auto' }}
          tabIndex={0}
          aria-label="All steps"
        >
          {open.map((s) => (
            <li key={s.id}>
              <Button
                variant="plain"
                className="w-100 text-start mb-1 d-flex gap-2 align-items-center"
                aria-pressed={s.id === current.id}
                onClick={() => setPicked(s.id)}
              >
                <span
                  className="rivet"
                  data-state={s.state === 'done' ? 'settled' : s.state === 'running' ? 'open' : 'missing'}
                />
                <span className="flex-fill">{stepTitle(s)}</span>
                <span className="condensed">{s.state === 'to_do' ? '' : s.state}</span>
              </Button>
            </li>
          ))}
        </ol>
      </div>
    </div>
  )
}

/**
 * Start on the left, done on the right: a second tap never falls on the next step's start. What was ticked can be
 * taken back.
 */
function StepButtons({ step, onDone }: { step: Step; onDone: () => void }) {
  const { log, reckoning, ledger } = useJob()
  const last = lastDone(ledger)
  const lastStep = reckoning.steps.find((s) => s.id === last && s.state === 'done')
  const done = () => {
    log({ kind: 'step_done', stepId: step.id })
    if (step.waitMin > 0)
      log({
        kind: 'timer_started',
        timerId: step.id,
        label: `After ${stepTitle(step)}`.slice(0, 120),
        minutes: step.waitMin,
      })
    onDone()
  }
  const takeBack = (stepId: string) => {
    log({ kind: 'step_done_taken_back', stepId })
    if (runningTimers(ledger).some((t) => t.timerId === stepId)) log({ kind: 'timer_ended', timerId: stepId })
  }
  return (
    <>
      <div className="step-buttons">
        <Button
          variant="outline-light"
          className="btn-go"
          disabled={step.state !== 'to_do'}
          onClick={() => log({ kind: 'step_started', stepId: step.id })}
        >
          Start this step
        </Button>
        <Button variant="outline-light" className="btn-go" disabled={step.state !== 'running'} onClick={done}>
          Done
        </Button>
      </div>
      {step.state === 'done' && (
        <p className="verdict mt-2 mb-0" data-verdict="good">
          Done
        </p>
      )}
      {lastStep && (
        <div className="d-flex gap-3 align-items-center flex-wrap mt-2">
          <span className="label">{stepTitle(lastStep)}: done</span>
          <Button variant="outline-light" className="btn-plain ms-auto" onClick={() => takeBack(lastStep.id)}>
            Not done after all
          </Button>
        </div>
      )}
    </>
  )
}

/** The step that was ticked last and stands. */
function lastDone(ledger: readonly LogRow[]): string | null {
  const done: string[] = []
  for (const { payload } of ledger) {
    if (payload.kind === 'step_done') done.push(payload.stepId)
    if (payload.kind === 'step_done_taken_back')
      done.splice(done.lastIndexOf(payload.stepId), done.includes(payload.stepId) ? 1 : 0)
  }
  return done.at(-1) ?? null
}

const Big = ({ label, text }: { label: string; text: string }) => (
  <span>
    <span className="label d-block">{label}</span>
    <span className="fs-3 fw-bold">{text}</span>
  </span>
)

function Elapsed({ since }: { since: string }) {
  const now = useNow(1000)
  if (now === null) return null
  const s = Math.max(0, Math.floor((now - Date.parse(since)) / 1000))
  return (
    <b>
      {Math.floor(s / 3600) > 0 && `${Math.floor(s / 3600)} h `}
      {Math.floor((s % 3600) / 60)} min
    </b>
  )
}
