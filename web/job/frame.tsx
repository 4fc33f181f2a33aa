'use client'

import Link from 'next/link'
import { usePathname } from 'next/navigation'
import type { ReactNode } from 'react'
import Modal from 'react-bootstrap/Modal'
import { word } from '@/web/words/names'
import { faultText, stageWhy } from '@/web/words/sentences'
import { Fig, Working } from './figure'
import { useJob } from './job-state'

const RAIL = [
  'film_order',
  'yield',
  'worst_stretch',
  'seams',
  'edges',
  'tape',
  'heat_points',
  'crew_minutes',
  'ready_at',
  'cost',
]

/** The chrome of a job: stage spine, the bench, the reckoning rail. */
export function JobFrame({ children }: { children: ReactNode }) {
  const { reckoning, jobId, fmt, plan } = useJob()
  const stage = usePathname().split('/')[3] ?? ''
  const locale = fmt.units.locale
  return (
    <div className="job" data-stage={stage}>
      <nav className="spine" aria-label="Stages">
        <ol>
          {reckoning.stages.map((s) => (
            <li key={s.stage}>
              <Link href={`/jobs/${jobId}/${s.stage}`} aria-current={stage === s.stage ? 'page' : undefined}>
                <span className="rivet" data-state={s.state} />
                <span>
                  {word('stage', s.stage)}
                  <small>
                    {word('state', s.state)}: {stageWhy(s, fmt)}
                  </small>
                </span>
              </Link>
            </li>
          ))}
        </ol>
      </nav>
      <main className="bench" id="main">
        <div className="d-flex gap-3 align-items-baseline flex-wrap mb-2 no-print">
          <span className="label">
            {plan.vehicle.name} · {word('vehicle', plan.vehicle.kind, locale)} · {plan.customerRef || 'no reference'}
          </span>
          <span className="ms-auto d-flex gap-3 align-items-baseline">
            <Link className="btn btn-link btn-sm p-0" href={`/jobs/${jobId}/skin`}>
              Skin
            </Link>
            <SaveMark />
          </span>
        </div>
        {children}
      </main>
      <aside className="rail" aria-label="Reckoning">
        <h2 className="label mb-2">Reckoning</h2>
        <dl>
          {RAIL.map((code) => (
            <div key={code}>
              <dt>{word('rail', code)}</dt>
              <dd>
                <Fig id={`rail/${code}`} />
              </dd>
            </div>
          ))}
        </dl>
      </aside>
      <Working />
      <ClashDialog />
    </div>
  )
}

function SaveMark() {
  const { save, number, undo, jobId, fmt, mayPlan } = useJob()
  const text =
    save.kind === 'saved'
      ? `Saved, revision ${number}`
      : save.kind === 'merged'
        ? `Saved with another's changes, revision ${number}`
        : save.kind === 'fault'
          ? faultText(save.fault, fmt)
          : save.kind === 'clash'
            ? 'Two changes clash'
            : 'Saving'
  return (
    <>
      <span
        className={`label${save.kind === 'fault' ? ' text-danger' : ''}`}
        role="status"
        data-testid="save-state"
        data-kind={save.kind}
      >
        {text}
      </span>
      {mayPlan && (
        <button type="button" className="btn btn-link btn-sm p-0" onClick={() => void undo()}>
          Undo
        </button>
      )}
      <Link className="btn btn-link btn-sm p-0" href={`/jobs/${jobId}/history`}>
        History
      </Link>
    </>
  )
}

const show = (v: unknown): string =>
  v === null || v === undefined ? 'not there' : JSON.stringify(v, null, 1).slice(0, 1500)

/** The two sides of a clash, and the choice. */
function ClashDialog() {
  const { save, settle } = useJob()
  if (save.kind !== 'clash') return null
  return (
    <Modal show size="lg" backdrop="static" keyboard={false} aria-labelledby="clash-title">
      <Modal.Header>
        <Modal.Title as="h2" id="clash-title">
          {save.by} changed the same thing meanwhile
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>
          Theirs is revision {save.number} ({save.summary}). Nothing of yours is saved yet. Choose which stands; the
          other stays in the history or on your screen.
        </p>
        {save.clashes.map((c) => (
          <div key={c.part} className="row mb-2">
            <div className="col-12 label">{c.part}</div>
            {(['mine', 'theirs'] as const).map((side) => (
              <div className="col-6" key={side}>
                <b>{side === 'mine' ? 'Yours' : 'Theirs'}</b>
                <pre className="plate small" style={{ maxHeight: 260, overflow: 'auto' }}>
                  {difference(c[side], c.base)}
                </pre>
              </div>
            ))}
          </div>
        ))}
      </Modal.Body>
      <Modal.Footer>
        <button type="button" className="btn btn-outline-secondary" onClick={() => settle('theirs')}>
          Take theirs
        </button>
        <button type="button" className="btn btn-primary" onClick={() => settle('mine')}>
          Save mine over it
        </button>
      </Modal.Footer>
    </Modal>
  )
}

/** The fields of one side that differ from the common ground. */
function difference(side: unknown, base: unknown): string {
  if (typeof side !== 'object' || side === null || typeof base !== 'object' || base === null) return show(side)
  const was = base as Record<string, unknown>
  return Object.entries(side)
    .filter(([k, v]) => JSON.stringify(v) !== JSON.stringify(was[k]))
    .map(([k, v]) => `${k}: ${show(v)}`)
    .join('\n')
}
