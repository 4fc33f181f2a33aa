'use client'

import Link from 'next/link'
import { usePathname } from 'next/navigation'
import { memo, type ReactNode } from 'react'
import Button from 'react-bootstrap/Button'
import { word } from '@/web/words/names'
import { faultText } from '@/web/words/faults'
import { stageWhy } from '@/web/words/stages'
import { HeldBar, HeldProvider } from './held'
import { useJob } from './job-state'
import { OverTheJob } from './over-the-job'
import { Rail } from './rail'
import './job.scss'

/** The chrome of a job: stage spine, the bench, the reckoning rail. */
export function JobFrame({ children }: { children: ReactNode }) {
  const { reckoning, jobId, fmt, plan } = useJob('reckoning', 'jobId', 'fmt', 'plan')
  const stage = usePathname().split('/')[3] ?? ''
  const locale = fmt.units.locale
  return (
    <div className="job" data-stage={stage}>
      <nav className="spine" aria-label="Stages">
        <ol>
          {reckoning.stages.map((s) => (
            <li key={s.stage}>
              <StageLink
                href={`/jobs/${jobId}/${s.stage}`}
                isHere={stage === s.stage}
                state={s.state}
                name={word('stage', s.stage)}
                why={`${word('state', s.state)}: ${stageWhy(s, fmt)}`}
              />
            </li>
          ))}
        </ol>
      </nav>
      <main className="bench" id="main">
        <div className="d-flex gap-3 align-items-baseline flex-wrap mb-2 d-print-none">
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
        <Rail />
      </aside>
      <OverTheJob />
    </div>
  )
}

const StageLink = memo(function StageLink({
  href,
  isHere,
  state,
  name,
  why,
}: {
  href: string
  isHere: boolean
  state: string
  name: string
  why: string
}) {
  return (
    <Link href={href} aria-current={isHere ? 'page' : undefined}>
      <span className="rivet" data-state={state} />
      <span>
        {name}
        <small>{why}</small>
      </span>
    </Link>
  )
})

function SaveMark() {
  const { save, number, undo, redo, said, held, jobId, fmt, mayPlan, mayTape, mayWalkaround } = useJob(
    'save',
    'number',
    'undo',
    'redo',
    'said',
    'held',
    'jobId',
    'fmt',
    'mayPlan',
    'mayTape',
    'mayWalkaround',
  )
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
