'use client'

import Button from 'react-bootstrap/Button'
import Table from 'react-bootstrap/Table'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { WayOutPart } from '@/core/model/figure/figure-id'
import type { FilmSheet } from '@/core/model/film/schema'
import { applyChange } from '@/core/model/plan/plan-change'
import { wayOutFigureId, wayOutFigures } from '@/core/stages/pieces/way-figures'
import type { Panel } from '@/core/model/vehicle/schema'
import { Fig, type Figures } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import type { PricedWayOut, StretchNews } from '@/web/workers/stretch.worker'
import { faultText } from '@/web/words/faults'
import type { ScanSurface } from '@/core/solve/mesh/scan'
import type { SolvedWayOut } from '@/core/engines/stretch/way-candidates'
import { startStretch } from './stretch-workers'
import { keyOf } from './use-stretch'
import { WayRow } from './way-row'
import { WaysHead } from './ways-head'

const SHOWN = 8

/** The ways out of one panel's stretch: each solved on its own mesh, priced through the layout, taken by one click. */
export function WaysTable({
  panel,
  film,
  scan,
  onTaken,
}: {
  panel: Panel
  film: FilmSheet
  scan: ScanSurface | null
  onTaken: () => void
}) {
  const { plan, catalogue, ledger, fmt, edit, reckoning } = useJob(
    'plan',
    'catalogue',
    'ledger',
    'fmt',
    'edit',
    'reckoning',
  )
  const panelId = panel.id
  const [state, setState] = useState<{
    key: string
    share: number
    now: SolvedWayOut | null
    ways: PricedWayOut[]
    done: boolean
    fault: string
    base: Figures
  } | null>(null)
  const [all, setAll] = useState(false)
  const stop = useRef<() => void>(() => {})
  const key = keyOf(plan, panelId, catalogue.scans)
  useEffect(() => () => stop.current(), [])
  const look = () => {
    stop.current()
    setState({ key, share: 0, now: null, ways: [], done: false, fault: '', base: reckoning.figures })
    stop.current = startStretch({ kind: 'ways', plan, panelId, catalogue, ledger, scan }, (news: StretchNews) => {
      if (news.kind === 'tick') setState((s) => s && { ...s, share: news.share })
      else if (news.kind === 'ways') setState((s) => s && { ...s, now: news.now, ways: news.ways, done: news.done })
      else if (news.kind === 'fault') setState((s) => s && { ...s, done: true, fault: faultText(news.fault) })
    })
  }
  const halt = () => {
    stop.current()
    setState((s) => s && { ...s, done: true })
  }
  const stale = state !== null && state.key !== key
  const take = (way: PricedWayOut) => {
    onTaken()
    edit((was) => applyChange(was, way.change))
  }
  // Against the job as it was when they were solved.
  const among = useMemo(() => {
    if (!state) return new Map()
    const [used, crew] = [state.base.get('rail/film_used'), state.base.get('rail/crew_minutes')]
    const own = state.ways.flatMap((w, n) =>
      wayOutFigures({ panel, film, way: w, n, now: state.now, price: w.price, used, crew }),
    )
    const now = state.now
      ? wayOutFigures({
          panel,
          film,
          way: state.now,
          n: 'now',
          now: null,
          price: null,
          used: undefined,
          crew: undefined,
        })
      : []
    return new Map([...state.base, ...[...now, ...own].map((f) => [f.id, f] as const)])
  }, [state, panel, film])
  const cell = (n: number | 'now', part: WayOutPart, as?: string) => (
    <Fig
      among={among}
      id={wayOutFigureId(panelId, n, part)}
      {...(as === undefined ? {} : { as: { text: as, unit: '' } })}
    />
  )
  const shown = state ? (all ? state.ways : state.ways.slice(0, SHOWN)) : []
  return (
    <section aria-label="Ways out, solved" className="mt-2">
      <WaysHead progress={state} stale={stale} look={look} onStop={halt} />
      {state?.fault && <p className="caution">{state.fault}</p>}
      {state?.done && state.ways.length === 0 && state.fault === '' && (
        <p className="mb-0">
          Nothing tried betters it: {state.now ? fmt.text(fmt.percent(state.now.worst)) : ''} as it is.
        </p>
      )}
      {shown.length > 0 && (
        <div className="scroll-x" style={stale ? { opacity: 0.55 } : undefined}>
          <Table>
            <thead>
              <tr>
                <th>Way out</th>
                <th className="n">Worst</th>
                <th className="n">Past limit</th>
                <th className="n">Seam</th>
                <th>Seen</th>
                <th className="n">Film</th>
                <th className="n">Crew time</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {state?.now && (
                <tr>
                  <td className="label">as it is</td>
                  <td className="n text-nowrap">{cell('now', 'worst')}</td>
                  <td className="n text-nowrap">{cell('now', 'over')}</td>
                  <td colSpan={5} />
                </tr>
              )}
              {shown.map((w, n) => (
                <WayRow key={JSON.stringify(w.change)} w={w} cell={cell} n={n} stale={stale} take={take} />
              ))}
            </tbody>
          </Table>
          {state && state.ways.length > SHOWN && !all && (
            <Button variant="link" size="sm" className="px-0" onClick={() => setAll(true)}>
              Show {state.ways.length - SHOWN} more
            </Button>
          )}
        </div>
      )}
    </section>
  )
}
