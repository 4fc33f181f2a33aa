import { Fragment, type ReactNode } from 'react'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import type { EdgeHeatAsk } from '@/core/engines/heat/edge-heat'
import type { SolvedHeat } from '@/core/model/catalogue/solved-heat'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { GunPlan } from './gun-plan'
import { CutMark } from './cut-mark'
import type { PanelFrame } from './heat-pictures'
import { Section } from './section'
import type { MeasureId } from './section-measures'

/** One edge: its section, its measures, and why it is so. */
export function EdgeCard({
  edge,
  name,
  names,
  fmt,
  heat,
  sweep,
  frame,
  fields,
  onMeasure,
}: {
  edge: EdgeDecision
  name: string
  names: ReadonlyMap<string, string>
  fmt: Formatter
  /** What the gun's pace hangs on; null where the edge is not heated. */
  heat: EdgeHeatAsk | null
  /** As it was solved behind the plan. */
  sweep: SolvedHeat | undefined
  /** The panel in its own plane with its heated edges. */
  frame: PanelFrame | null
  /** What can be typed of it. */
  fields: ReactNode
  /** A measure typed in the drawing; null where none may be changed. */
  onMeasure: ((id: MeasureId, mm: number | null) => void) | null
}) {
  const mm = (v: number) => fmt.text(fmt.length(v))
  const facts: [string, string][] = [
    ['Left after the cut', mm(edge.leaveMm)],
    ['Tucked or turned in', edge.tuckMm > 0 ? `${mm(edge.tuckMm)}, in bites of ${mm(edge.strokeMm)}` : 'not'],
    ['Blade', `${edge.bladeDeg}° point, new for each panel`],
    ['Before the cut', beforeCut(edge, fmt)],
    ['Then', `${word('edgeOrder', edge.order)}; ${word('edgeHeat', edge.heat)}`],
    [
      'Tape',
      edge.tapes.map((t) => `${word('supply', t.kind)} ${fmt.text(fmt.longLength(t.lengthMm))}`).join(', ') || 'none',
    ],
  ]
  const meets = edge.neighbour ? (names.get(edge.neighbour) ?? word('edge', edge.meets)) : word('edge', edge.meets)
  return (
    <section className="plate mb-3" aria-label="The edge picked">
      <h2 className="h6 mb-1">
        {name}, {edge.at} edge, {fmt.text(fmt.longLength(edge.lengthMm))} <span className="label">meets {meets}</span>
      </h2>
      <div className="row g-3">
        <div className="col-md-5">
          <Section edge={edge} fmt={fmt} onMeasure={onMeasure} />
        </div>
        <div className="col-md-7">
          <p className="mb-2">
            <CutMark cut={edge.cut} />
          </p>
          <dl className="facts">
            {facts.map(([term, text]) => (
              <Fragment key={term}>
                <dt>{term}</dt>
                <dd>{text}</dd>
              </Fragment>
            ))}
          </dl>
          {fields}
          <p className="label mb-0">Because: {edge.why.map((w) => word('edgeWhy', w)).join('; ')}. Common practice.</p>
        </div>
      </div>
      {heat && (
        <GunPlan
          key={JSON.stringify([edge.pieceId, edge.edgeId, heat])}
          ask={heat}
          known={sweep}
          panelId={edge.panelId}
          lengthMm={edge.lengthMm}
          frame={frame}
          fmt={fmt}
        />
      )}
    </section>
  )
}

function beforeCut(edge: EdgeDecision, fmt: Formatter): string {
  const wait = edge.waitMin > 0 ? `wait ${fmt.text(fmt.minutes(edge.waitMin))}` : ''
  const warm = edge.warmBeforeCut ? 'the last 50 mm lifted, warmed, laid without tension' : 'no heat'
  return [wait, warm].filter(Boolean).join(', ')
}
