import { Circle, Document, G, Page, Path, Svg, Text, View } from '@react-pdf/renderer'
import type { HeatPoint } from '@/core/engines/heat/heat-points'
import { isDone } from '@/core/engines/heat/verdict'
import { skinOf, toSkin } from '@/core/engines/skin/skin'
import { outlineOf } from '@/core/model/vehicle/outline'
import type { Plan } from '@/core/model/plan/schema'
import { pointMarks } from '@/web/charts/point-marks'
import { pointName } from '@/web/handover/point-name'
import { PaperHead } from '@/web/kit/paper-head'
import { s } from '@/web/walkaround/inspection-styles'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

interface Props {
  plan: Plan
  points: readonly HeatPoint[]
  fmt: Formatter
  shop: string
  printedAt: string
}

const INK = '#16202e'
const GOOD = '#22603f'
const OPEN = '#9c2f1d'

/** Proof of heat: each place on the vehicle, what it reached, when and by whom, and what is missing. */
export function HeatRecordDocument({ plan, points, fmt, shop, printedAt }: Props) {
  const numbered = points.map((point, i) => ({ point, n: i + 1 }))
  const missing = numbered.filter(({ point }) => point.state === 'due')
  return (
    <Document title={`Heat record, ${plan.vehicle.name}`} author={shop} language="en">
      <Page size="A4" style={s.page}>
        <PaperHead title="Heat record" {...{ plan, shop, printedAt }} />
        <Text>
          {points.length - missing.length} of {points.length} places read hot enough.
          {missing.length > 0 ? ` Missing: ${missing.map((m) => m.n).join(', ')}.` : ''} Surface temperature, read after
          the gun was taken away.
        </Text>
        <SkinOfPoints plan={plan} numbered={numbered} />
        <View style={{ ...s.row, fontWeight: 600 }} fixed>
          {['#', 'Place', 'Wanted', 'Reached', 'When', 'By'].map((t, i) => (
            <Text key={t} style={{ width: WIDTHS[i] ?? '10%' }}>
              {t}
            </Text>
          ))}
        </View>
        {numbered.map(({ point, n }) => (
          <Row key={point.id} plan={plan} point={point} n={n} fmt={fmt} />
        ))}
      </Page>
    </Document>
  )
}

const WIDTHS = ['6%', '34%', '14%', '20%', '14%', '12%']

function Row({ plan, point, n, fmt }: { plan: Plan; point: HeatPoint; n: number; fmt: Formatter }) {
  const best = point.readings.findLast((r) => isDone(r.verdict)) ?? point.readings.at(-1)
  const panel = plan.panels.find((p) => p.id === point.panelId)?.name ?? point.panelId
  const cells = [
    String(n),
    `${panel}: ${pointName(point)}`,
    `${fmt.temp(point.range.min).text}–${fmt.text(fmt.temp(point.range.max))}`,
    best ? `${fmt.text(fmt.temp(best.tempC))}, ${word('verdict', best.verdict)}` : 'not read',
    best ? fmt.moment(best.at, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }) : '',
    best?.by ?? '',
  ]
  return (
    <View style={s.row} wrap={false}>
      {cells.map((text, i) => (
        <Text
          key={i}
          style={{ width: WIDTHS[i] ?? '10%', paddingRight: 3, color: point.state === 'due' && i === 3 ? OPEN : INK }}
        >
          {text}
        </Text>
      ))}
    </View>
  )
}

/** The vehicle with each place by its number: full where it is done, hollow where it is open. */
function SkinOfPoints({ plan, numbered }: { plan: Plan; numbered: readonly { point: HeatPoint; n: number }[] }) {
  const skin = skinOf(plan.panels)
  const view = {
    x: skin.box.left - 120,
    y: skin.box.top - 120,
    w: skin.box.right - skin.box.left + 240,
    h: skin.box.bottom - skin.box.top + 240,
  }
  const unit = Math.max(view.w / 520, view.h / 260)
  const places = plan.panels.flatMap((panel) => {
    const at = skin.panels.find((p) => p.id === panel.id)
    const own = numbered.filter(({ point }) => point.panelId === panel.id)
    if (!at || own.length === 0) return []
    const outline = outlineOf(panel)
    const [kx, ky] = [panel.widthMm / outline.widthMm, panel.heightMm / outline.heightMm]
    const marks = pointMarks(
      panel,
      own.map(({ point }) => point),
    )
    return own.flatMap(({ point, n }, i) => {
      const mark = marks[i]
      return mark ? [{ n, done: point.state === 'done', ...toSkin(at, panel, mark.at.x * kx, mark.at.y * ky) }] : []
    })
  })
  const path = (points: readonly { x: number; y: number }[]) =>
    `M${points.map((p) => `${p.x.toFixed(0)},${p.y.toFixed(0)}`).join('L')}Z`
  return (
    <Svg viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`} style={{ width: '100%', height: 260, marginVertical: 6 }}>
      {skin.panels.map((p) => (
        <Path key={p.id} d={path(p.path)} fill="#efe9d8" stroke={INK} strokeWidth={unit * 0.6} />
      ))}
      {places.map((p) => (
        <G key={p.n}>
          <Circle
            cx={p.x}
            cy={p.y}
            r={unit * 4.2}
            fill={p.done ? GOOD : '#ffffff'}
            stroke={p.done ? GOOD : OPEN}
            strokeWidth={unit * 0.8}
          />
          <Text
            x={p.x}
            y={p.y + unit * 1.8}
            style={{ fontSize: unit * 5, fontFamily: 'Archivo', fontWeight: 600 }}
            fill={p.done ? '#ffffff' : INK}
            textAnchor="middle"
          >
            {String(p.n)}
          </Text>
        </G>
      ))}
    </Svg>
  )
}
