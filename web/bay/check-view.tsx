'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import type { CheckPlace } from '@/core/engines/heat/check-places'
import { placesOf } from '@/core/reckon/places'
import { ENOUGH_PLACES } from '@/core/model/log/learned'
import { PLACE_RESULTS } from '@/core/model/log/kinds'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'

/** Place by place, by this vehicle's own risks: all round before the rest, and once more a day later. */
export function CheckView() {
  const places = usePlaces()
  const { reckoning, log, fmt } = useJob('reckoning', 'log', 'fmt')
  const rested = reckoning.recheckDueAt !== null
  const [picked, setRound] = useState<'check' | 'recheck' | null>(null)
  const round = picked ?? (rested ? 'recheck' : 'check')
  const open = places.filter((p) => p[round] === null)
  return (
    <div className="d-flex flex-column gap-2 overflow-y-auto">
      <div className="bay-grid" role="group" aria-label="Round">
        <Button variant="plain" aria-pressed={round === 'check'} onClick={() => setRound('check')}>
          All round
        </Button>
        <Button variant="plain" aria-pressed={round === 'recheck'} onClick={() => setRound('recheck')}>
          Recheck
        </Button>
      </div>
      <p className="mb-1">
        {round === 'check'
          ? 'Warm air over the whole surface, last wipe, no loose film in any opening; then these places.'
          : reckoning.recheckDueAt
            ? `Due ${fmt.moment(reckoning.recheckDueAt)}.`
            : 'Due a day after the rest begins.'}{' '}
        <b>
          {open.length} of {places.length} open
        </b>
      </p>
      {open.length > 0 && (
        <Button
          variant="plain"
          onClick={() => {
            for (const p of open) log(entry(p, round, 'holds'))
          }}
        >
          All of them hold
        </Button>
      )}
      <ol className="bay-list" aria-label="Places" tabIndex={0}>
        {places.map((p) => (
          <Place key={p.id} place={p} round={round} />
        ))}
      </ol>
    </div>
  )
}

const entry = (p: CheckPlace, round: 'check' | 'recheck', result: (typeof PLACE_RESULTS)[number]) =>
  ({ kind: 'place_checked', round, placeId: p.id, panelId: p.panelId, result }) as const

function Place({ place: p, round }: { place: CheckPlace; round: 'check' | 'recheck' }) {
  const { plan, log, catalogue } = useJob('plan', 'log', 'catalogue')
  /** Why it is looked at, and how such places stood in this shop, once there are enough of them. */
  const told = (why: CheckPlace['why'][number]): string => {
    const own = catalogue.record?.places[why]
    if (!own || own.cases < ENOUGH_PLACES) return word('checkWhy', why)
    return `${word('checkWhy', why)} (here ${own.redo} redone, ${own.pressed} pressed back of ${own.cases})`
  }
  const panel = plan.panels.find((x) => x.id === p.panelId)?.name ?? p.panelId
  const say = (result: (typeof PLACE_RESULTS)[number]) => {
    log(entry(p, round, result))
    // What has to be redone is a defect until somebody sees to it.
    if (result === 'redo') log({ kind: 'defect', panelId: p.panelId, defect: 'lifted_edge', note: p.name })
  }
  return (
    <li className="check-place d-flex flex-wrap gap-2 align-items-center">
      <span>
        <b>
          {panel}
          {p.name && `: ${p.name}`}
        </b>{' '}
        <span className="label">{p.why.map((w) => told(w)).join(', ')}</span>
      </span>
      <span className="bay-grid" role="group" aria-label={`${panel} ${p.name}`}>
        {PLACE_RESULTS.map((r) => (
          <Button key={r} variant="plain" aria-pressed={p[round]?.result === r} onClick={() => say(r)}>
            {word('placeResult', r)}
          </Button>
        ))}
      </span>
    </li>
  )
}

export function usePlaces(): CheckPlace[] {
  const { plan, reckoning, ledger } = useJob('plan', 'reckoning', 'ledger')
  return placesOf(plan, reckoning, ledger)
}
