'use client'

import Link from 'next/link'
import { useEffect, useState } from 'react'
import Alert from 'react-bootstrap/Alert'
import Button from 'react-bootstrap/Button'
import { Moon, PersonFill, Sun } from 'react-bootstrap-icons'
import { defectsOf } from '@/core/engines/heat/defects'
import { useJob } from '@/web/job/job-state'
import { KeptEntries, SentMark } from '@/web/job/kept-entries'
import { useOnline } from '@/web/offline/network-mark'
import { findingText } from '@/web/words/findings'
import { ChangePerson } from './change-person'
import { CheckView } from './check-view'
import { HeatView } from './heat-view'
import { NowView } from './now-view'
import { PieceCard } from './piece-card'
import { SupplyView } from './supply-view'
import { TroubleView } from './trouble-view'
import { endSession } from './tablet'
import { useIdle } from './use-idle'
import { useNow } from './use-now'
import { useLight } from './use-light'
import { Waits } from './waits'
import '@/web/kit/gloves.scss'
import './bay.scss'

/** Stops of other stages that somebody with film in hand has to know of. */
const STOPS_IN_THE_BAY = new Set(['surface_near_dew', 'unfit_paint', 'unfit_fresh_repaint', 'panels_blocked'])

const VIEWS = ['now', 'heat', 'trouble', 'check', 'supply'] as const
type View = (typeof VIEWS)[number]
const NAMES: Record<View, string> = { now: 'Now', heat: 'Heat', trouble: 'Trouble', check: 'Check', supply: 'Film' }

/** The bay, full screen: what now, what next, what waits; heat, trouble, checks and film a tap away. With gloves. */
export function Bay() {
  const { reckoning, fmt, mayLog, ledger } = useJob('reckoning', 'fmt', 'mayLog', 'ledger')
  const [view, setView] = useState<View>('now')
  const [light, setLight] = useLight()
  const due = reckoning.points.filter((p) => p.state === 'due').length
  const open = defectsOf(ledger, reckoning.points).filter((d) => !d.closed).length
  const count: Partial<Record<View, number>> = { heat: due, trouble: open }
  // What stops hands at the car, wherever it was found.
  const { person, onPerson } = useShift()
  const stops = reckoning.findings.filter((f) => f.level === 'stop' && STOPS_IN_THE_BAY.has(f.code))
  return (
    <div className="bay bay-shell" data-light={light}>
      <Head light={light} onLight={() => setLight(light === 'day' ? 'night' : 'day')} onPerson={onPerson} />
      {person}
      <nav className="bay-views" aria-label="Bay views">
        {VIEWS.map((v) => (
          <Button variant="plain" key={v} aria-pressed={view === v} onClick={() => setView(v)}>
            {NAMES[v]}
            {(count[v] ?? 0) > 0 && <b className="count"> {count[v]}</b>}
          </Button>
        ))}
      </nav>
      <div className="bay-body d-flex flex-column gap-2 min-h-0 p-2">
        <KeptEntries />
        <StandInNote onPerson={onPerson} />
        <PieceCard />
        {stops.map((f) => (
          <div key={f.id} className="finding" data-level="stop" role="alert">
            {findingText(f, fmt)}
          </div>
        ))}
        <Waits />
        <fieldset disabled={!mayLog} className="bay-view d-flex flex-column flex-fill min-h-0">
          {view === 'now' && <NowView onHeat={() => setView('heat')} />}
          {view === 'heat' && <HeatView />}
          {view === 'trouble' && <TroubleView />}
          {view === 'check' && <CheckView />}
          {view === 'supply' && <SupplyView />}
        </fieldset>
      </div>
    </div>
  )
}

/** Who works at this tablet: asked for by their name, and once nobody touched it for as long as the shop says. */
function useShift() {
  const { catalogue } = useJob('catalogue')
  const [open, setOpen] = useState(false)
  const { idle, wake } = useIdle(catalogue.shop?.lockAfterMin ?? 0)
  useEffect(() => {
    if (!idle) return
    // The session ends, now or once there is a network: what waits on the device goes out when its person is back.
    const end = () => void endSession().catch(() => {})
    end()
    window.addEventListener('online', end)
    return () => window.removeEventListener('online', end)
  }, [idle])
  return {
    person:
      open || idle ? (
        <ChangePerson
          locked={idle}
          onBack={() => {
            setOpen(false)
            wake()
          }}
        />
      ) : null,
    onPerson: () => setOpen(true),
  }
}

/** Who was let in without a network comes in at the server once there is one: only then their entries go out. */
function StandInNote({ onPerson }: { onPerson: () => void }) {
  const { standsIn, member } = useJob('standsIn', 'member')
  const online = useOnline()
  if (!standsIn) return null
  return (
    <Alert variant="warning" className="caution mb-2 d-flex gap-2 align-items-center">
      <span className="flex-fill">
        {member.name} was let in without a network. {online ? 'It is back: ' : 'Once it is back, '}four digits once more
        send what was entered.
      </span>
      {online && (
        <Button variant="plain" onClick={onPerson}>
          Come in
        </Button>
      )}
    </Alert>
  )
}

/** One slim line: the way out, vehicle, clock, what waits to be sent, who. */
function Head({ light, onLight, onPerson }: { light: 'day' | 'night'; onLight: () => void; onPerson: () => void }) {
  const { plan, jobId, member, fmt } = useJob('plan', 'jobId', 'member', 'fmt')
  const now = useNow(15_000)
  return (
    <header className="bay-head">
      <Link href={`/jobs/${jobId}/run-sheet`} className="btn btn-plain" aria-label="Out of the bay">
        ←
      </Link>
      <h1 className="fs-6 m-0 flex-grow-1" style={{ flexBasis: 0 }}>
        {plan.vehicle.name}
      </h1>
      <span className="clock fs-5 fw-bold" aria-label="Time">
        {now === null ? '' : fmt.clock(new Date(now).toISOString())}
      </span>
      <SentMark />
      <Button variant="plain" className="person" aria-label={`${member.name}: change person`} onClick={onPerson}>
        <PersonFill aria-hidden />
        <span className="name">{member.name}</span>
      </Button>
      <Button variant="plain" aria-label={light === 'day' ? 'Dark' : 'Daylight'} onClick={onLight}>
        {light === 'day' ? <Moon aria-hidden /> : <Sun aria-hidden />}
      </Button>
    </header>
  )
}
