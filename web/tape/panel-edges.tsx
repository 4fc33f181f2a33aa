'use client'

import { useCallback, useMemo } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import { taped } from '@/core/model/vehicle/resize'
import { MAX_PANEL_MM, WIDEST_GAP_MM } from '@/core/model/vehicle/kinds'
import type { Edge, Panel } from '@/core/model/vehicle/schema'
import { FeatureTable, type Column } from '@/web/kit/feature-table'
import type { Formatter } from '@/web/words/format'
import { words } from '@/web/words/names'

const edgeColumns = (others: readonly (readonly [string, string])[], locale: string): Column<Edge>[] => [
  { key: 'lengthMm', label: 'Length', kind: 'length', max: MAX_PANEL_MM },
  { key: 'meets', label: 'Meets', kind: 'word', list: 'edge' },
  { key: 'neighbour', label: 'Neighbour', kind: 'choice', options: others, none: '–' },
  { key: 'gapMm', label: 'Gap', kind: 'length', max: WIDEST_GAP_MM, optional: true, min: 0 },
  { key: 'spanMm', label: 'Span', kind: 'length', max: 5000, optional: true, min: WIDEST_GAP_MM + 1 },
  { key: 'riseMm', label: 'Rise', kind: 'length', max: MAX_PANEL_MM, min: -MAX_PANEL_MM },
  { key: 'cornerDeg', label: 'Corner °', kind: 'number', max: 359, min: 1, optional: true, digits: 1 },
  { key: 'cornerRadiusMm', label: 'Corner r', kind: 'length', max: 5000, optional: true, min: 0 },
  { key: 'grab', label: 'Grabbed', kind: 'word', list: 'grab' },
  { key: 'tightness', label: 'Seal', kind: 'choice', options: words('tightness'), none: 'by its width' },
  { key: 'opens', label: 'Opens', kind: 'choice', options: words('opens', locale), none: 'as usual' },
]
const edgeName = (e: Edge) => <span className="label text-nowrap">{e.id}</span>

/** The panel with its edges as they were typed: a run is taped when its length, rise or corner was. */
function withEdges(panel: Panel, edges: Edge[]): Panel {
  const typed = edges.filter((e) => {
    const was = panel.edges.find((w) => w.id === e.id)
    if (!was || was === e) return false
    const size = (x: Edge) => JSON.stringify([x.lengthMm, x.riseMm, x.cornerDeg])
    // Also when the assumed length was typed once more.
    return size(was) !== size(e) || JSON.stringify(was) === JSON.stringify(e)
  })
  return taped({ ...panel, edges }, ...typed.map((e) => `edges.${e.id}`))
}

/** The edges of one panel, clockwise: how long, what they meet, what stands beside them. */
export function PanelEdges({
  panel,
  plan,
  change,
  fmt,
}: {
  plan: Plan
  panel: Panel
  change: (f: (panel: Panel) => Panel) => void
  fmt: Formatter
}) {
  const { locale } = fmt.units
  // As text: a list with the same names in it is the same list.
  const others = JSON.stringify(plan.panels.filter((p) => p.id !== panel.id).map((p) => [p.id, p.name]))
  const columns = useMemo(() => edgeColumns(JSON.parse(others) as [string, string][], locale), [others, locale])
  const onRows = useCallback(
    (f: (rows: readonly Edge[]) => Edge[]) => change((p) => withEdges(p, f(p.edges))),
    [change],
  )
  return (
    <>
      <h3 className="mt-3">Edges, clockwise from the top left</h3>
      <FeatureTable
        rows={panel.edges}
        columns={columns}
        fmt={fmt}
        fixed
        onRows={onRows}
        naming={(e) => `${panel.name}, ${e.id} edge`}
        assumed={(e, key) => key === 'lengthMm' && panel.assumed.includes(`edges.${e.id}`)}
        extraHead="Edge"
        extra={edgeName}
      />
      <p className="label">
        Rise: how far a curved edge stands off its chord; hollow ones (a wheel arch) are negative, straight ones 0. Gap:
        up to {fmt.text(fmt.length(WIDEST_GAP_MM))}; a window, a wheel or nothing at all is a span.
      </p>
    </>
  )
}
