'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import { pointWindow } from '@/core/engines/heat/point-window'
import type { HeatPoint } from '@/core/engines/heat/heat-points'
import { cardsOf, currentCard } from '@/core/engines/run-sheet/cards'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { pointName } from '@/web/handover/point-name'
import { useJob } from '@/web/job/job-state'
import { serverNow } from '@/web/kit/clock'
import { word } from '@/web/words/names'
import { Pacer } from './pacer'
import { PointDrawing } from './point-drawing'
import type { StatedPoint } from './stated-point'
import { useNow } from './use-now'
import { Reading, type Instrument, type LastReading } from './reading'
import { useHands } from './use-hands'

/** Heat, panel by panel: pick the places, pace the gun, take the gun away, read. What expires soon comes first. */
export function HeatView() {
  const panels = usePanels()
  const [picked, setPicked] = useState<string | null>(null)
  const [listed, setListed] = useState(false)
  const [last, setLast] = useState<LastReading | null>(null)
  const now = useCurrentPanel()
  const panel =
    panels.find((p) => p.id === picked) ??
    panels.find((p) => p.id === now && p.open > 0) ??
    panels.find((p) => p.open > 0)
  if (panels.length === 0) return <p className="fs-4 m-3">No place needs a reading.</p>
  const shown = panel ?? panels[0]
  if (!shown) return null
  if (listed)
    return (
      <ol className="bay-list" aria-label="Panels to heat" tabIndex={0}>
        {panels.map((p) => (
          <li key={p.id}>
            <Button
              variant="plain"
              aria-pressed={p.id === shown.id}
              onClick={() => {
                setPicked(p.id)
                setListed(false)
              }}
            >
              <span className="rivet" data-state={p.open === 0 ? 'settled' : 'missing'} />
              <span className="flex-fill text-start">{p.name}</span>
              <span>{p.open === 0 ? 'all read' : `${p.open} of ${p.points.length} open`}</span>
            </Button>
          </li>
        ))}
      </ol>
    )
  return (
    <PanelHeat
      key={shown.id}
      panelId={shown.id}
      name={shown.name}
      points={shown.points}
      onList={() => setListed(true)}
      last={last}
      onLast={setLast}
    />
  )
}

/** Panels with their places, most urgent first: by when the film's window closes, then as they are walked. */
function usePanels() {
  const { reckoning, plan, ledger } = useJob('reckoning', 'plan', 'ledger')
  const now = useNow(15_000)
  const clock = new Date(now ?? serverNow()).toISOString().slice(0, 16)
  const films = reckoning.parts.films
  const filmOf = new Map(reckoning.laid.map((p) => [p.id, films.get(p.filmId)]))
  const byPanel = new Map<string, StatedPoint[]>()
  for (const point of reckoning.points) {
    const { state, until } = pointWindow(point, filmOf.get(point.pieceId), ledger, clock)
    byPanel.set(point.panelId, [...(byPanel.get(point.panelId) ?? []), { point, state, until }])
  }
  const list = [...byPanel].map(([id, points], walk) => ({
    id,
    walk,
    name: plan.panels.find((p) => p.id === id)?.name ?? id,
    points,
    open: points.filter((p) => p.point.state === 'due').length,
    until: points.find((p) => p.until !== null && p.point.state === 'due')?.until ?? null,
  }))
  return list.sort((a, b) => (a.until ?? '9').localeCompare(b.until ?? '9') || a.walk - b.walk)
}

function useCurrentPanel(): string | null {
  const { reckoning } = useJob('reckoning')
  return currentCard(cardsOf(plannedSteps(reckoning.steps)), useHands())?.panelId ?? null
}

const ALL_EDGES: readonly HeatPoint['kind'][] = ['edge', 'corner']

function PanelHeat({
  panelId,
  name,
  points,
  onList,
  last,
  onLast,
}: {
  panelId: string
  name: string
  points: readonly StatedPoint[]
  onList: () => void
  last: LastReading | null
  onLast: (last: LastReading) => void
}) {
  const { fmt } = useJob('fmt')
  const [picked, setPicked] = useState<readonly string[] | null>(null)
  const [pacing, setPacing] = useState(false)
  const [awaySince, setAwaySince] = useState<number | null>(null)
  // From place to place it stays on.
  const [instrument, setInstrument] = useState<Instrument>({ scene: null, dulled: false })
  const open = points.filter((p) => p.point.state === 'due')
  const first = open[0] ?? points[0]
  const chosen = points.filter((p) => (picked ?? [first?.point.id]).includes(p.point.id))
  const lead = chosen[0]
  const edges = open.filter((p) => ALL_EDGES.includes(p.point.kind)).map((p) => p.point.id)
  const pick = (ids: readonly string[]) => {
    setPicked(ids)
    setAwaySince(null)
  }
  if (!lead) return null
  const { range, limitC } = lead.point
  return (
    <section className="bay-heat" aria-label="Heat">
      <div className="heat-head d-flex flex-wrap gap-2 align-items-center">
        <Button variant="plain" onClick={onList} aria-label={`${name}: other panels`}>
          {name} ▾
        </Button>
        <span>
          <b>
            {fmt.temp(range.min).text}–{fmt.text(fmt.temp(range.max))}
          </b>
          , never over {fmt.text(fmt.temp(limitC))}
        </span>
      </div>
      {pacing ? (
        <Pacer
          panelId={panelId}
          point={lead.point}
          onEnd={(away) => {
            setPacing(false)
            setAwaySince(away ? serverNow() : null)
          }}
        />
      ) : (
        <>
          <PointDrawing
            panelId={panelId}
            points={points}
            chosen={chosen.map((p) => p.point.id)}
            onPick={(id) => pick([id])}
          />
          <Stepper points={points} chosen={chosen} edges={edges} onPick={pick} />
          <div className="point-chips" role="group" aria-label="Places">
            {points.map(({ point, state }, i) => (
              <Button
                key={point.id}
                variant="plain"
                aria-pressed={chosen.some((c) => c.point.id === point.id)}
                aria-label={`${i + 1}, ${pointName(point)}: ${word('pointState', state)}`}
                data-state={state}
                onClick={() => pick([point.id])}
              >
                {i + 1} <small>{word('pointMark', state)}</small>
              </Button>
            ))}
            {edges.length > 1 && (
              <Button variant="plain" aria-pressed={chosen.length > 1} onClick={() => pick(edges)}>
                All {edges.length} edges
              </Button>
            )}
          </div>
          <Reading
            key={chosen.map((p) => p.point.id).join()}
            points={chosen.map((p) => p.point)}
            title={chosen.length > 1 ? `${chosen.length} places` : pointName(lead.point)}
            state={lead}
            awaySince={awaySince}
            instrument={instrument}
            last={last}
            onInstrument={setInstrument}
            onLast={onLast}
            onPace={() => setPacing(true)}
            onNext={() => pick([open.find((p) => !chosen.includes(p))?.point.id ?? lead.point.id])}
          />
        </>
      )}
    </section>
  )
}

/** One place after the other, where there is no room for all of them at once. */
function Stepper({
  points,
  chosen,
  edges,
  onPick,
}: {
  points: readonly StatedPoint[]
  chosen: readonly StatedPoint[]
  edges: readonly string[]
  onPick: (ids: readonly string[]) => void
}) {
  const at = points.findIndex((p) => p === chosen[0])
  const go = (by: number) => {
    const next = points[(at + by + points.length) % points.length]
    if (next) onPick([next.point.id])
  }
  return (
    <div className="point-stepper" role="group" aria-label="Place by place">
      <Button variant="plain" aria-label="Place before" onClick={() => go(-1)}>
        ‹
      </Button>
      <span>{chosen.length > 1 ? `${chosen.length} of ${points.length}` : `${at + 1} of ${points.length}`}</span>
      <Button variant="plain" aria-label="Next place" onClick={() => go(1)}>
        ›
      </Button>
      {edges.length > 1 && (
        <Button variant="plain" aria-pressed={chosen.length > 1} onClick={() => onPick(edges)}>
          All {edges.length} edges
        </Button>
      )}
    </div>
  )
}
