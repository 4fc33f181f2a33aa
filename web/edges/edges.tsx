'use client'

import { useCallback, useMemo, useState } from 'react'
import Form from 'react-bootstrap/Form'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import type { EdgeHeatAsk } from '@/core/engines/heat/edge-heat'
import { Fig } from '@/web/job/figure'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { SkinMap } from '@/web/skin/skin-map'
import { CutMark } from './cut-mark'
import { EdgeBands } from './edge-bands'
import { gapOrSpan } from '@/core/model/plan/gaps-and-spans'
import { EdgeFields } from './edge-fields'
import { CornerTable } from './corner-table'
import { EdgeCard } from './edge-card'
import { outlineOf } from '@/core/model/vehicle/outline'
import { edgeLine } from '@/web/charts/point-marks'
import type { PanelFrame } from './heat-pictures'
import { EdgeTable, matches } from './edge-table'
import { EdgesTogether } from './edges-together'
import { Supplies } from './supplies'
import { usePickedEdge } from './use-picked-edge'
import './edges.scss'

const keyOf = (e: EdgeDecision): string => `${e.pieceId}/${e.panelId}/${e.edgeId}`

/** The edge that is picked: its section and its fields, either of which changes it. */
function Picked({
  decided,
  ...card
}: { decided: EdgeDecision } & Pick<CardProps, 'name' | 'names' | 'heat' | 'sweep' | 'frame'>) {
  const { fmt } = useJob('fmt')
  const picked = usePickedEdge(decided)
  const change = picked?.change ?? null
  return (
    <EdgeCard
      {...card}
      edge={decided}
      fmt={fmt}
      onMeasure={change && ((id, mm) => change(id === 'gap' ? gapOrSpan(mm) : { leaveMm: mm }))}
      fields={
        picked && (
          <EdgeFields
            {...picked}
            decided={decided}
            fmt={fmt}
            disabled={change === null}
            onEdge={(part) => change?.(part)}
          />
        )
      }
    />
  )
}
type CardProps = Parameters<typeof EdgeCard>[0]

/** Every edge and corner of the job: where it is cut, how much is left, how it is held, and why. */
export function Edges() {
  const { plan, reckoning, fmt, catalogue, jobId, mayTape } = useJob(
    'plan',
    'reckoning',
    'fmt',
    'catalogue',
    'jobId',
    'mayTape',
  )
  const { edges, corners, consumables } = reckoning.edges
  const [filter, setFilter] = useState('')
  const [picked, setPicked] = useState<string | null>(null)
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set())
  const mark = useCallback((key: string, isMarked: boolean) => {
    setMarked((was) => new Set(isMarked ? [...was, key] : [...was].filter((k) => k !== key)))
  }, [])
  const names = useMemo(() => new Map(plan.panels.map((p) => [p.id, p.name])), [plan.panels])
  const shownInTable = edges.filter((e) => matches(e, names, filter))
  const shown = edges.find((e) => keyOf(e) === picked) ?? edges[0]
  const heat = useMemo((): EdgeHeatAsk | null => {
    const panel = plan.panels.find((p) => p.id === shown?.panelId)
    const piece = reckoning.laid.find((p) => p.id === shown?.pieceId)
    const film = plan.film.sheets.find((f) => f.id === piece?.filmId)
    if (!shown || !panel || !film || shown.heat === 'none') return null
    const { thicknessUm, postHeatC, heatLimitC } = film
    return {
      panel: { surface: panel.surface },
      film: { thicknessUm, postHeatC, heatLimitC },
      guns: catalogue.shop?.guns ?? [],
    }
  }, [plan, reckoning.laid, catalogue.shop, shown])
  const frame = useMemo((): PanelFrame | null => {
    const panel = plan.panels.find((p) => p.id === shown?.panelId)
    if (!panel) return null
    const own = edges.filter((e) => e.panelId === panel.id && e.heat === 'point')
    return {
      name: panel.name,
      path: outlineOf(panel).path,
      heated: own.map((e) => edgeLine(panel, e.edgeId)).filter((line) => line.length > 1),
    }
  }, [plan.panels, edges, shown?.panelId])
  return (
    <>
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Edges</h1>
        <span className="label">
          {edges.length} edges, {corners.length} corners, <Fig id="rail/edges" /> of edge
        </span>
        <span className="flex-fill" />
        <a className="btn btn-outline-secondary btn-sm" href={`/jobs/${jobId}/trim.pdf`}>
          Trim plan (PDF)
        </a>
        <Form.Control
          size="sm"
          type="search"
          className="w-auto"
          placeholder="Panel, cut, reason"
          aria-label="Filter edges"
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
        />
      </div>
      <Findings stage="edges" />
      {shown ? (
        <>
          <details className="plate mb-3" open>
            <summary className="mb-1">
              <b>On the skin</b>{' '}
              <span className="label">a band as wide as film is left; a letter for the cut side</span>
            </summary>
            <SkinMap
              plan={plan}
              layer="plain"
              selected={[shown.panelId]}
              onSelect={([id]) => {
                const own = edges.find((e) => e.panelId === id)
                if (own) setPicked(keyOf(own))
              }}
              height="min(46vh, 480px)"
              over={(skin) => (
                <EdgeBands
                  skin={skin}
                  edges={edges}
                  corners={corners}
                  picked={shown}
                  onPick={(e) => setPicked(keyOf(e))}
                />
              )}
            />
            <p className="d-flex flex-wrap gap-1 column-gap-3 mb-0">
              {[...new Set(edges.map((e) => e.cut))].map((cut) => (
                <CutMark key={cut} cut={cut} />
              ))}
            </p>
          </details>
          <Picked
            key={keyOf(shown)}
            decided={shown}
            name={names.get(shown.panelId) ?? ''}
            names={names}
            heat={heat}
            sweep={reckoning.parts.heat.byPanel.get(shown.panelId)}
            frame={frame}
          />
          <Supplies consumables={consumables} />
          {marked.size > 0 && (
            <EdgesTogether
              marked={edges.filter((e) => marked.has(keyOf(e)))}
              all={shownInTable.length}
              onMarkAll={() => setMarked(new Set(shownInTable.map(keyOf)))}
              onDone={() => setMarked(new Set())}
            />
          )}
          <EdgeTable
            edges={edges}
            names={names}
            fmt={fmt}
            filter={filter}
            picked={keyOf(shown)}
            marked={mayTape ? marked : null}
            keyOf={keyOf}
            onPick={setPicked}
            onMark={mark}
          />
          <CornerTable corners={corners} edges={edges} names={names} fmt={fmt} filter={filter} />
        </>
      ) : (
        <p className="plate">No piece yet: tape a panel and choose a film, and its edges are decided here.</p>
      )}
    </>
  )
}
