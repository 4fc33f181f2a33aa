'use client'

import { useMemo, useState } from 'react'
import Form from 'react-bootstrap/Form'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import type { EdgeHeatAsk } from '@/core/engines/heat/edge-heat'
import { Fig } from '@/web/job/figure'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { CornerTable } from './corner-table'
import { EdgeCard } from './edge-card'
import { EdgeTable } from './edge-table'
import { Supplies } from './supplies'

const keyOf = (e: EdgeDecision): string => `${e.pieceId}/${e.panelId}/${e.edgeId}`

/** Every edge and corner of the job: where it is cut, how much is left, how it is held, and why. */
export function Edges() {
  const { plan, reckoning, fmt, catalogue } = useJob()
  const { edges, corners, consumables } = reckoning.edges
  const [filter, setFilter] = useState('')
  const [picked, setPicked] = useState<string | null>(null)
  const names = useMemo(() => new Map(plan.panels.map((p) => [p.id, p.name])), [plan.panels])
  const shown = edges.find((e) => keyOf(e) === picked) ?? edges[0]
  const heat = useMemo((): EdgeHeatAsk | null => {
    const panel = plan.panels.find((p) => p.id === shown?.panelId)
    const piece = reckoning.pieces.find((p) => p.id === shown?.pieceId)
    const film = plan.film.sheets.find((f) => f.id === piece?.filmId)
    if (!shown || !panel || !film || shown.heat === 'none') return null
    const { thicknessUm, postHeatC, heatLimitC } = film
    return {
      panel: { surface: panel.surface },
      film: { thicknessUm, postHeatC, heatLimitC },
      guns: catalogue.shop?.guns ?? [],
      lengthMm: shown.lengthMm,
    }
  }, [plan, reckoning.pieces, catalogue.shop, shown])
  return (
    <>
      <div className="bench-head">
        <h1>Edges</h1>
        <span className="label">
          {edges.length} edges, {corners.length} corners, <Fig id="rail/edges" /> of edge
        </span>
        <span className="spacer" />
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
          <EdgeCard edge={shown} name={names.get(shown.panelId) ?? ''} names={names} fmt={fmt} heat={heat} />
          <Supplies consumables={consumables} fmt={fmt} />
          <EdgeTable
            edges={edges}
            names={names}
            fmt={fmt}
            filter={filter}
            picked={keyOf(shown)}
            keyOf={keyOf}
            onPick={setPicked}
          />
          <CornerTable corners={corners} edges={edges} names={names} fmt={fmt} filter={filter} />
        </>
      ) : (
        <p className="plate">No piece yet: tape a panel and choose a film, and its edges are decided here.</p>
      )}
    </>
  )
}
