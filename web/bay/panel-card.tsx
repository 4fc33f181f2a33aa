'use client'

import { useMemo } from 'react'
import { layingCard } from '@/core/engines/run-sheet/laying-card'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'
import { NEVER } from '@/web/words/trouble'
import { LayingDrawing } from './laying-drawing'

/** How a panel is laid: the drawing, and in a line each what matters most. */
export function PanelCard({ panelId }: { panelId: string }) {
  const { plan, reckoning, fmt } = useJob('plan', 'reckoning', 'fmt')
  const { edges, parts } = reckoning
  const panel = plan.panels.find((p) => p.id === panelId)
  const piece = reckoning.pieces.find((p) => p.panelId === panelId)
  const film = parts.films.get(piece?.filmId ?? '')
  const card = useMemo(
    () => (panel && film ? layingCard({ plan, panel, film, corners: edges.corners }) : null),
    [plan, panel, film, edges],
  )
  if (!card || !panel) return null
  const corners = [...new Set(card.corners.map((c) => word('cornerMethod', c.method)))]
  const dents = plan.walkaround.damage.filter((d) => d.panelId === panelId)
  return (
    <div className="panel-card">
      <LayingDrawing card={card} name={panel.name} />
      <ul>
        <li>Liner: {word('liner', card.liner)}</li>
        {corners.length > 0 && <li>Corners: {corners.join(', ')}</li>}
        {card.never.slice(0, 3).map((n) => (
          <li key={n}>{NEVER[n]}</li>
        ))}
        {dents.map((d) => (
          <li key={d.id} className="text-danger">
            Known before: {word('damage', d.kind)}
            {d.sizeMm ? `, ${fmt.text(fmt.length(d.sizeMm))}` : ''}
          </li>
        ))}
      </ul>
    </div>
  )
}
