'use client'

import { Explain } from '@/web/kit/explain'
import { TERMS, type Term } from '@/web/words/terms'
import Link from 'next/link'
import { usePathname } from 'next/navigation'
import type { ReactNode } from 'react'
import Button from 'react-bootstrap/Button'
import { fromShelf } from '@/core/engines/roll/from-shelf'
import { word } from '@/web/words/names'
import { faultText } from '@/web/words/faults'
import { stageWhy } from '@/web/words/stages'
import { Fig, Working } from './figure'
import { ClashDialog } from './clash-dialog'
import { HeldBar, HeldProvider } from './held'
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
        <HeldBar />
        <HeldProvider>{children}</HeldProvider>
      </main>
      <aside className="rail" aria-label="Reckoning">
        <h2 className="label mb-2">Reckoning</h2>
        <dl>
          {RAIL.map((code) => (
            <div key={code}>
              <dt>
                {word('rail', code)}
                {code in TERMS && <Explain term={code as Term} />}
              </dt>
              <dd>
                <Fig id={`rail/${code}`} />
                {code === 'film_order' && <FromShelf />}
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

/** Where nothing is to be ordered: which rolls the film comes from, and what is left of them after it. */
function FromShelf() {
  const { reckoning, catalogue, ledger, fmt } = useJob()
  const rolls = reckoning.layouts.flatMap((l) =>
    reckoning.purchases.get(l.film.id)?.covered ? fromShelf(l, catalogue.stock, ledger) : [],
  )
  return rolls.map((r) => (
    <small key={r.label} className="d-block">
      from the shelf: {r.label}, lot {r.lot}, {fmt.text(fmt.longLength(r.leftAfterMm))} left after
    </small>
  ))
}

function SaveMark() {
  const { save, number, undo, redo, said, held, jobId, fmt, mayPlan, mayTape, mayWalkaround } = useJob()
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
        {held.length > 0 && `, ${held.length} held back`}
      </span>
      {said && (
        <span className="label" role="status" data-testid="taken-back">
          {said}
        </span>
      )}
      {(mayPlan || mayTape || mayWalkaround) && (
        <>
          <Button variant="link" size="sm" className="p-0" title="Your own last change" onClick={() => void undo()}>
            Undo
          </Button>
          <Button variant="link" size="sm" className="p-0" onClick={() => void redo()}>
            Redo
          </Button>
        </>
      )}
      <Link className="btn btn-link btn-sm p-0" href={`/jobs/${jobId}/history`}>
        History
      </Link>
    </>
  )
}
