'use client'

import { useEffect, useRef, useState } from 'react'
import Button from 'react-bootstrap/Button'
import ProgressBar from 'react-bootstrap/ProgressBar'
import { paceAt, paceFor, paceSeconds, type Pace, type PaceMoment } from '@/core/engines/heat/pace'
import type { HeatPoint } from '@/core/engines/heat/heat-points'
import { outlineOf } from '@/core/model/vehicle/outline'
import type { Panel } from '@/core/model/vehicle/schema'
import { along, edgeLine } from '@/web/charts/point-marks'
import { useGunPlan } from '@/web/edges/use-gun-plan'
import { pointName } from '@/web/handover/point-name'
import { useJob } from '@/web/job/job-state'
import { beep, buzz, useAwake } from './use-alarm'

const FRAME_MS = 50
const READY_S = 3
/** A place that is no edge is gone over so long, s. Assumed. */
const PLACE_S = 12

/** The gun's pace along one edge: a mark that runs along it, hold and passes; then gun away, wait, read. */
export function Pacer({
  panelId,
  point,
  onEnd,
}: {
  panelId: string
  point: HeatPoint
  onEnd: (away: boolean) => void
}) {
  const { plan, reckoning, catalogue } = useJob('plan', 'reckoning', 'catalogue')
  const panel = plan.panels.find((p) => p.id === panelId)
  const film = reckoning.parts.films.get(reckoning.laid.find((p) => p.id === point.pieceId)?.filmId ?? '')
  const known = reckoning.parts.heat.byPanel.get(panelId)
  const { state: worked, start } = useGunPlan()
  const state = known ?? worked
  const guns = catalogue.shop?.guns ?? []
  const lengthMm = point.lengthMm ?? 0
  const asked = useRef(false)
  useEffect(() => {
    if (known || asked.current || !panel || !film || guns.length === 0 || lengthMm < 200) return
    asked.current = true
    start({ panel, film, guns })
  })
  if (!panel) return null
  const pace: Pace =
    lengthMm > 0
      ? paceFor(panel, state.kind === 'plan' ? state : null, lengthMm)
      : { lengthMm: 1, holdS: PLACE_S, mmS: 1000, passes: 1, gapS: 0, beforeMm: 0, pastMm: 0, solved: false }
  return (
    <Run
      panel={panel}
      point={point}
      offered={pace}
      gun={
        state.kind === 'plan'
          ? (guns.find((g) => g.id === state.gun)?.name ?? state.gun)
          : state.kind === 'busy'
            ? 'working out this edge…'
            : 'usual pace, assumed'
      }
      onEnd={onEnd}
    />
  )
}

function Run({
  panel,
  point,
  offered,
  gun,
  onEnd,
}: {
  panel: Panel
  point: HeatPoint
  offered: Pace
  gun: string
  onEnd: (away: boolean) => void
}) {
  // Seconds since it began, less those it was paused; null until it is started.
  const [seconds, setSeconds] = useState<number | null>(null)
  const [runs, setRuns] = useState(false)
  // What it was begun with stands until it is begun anew, whatever is worked out meanwhile.
  const [begun, setBegun] = useState<{ pace: Pace; gun: string } | null>(null)
  const pace = begun?.pace ?? offered
  useAwake(runs)
  useEffect(() => {
    if (!runs) return
    let last = performance.now()
    const id = setInterval(() => {
      const now = performance.now()
      // Taken out of the clock before it is handed on: what is added may be reckoned later, several at once.
      const passed = (now - last) / 1000
      last = now
      setSeconds((s) => (s ?? -READY_S) + passed)
    }, FRAME_MS)
    return () => clearInterval(id)
  }, [runs])
  const at: PaceMoment | null = seconds === null || seconds < 0 ? null : paceAt(pace, seconds)
  const phase = at?.phase ?? (seconds === null ? 'still' : 'ready')
  const said = useRef('')
  useEffect(() => {
    if (said.current === phase) return
    said.current = phase
    if (phase === 'still') return
    beep(phase === 'away' ? 3 : 1, phase === 'gap' || phase === 'away' ? 520 : 880)
    buzz(phase === 'away' ? [200, 100, 200] : 120)
  }, [phase])
  const over = at?.phase === 'away'
  const total = paceSeconds(pace)
  return (
    <div className="pacer d-flex flex-column gap-2 min-h-0" aria-label="Pacer">
      <PaceDrawing panel={panel} point={point} at={at} />
      <ProgressBar
        className="pace-bar"
        now={Math.max(0, Math.min(100, ((seconds ?? 0) / total) * 100))}
        aria-label="How far along"
      />
      <p className="pace-word" role="status">
        {words(phase, at, seconds)}
      </p>
      <p className="label">
        {pointName(point)}: {begun?.gun ?? gun}; {pace.holdS > 0 ? `hold ${pace.holdS.toFixed(1)} s, ` : ''}
        {pace.mmS < 500 ? `${pace.mmS.toFixed(1)} mm/s` : 'go round it'}
        {pace.passes > 1 ? `, ${pace.passes} passes` : ''}; {Math.round(total)} s. Hot film and metal burn.
      </p>
      <div className="step-buttons">
        {over ? (
          <Button variant="go" className="btn-go" onClick={() => onEnd(true)}>
            Gun is away: read
          </Button>
        ) : (
          <Button
            variant="go"
            className="btn-go"
            onClick={() => {
              setBegun((was) => was ?? { pace: offered, gun })
              setRuns((r) => !r)
            }}
          >
            {runs ? 'Pause' : seconds === null ? 'Start' : 'Go on'}
          </Button>
        )}
        <span className="d-flex gap-2">
          <Button
            variant="plain"
            className="flex-fill"
            disabled={seconds === null}
            onClick={() => {
              setBegun({ pace: offered, gun })
              setSeconds(null)
              setRuns(true)
            }}
          >
            Again
          </Button>
          <Button variant="plain" className="flex-fill" onClick={() => onEnd(false)}>
            Back
          </Button>
        </span>
      </div>
    </div>
  )
}

function words(phase: string, at: PaceMoment | null, seconds: number | null): string {
  if (seconds === null) return 'Ready'
  if (!at) return `${Math.ceil(-seconds)}`
  if (at.phase === 'away') return 'Take the gun away, wait, read'
  const left = `${Math.ceil(at.leftS)} s`
  if (phase === 'hold') return `Hold here ${left}`
  if (phase === 'gap') return `Gun away ${left}`
  return `Along, ${left}`
}

/** The edge with the mark that runs along it; what moves is left out where somebody wants less motion. */
function PaceDrawing({ panel, point, at }: { panel: Panel; point: HeatPoint; at: PaceMoment | null }) {
  const outline = outlineOf(panel)
  const line = point.edgeId ? edgeLine(panel, point.edgeId) : []
  const u = Math.max(outline.widthMm, outline.heightMm * 1.6) / 20
  const path = `M${outline.path.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`
  const mark = at && 'along' in at && line.length > 1 ? along(line, at.along) : null
  return (
    <svg
      className="pace-drawing"
      viewBox={`${-3 * u} ${-3 * u} ${outline.widthMm + 6 * u} ${outline.heightMm + 6 * u}`}
      aria-hidden
    >
      <path className="sheet-outline" d={path} />
      {line.length > 1 && (
        <path className="pace-line" d={`M${line.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}`} />
      )}
      {mark && <circle className="pace-mark" cx={mark.x} cy={mark.y} r={u * 1.3} />}
    </svg>
  )
}
