'use client'

import Link from 'next/link'
import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import { Sun, Moon } from 'react-bootstrap-icons'
import { defectsOf } from '@/core/engines/heat/defects'
import { useJob } from '@/web/job/job-state'
import { KeptEntries, SentMark } from '@/web/job/kept-entries'
import { findingText } from '@/web/words/findings'
import { CheckView } from './check-view'
import { HeatView } from './heat-view'
import { NowView } from './now-view'
import { PieceCard } from './piece-card'
import { SupplyView } from './supply-view'
import { TroubleView } from './trouble-view'
import { useNow } from './use-now'
import { useLight } from './use-light'
import { Waits } from './waits'

/** Stops of other stages that somebody with film in hand has to know of. */
const STOPS_IN_THE_BAY = new Set(['surface_near_dew', 'unfit_paint', 'unfit_fresh_repaint', 'panels_blocked'])

const VIEWS = ['now', 'heat', 'trouble', 'check', 'supply'] as const
type View = (typeof VIEWS)[number]
const NAMES: Record<View, string> = { now: 'Now', heat: 'Heat', trouble: 'Trouble', check: 'Check', supply: 'Film' }

/** The bay, full screen: what now, what next, what waits; heat, trouble, checks and film a tap away. With gloves. */
export function Bay() {
  const { reckoning, fmt, mayLog, ledger } = useJob()
  const [view, setView] = useState<View>('now')
  const [light, setLight] = useLight()
  const due = reckoning.points.filter((p) => p.state === 'due').length
  const open = defectsOf(ledger, reckoning.points).filter((d) => !d.closed).length
  const count: Partial<Record<View, number>> = { heat: due, trouble: open }
  // What stops hands at the car, wherever it was found.
  const stops = reckoning.findings.filter((f) => f.level === 'stop' && STOPS_IN_THE_BAY.has(f.code))
  return (
    <div className="bay bay-shell" data-light={light}>
      <Head light={light} onLight={() => setLight(light === 'day' ? 'night' : 'day')} />
      <nav className="bay-views" aria-label="Bay views">
        {VIEWS.map((v) => (
          <Button variant="plain" key={v} aria-pressed={view === v} onClick={() => setView(v)}>
            {NAMES[v]}
            {(count[v] ?? 0) > 0 && <b className="count"> {count[v]}</b>}
          </Button>
        ))}
      </nav>
      <div className="bay-body">
        <KeptEntries />
        <PieceCard />
        {stops.map((f) => (
          <div key={f.id} className="finding" data-level="stop" role="alert">
            {findingText(f, fmt)}
          </div>
        ))}
        <Waits />
        <fieldset disabled={!mayLog} className="bay-view">
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

/** One slim line: the way out, vehicle, clock, what waits to be sent, who. */
function Head({ light, onLight }: { light: 'day' | 'night'; onLight: () => void }) {
  const { plan, jobId, member, fmt } = useJob()
  const now = useNow(15_000)
  return (
    <header className="bay-head">
      <Link href={`/jobs/${jobId}/run-sheet`} className="btn btn-plain" aria-label="Out of the bay">
        ←
      </Link>
      <h1>{plan.vehicle.name}</h1>
      <span className="clock" aria-label="Time">
        {now === null ? '' : fmt.clock(new Date(now).toISOString())}
      </span>
      <SentMark />
      <span className="person">{member.name}</span>
      <Button variant="plain" aria-label={light === 'day' ? 'Dark' : 'Daylight'} onClick={onLight}>
        {light === 'day' ? <Moon aria-hidden /> : <Sun aria-hidden />}
      </Button>
    </header>
  )
}
