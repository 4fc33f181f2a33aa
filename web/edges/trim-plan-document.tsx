import { Document, Line, Page, Path, Svg, Text, View } from '@react-pdf/renderer'
import type { CornerDecision } from '@/core/engines/edge/corner-plan'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import type { Plan } from '@/core/model/plan/schema'
import type { Point } from '@/core/kit/plane'
import { sectionMarks } from '@/web/charts/section-marks'
import { PaperHead } from '@/web/kit/paper-head'
import { s } from '@/web/walkaround/inspection-styles'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { CUT_LETTERS } from './cut-mark'

interface Props {
  plan: Plan
  edges: readonly EdgeDecision[]
  corners: readonly CornerDecision[]
  fmt: Formatter
  shop: string
  printedAt: string
}

const INK = '#16202e'
const line = (points: readonly Point[], close: boolean): string =>
  `M${points.map((p) => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`).join('L')}${close ? 'Z' : ''}`

/** The trim plan: each panel’s edges section by section, with blade and tuck, then its corners. */
export function TrimPlanDocument({ plan, edges, corners, fmt, shop, printedAt }: Props) {
  const panels = plan.panels.filter((p) => edges.some((e) => e.panelId === p.id))
  return (
    <Document title={`Trim plan, ${plan.vehicle.name}`} author={shop} language="en">
      <Page size="A4" style={s.page}>
        <PaperHead title="Trim plan" {...{ plan, shop, printedAt }} />
        <Text style={s.soft}>
          Sections are drawn to scale, film thick, blade as an arrow to where it cuts. Corners before straight runs.
          Only 3 to 5 mm of blade out; keep it off paint, seals and airbag covers.
        </Text>
        {panels.map((p) => (
          <View key={p.id}>
            <Text style={s.h2} minPresenceAhead={90}>
              {p.name}
            </Text>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
              {edges
                .filter((e) => e.panelId === p.id)
                .map((e) => (
                  <EdgeCell key={`${e.pieceId}/${e.panelId}/${e.edgeId}`} edge={e} fmt={fmt} />
                ))}
            </View>
            <Corners corners={corners.filter((c) => c.panelId === p.id)} fmt={fmt} />
          </View>
        ))}
      </Page>
    </Document>
  )
}

function EdgeCell({ edge: e, fmt }: { edge: EdgeDecision; fmt: Formatter }) {
  const marks = sectionMarks(e)
  const { view, blade } = marks
  const mm = (v: number) => fmt.text(fmt.length(v))
  return (
    <View style={{ width: '32%', border: '0.5pt solid #cdc4ac', padding: 3 }} wrap={false}>
      <Svg viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`} style={{ width: '100%', height: 52 }}>
        {marks.bodies.map((b) => (
          <Path
            key={b.id}
            d={line(b.points, true)}
            fill={b.id === 'seal' ? '#56606d' : '#e3dcc6'}
            stroke={INK}
            strokeWidth={0.4}
          />
        ))}
        <Path d={line(marks.film, false)} fill="none" stroke="#7a5910" strokeWidth={1.1} />
        {blade && (
          <>
            <Line x1={blade[0].x} y1={blade[0].y} x2={blade[1].x} y2={blade[1].y} stroke="#9c2f1d" strokeWidth={0.8} />
            <Path d={arrowHead(blade)} fill="#9c2f1d" />
          </>
        )}
      </Svg>
      <Text style={{ fontWeight: 600 }}>
        {CUT_LETTERS[e.cut]} {e.at}, {fmt.text(fmt.longLength(e.lengthMm))}
      </Text>
      <Text>
        {word('cutSide', e.cut)}; {mm(e.leaveMm)} left{e.tuckMm > 0 ? `, tuck ${mm(e.tuckMm)}` : ''}
      </Text>
      <Text style={s.soft}>
        {e.bladeDeg}°{e.waitMin > 0 ? `, wait ${fmt.text(fmt.minutes(e.waitMin))}` : ''}, {word('edgeHeat', e.heat)}
        {e.tapes.length > 0 ? `; ${e.tapes.map((t) => word('supply', t.kind)).join(', ')}` : ''}
      </Text>
    </View>
  )
}

function arrowHead([from, to]: readonly [Point, Point]): string {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1
  const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length]
  const wing = (side: number) => `${to.x - dx * 3 - dy * side * 1.3} ${to.y - dy * 3 + dx * side * 1.3}`
  return `M${to.x} ${to.y}L${wing(1)}L${wing(-1)}Z`
}

function Corners({ corners, fmt }: { corners: readonly CornerDecision[]; fmt: Formatter }) {
  if (corners.length === 0) return null
  return (
    <Text style={{ marginTop: 2 }}>
      Corners, trimmed to {fmt.text(fmt.length(corners[0]?.leaveMm ?? 3))}:{' '}
      {corners
        .map((c) => `${c.between.join('/')} ${word('cornerMethod', c.method)} (r ${fmt.text(fmt.length(c.radiusMm))})`)
        .join('; ')}
    </Text>
  )
}
