'use client'

import Button from 'react-bootstrap/Button'
import Table from 'react-bootstrap/Table'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { WayPart } from '@/core/model/figure/figure-id'
import type { FilmSheet } from '@/core/model/film/schema'
import { applyChange } from '@/core/model/plan/plan-change'
import { wayFigureId, wayFigures } from '@/core/stages/pieces/way-figures'
import type { Panel } from '@/core/model/vehicle/schema'
import { Fig, type Figures } from '@/web/job/figure'
import { signed } from '@/web/words/format'
import { useJob } from '@/web/job/job-state'
import type { PricedWay, StretchNews } from '@/web/workers/stretch.worker'
import { faultText } from '@/web/words/faults'
import { SEEN, solvedText } from '@/web/words/stretch-words'
import type { ScanSurface } from '@/core/solve/mesh/scan'
import type { SolvedWay } from '@/core/engines/stretch/way-candidates'
import { startStretch } from './stretch-workers'
import { keyOf } from './use-stretch'

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
  const { plan, catalogue, ledger, fmt, edit, undo, mayPlan, reckoning } = useJob()
  const panelId = panel.id
  const [state, setState] = useState<{
    key: string
    share: number
    now: SolvedWay | null
    ways: PricedWay[]
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
  const stale = state !== null && state.key !== key
  const take = (way: PricedWay) => {
    onTaken()
    edit((was) => applyChange(was, way.change))
  }
  // Against the job as it was when they were solved.
  const among = useMemo(() => {
    if (!state) return new Map()
    const [used, crew] = [state.base.get('rail/film_used'), state.base.get('rail/crew_minutes')]
    const own = state.ways.flatMap((w, n) =>
      wayFigures({ panel, film, way: w, n, now: state.now, price: w.price, used, crew }),
    )
    const now = state.now
      ? wayFigures({ panel, film, way: state.now, n: 'now', now: null, price: null, used: undefined, crew: undefined })
      : []
    return new Map([...state.base, ...[...now, ...own].map((f) => [f.id, f] as const)])
  }, [state, panel, film])
  const cell = (n: number | 'now', part: WayPart, as?: string) => (
    <Fig
      among={among}
      id={wayFigureId(panelId, n, part)}
      {...(as === undefined ? {} : { as: { text: as, unit: '' } })}
    />
  )
  const shown = state ? (all ? state.ways : state.ways.slice(0, SHOWN)) : []
  return (
    <section aria-label="Ways out, solved" className="mt-2">
      <div className="d-flex gap-2 align-items-baseline flex-wrap">
        <h3 className="mb-0">Ways out</h3>
        {(!state || stale) && (
          <Button variant="outline-primary" size="sm" onClick={look}>
            {stale ? 'Solve them again' : 'Solve the ways out'}
          </Button>
        )}
        {state && !state.done && !stale && (
          <>
            <progress value={state.share} max={1} aria-label="Ways solved" style={{ width: 100 }} />
            <Button
              variant="link"
              size="sm"
              onClick={() => {
                stop.current()
                setState((s) => s && { ...s, done: true })
              }}
            >
              Stop
            </Button>
          </>
        )}
        {stale && <span className="label">the plan has changed since</span>}
        {stale && mayPlan && (
          <Button variant="link" size="sm" onClick={() => void undo()}>
            Undo the last change
          </Button>
        )}
      </div>
      {state?.fault && <p className="caution">{state.fault}</p>}
      {state?.done && state.ways.length === 0 && state.fault === '' && (
        <p className="mb-0">
          Nothing tried betters it: {state.now ? fmt.text(fmt.percent(state.now.worst)) : ''} as it is.
        </p>
      )}
      {shown.length > 0 && (
        <div className="scroll-x" style={stale ? { opacity: 0.55 } : undefined}>
          <Table bsPrefix="quiet-table">
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
                <tr key={JSON.stringify(w.change)}>
                  <td style={{ minWidth: 150 }}>
                    {solvedText(w, fmt)} {w.answers && <span className="label">answers</span>}
                    {w.wrinklesMm2 > 0 && <span className="label"> wrinkles {fmt.text(fmt.area(w.wrinklesMm2))}</span>}
                  </td>
                  <td className="n text-nowrap">{cell(n, 'worst')}</td>
                  <td className="n text-nowrap">{cell(n, 'over')}</td>
                  <td className="n text-nowrap">
                    {w.seamMm > 0 ? cell(n, 'seam', fmt.text(fmt.longLength(w.seamMm))) : '–'}
                  </td>
                  <td>{SEEN[w.seen]}</td>
                  <td className="n text-nowrap">
                    {w.price
                      ? cell(n, 'film', signed(w.price.filmMm, fmt.text(fmt.longLength(Math.abs(w.price.filmMm)))))
                      : ''}
                  </td>
                  <td className="n text-nowrap">
                    {w.price
                      ? cell(n, 'minutes', signed(w.price.minutes, fmt.text(fmt.minutes(Math.abs(w.price.minutes)))))
                      : ''}
                  </td>
                  <td className="n text-nowrap">
                    {mayPlan && !stale && (
                      <Button variant="outline-primary" size="sm" className="text-nowrap" onClick={() => take(w)}>
                        Take it
                      </Button>
                    )}
                  </td>
                </tr>
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
