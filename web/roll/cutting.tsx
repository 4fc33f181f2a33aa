'use client'

import Button from 'react-bootstrap/Button'
import Link from 'next/link'
import { useState } from 'react'
import { KeptEntries, SentMark } from '@/web/job/kept-entries'
import { type FilmLayout } from '@/core/engines/roll/film-layout'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import { Cautions } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { Rests } from './rests'
import { CuttingRoll } from './cutting-roll'
import '@/web/kit/gloves.scss'
import './cutting.scss'

/** One cut at a time, in the bay: what the tape reads, what comes free, a tick when it is made. */
export function CuttingPage() {
  const { reckoning, jobId, plan } = useJob('reckoning', 'jobId', 'plan')
  const layouts = reckoning.layouts.filter((l) => l.rolls.length > 0)
  const [filmId, setFilm] = useState(layouts[0]?.film.id ?? '')
  const layout = layouts.find((l) => l.film.id === filmId) ?? layouts[0]
  return (
    <section className="bay" aria-label="Cutting">
      <div className="d-flex gap-3 align-items-baseline flex-wrap mb-2">
        <h1>Cutting</h1>
        <span>{plan.vehicle.name}</span>
        <span className="label">
          <SentMark />
        </span>
        <Link className="btn btn-plain ms-auto d-inline-flex align-items-center" href={`/jobs/${jobId}/roll`}>
          Back to the roll
        </Link>
      </div>
      <KeptEntries />
      {layouts.length > 1 && (
        <div className="d-flex gap-2 flex-wrap mb-2" role="group" aria-label="Film">
          {layouts.map((l) => (
            <Button variant="plain" key={l.film.id} aria-pressed={l === layout} onClick={() => setFilm(l.film.id)}>
              {l.film.name}
            </Button>
          ))}
        </div>
      )}
      {layout ? <OneFilm key={layout.film.id} layout={layout} /> : <p>Nothing to cut yet: it takes a layout.</p>}
    </section>
  )
}

function OneFilm({ layout }: { layout: FilmLayout }) {
  const { edit, mayPlan } = useJob('edit', 'mayPlan')
  if (plainFree(layout))
    return (
      <p className="plate">
        This layout is for a machine. The Roll page has its files; to cut by hand, set “by hand, straight cuts” there.
      </p>
    )
  if (layout.kept !== 'current')
    return (
      <div className="plate">
        <p>
          {layout.kept === 'stale'
            ? 'The plan changed after the layout was kept. Keep the new one before anything more is cut.'
            : 'Keep the layout first, so that it stays as it is while you cut.'}
        </p>
        <Button
          variant="go"
          disabled={!mayPlan}
          onClick={() =>
            edit((p) => ({
              ...p,
              layout: {
                ...p.layout,
                kept: [...p.layout.kept.filter((k) => k.filmId !== layout.film.id), keepLayout(layout)],
              },
            }))
          }
        >
          Keep this layout
        </Button>
        {!mayPlan && <p className="mt-2 mb-0">A lead keeps it.</p>}
      </div>
    )
  return (
    <>
      {layout.rolls.map((roll) => (
        <CuttingRoll key={roll.id} layout={layout} roll={roll} />
      ))}
      <div className="plate">
        <Rests layout={layout} />
        <p className="mb-0">Label every piece and every rest at once, arrow up.</p>
      </div>
      <Cautions codes={['blade']} />
    </>
  )
}
const plainFree = (layout: FilmLayout) => layout.rolls.every((r) => r.cutting.cuts.length === 0)
