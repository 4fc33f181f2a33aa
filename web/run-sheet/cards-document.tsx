import { Circle, Document, G, Line, Page, Path, Rect, Svg, Text, View } from '@react-pdf/renderer'
import { layingCard, type LayingCard } from '@/core/engines/run-sheet/laying-card'
import type { Step } from '@/core/engines/run-sheet/step'
import { boxOf } from '@/core/kit/plane'
import { numberOf } from '@/core/model/figure/figure'
import type { Plan } from '@/core/model/plan/schema'
import type { Reckoning } from '@/core/reckon/reckon'
import { PaperHead } from '@/web/kit/paper-head'
import { s } from '@/web/walkaround/inspection-styles'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { stepHint, stepShort } from '@/web/words/steps'
import { NEVER } from '@/web/words/trouble'

interface Props {
  plan: Plan
  reckoning: Reckoning
  fmt: Formatter
  shop: string
  printedAt: string
}

const INK = '#16202e'
const BRASS = '#7a5910'
const STOP = '#9c2f1d'
const MARK = { cold_hook: 'H', shaped: 'F', shrunk: 'S', relief: 'R', seam: '–' } as const

/** The laying cards: each panel’s drawing with its order, and what each of its steps asks for. */
export function CardsDocument({ plan, reckoning, fmt, shop, printedAt }: Props) {
  const { steps, edges, parts, pieces, figures } = reckoning
  // A side that is laid in drops has the cards of its panels.
  const onPanel = (x: Step): readonly (string | null)[] => x.covers ?? [x.panelId]
  const panels = [...new Set(steps.filter((x) => x.code === 'lay').flatMap(onPanel))]
  return (
    <Document title={`Laying cards, ${plan.vehicle.name}`} author={shop} language="en">
      <Page size="A4" style={s.page}>
        <PaperHead title="Laying cards" {...{ plan, shop, printedAt }} />
        {panels.flatMap((id) => {
          const panel = plan.panels.find((p) => p.id === id)
          const film = parts.films.get(pieces.find((p) => p.panelId === id)?.filmId ?? '')
          if (!panel || !film) return []
          const card = layingCard({ plan, panel, film, corners: edges.corners })
          const own = steps.filter((x) => onPanel(x).includes(id) && x.state !== 'skipped')
          const minutes = numberOf(figures.get(`panel/${own[0]?.panelId}/minutes`)) ?? 0
          return [<OneCard key={id} name={panel.name} card={card} steps={own} minutes={minutes} fmt={fmt} />]
        })}
        <Text style={{ marginTop: 6, color: '#4d5a6a' }}>
          1 is the hinge, arrows are where air leaves, dotted rings are heated, dashed lines are rough cut-outs with the
          liner on; corners: H cold hook, F shaped first, S shrunk on, R relief underneath. The film’s sheet comes
          first. Hot film and metal burn; blades off paint, seals and airbag covers.
        </Text>
      </Page>
    </Document>
  )
}

function OneCard({
  name,
  card,
  steps,
  minutes,
  fmt,
}: {
  name: string
  card: LayingCard
  steps: readonly Step[]
  minutes: number
  fmt: Formatter
}) {
  const people = Math.max(...steps.map((x) => x.people))
  return (
    <View style={{ ...s.two, borderBottom: '0.5pt solid #cdc4ac', paddingVertical: 4 }} wrap={false}>
      <View style={{ width: '42%' }}>
        <Drawing card={card} />
      </View>
      <View style={{ width: '58%' }}>
        <Text style={{ fontWeight: 600, fontSize: 10.5 }}>
          {name}: {fmt.text(fmt.minutes(minutes))}, {people} {people === 1 ? 'person' : 'people'}
        </Text>
        {steps.map((x) => (
          <Text key={x.id}>
            <Text style={{ fontWeight: 600 }}>{stepShort(x)}</Text>
            {x.range ? ` ${fmt.temp(x.range.min).text}–${fmt.text(fmt.temp(x.range.max))}` : ''}. {stepHint(x, fmt)}
          </Text>
        ))}
        <Text style={{ color: STOP }}>
          Liner: {word('liner', card.liner)}. {card.never.map((n) => NEVER[n]).join('. ')}.
        </Text>
      </View>
    </View>
  )
}

function Drawing({ card }: { card: LayingCard }) {
  const box = boxOf(card.path)
  const [w, h] = [box.right - box.left, box.bottom - box.top]
  const u = Math.max(w / 22, h / 13)
  const outline = `M${card.path.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`
  return (
    <Svg viewBox={`${box.left - u} ${box.top - u} ${w + 2 * u} ${h + 2 * u}`} style={{ width: '100%', height: 86 }}>
      <Path d={outline} fill="#efe9d8" stroke={INK} strokeWidth={u * 0.1} />
      {card.rough.map((line, i) => (
        <Path
          key={i}
          d={`M${line.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}`}
          fill="none"
          stroke={STOP}
          strokeWidth={u * 0.16}
          strokeDasharray={`${u * 0.6} ${u * 0.3}`}
        />
      ))}
      {card.air.map((a, i) => (
        <Line key={i} x1={a.from.x} y1={a.from.y} x2={a.to.x} y2={a.to.y} stroke={INK} strokeWidth={u * 0.12} />
      ))}
      {card.heat.map((k, i) => (
        <Circle
          key={i}
          cx={k.at.x}
          cy={k.at.y}
          r={u}
          fill="none"
          stroke={STOP}
          strokeWidth={u * 0.14}
          strokeDasharray={`${u * 0.2} ${u * 0.2}`}
        />
      ))}
      <Line
        x1={card.hinge.from.x}
        y1={card.hinge.from.y}
        x2={card.hinge.to.x}
        y2={card.hinge.to.y}
        stroke={BRASS}
        strokeWidth={u * 0.25}
        strokeDasharray={`${u * 0.8} ${u * 0.4}`}
      />
      {card.corners.map((c, i) => (
        <G key={i}>
          <Rect x={c.at.x - u * 0.6} y={c.at.y - u * 0.6} width={u * 1.2} height={u * 1.2} fill="#fff" stroke={INK} />
          <Text x={c.at.x} y={c.at.y + u * 0.36} style={{ fontSize: u, fontFamily: 'Archivo' }} textAnchor="middle">
            {MARK[c.method]}
          </Text>
        </G>
      ))}
      {card.zones
        .filter((z) => z.code !== 'corner')
        .map((z) => (
          <G key={z.number}>
            <Circle cx={z.at.x} cy={z.at.y} r={u * 0.9} fill={BRASS} />
            <Text
              x={z.at.x}
              y={z.at.y + u * 0.4}
              fill="#fff"
              style={{ fontSize: u * 1.1, fontFamily: 'Archivo' }}
              textAnchor="middle"
            >
              {String(z.number)}
            </Text>
          </G>
        ))}
    </Svg>
  )
}
