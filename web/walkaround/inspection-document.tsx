import { s } from './inspection-styles'
import { Document, Image, Page, Path, Svg, Text, View } from '@react-pdf/renderer'
import type { Plan } from '@/core/model/plan/schema'
import type { Finding } from '@/core/model/finding/finding'
import { skinOf, toSkin } from '@/core/engines/skin/skin'
import { signedMark } from '@/core/model/plan/signed-mark'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { findingText } from '@/web/words/findings'
import { CAUTIONS } from '@/web/words/steps'
import { FoundAndOff } from './inspection-lists'
import { InspectionSkin } from './inspection-skin'

interface Props {
  plan: Plan
  findings: readonly Finding[]
  photos: { id: string; data: Buffer }[]
  fmt: Formatter
  shop: string
  printedAt: string
}

/** The inspection that a customer signs: one page. */
export function InspectionDocument({ plan, findings, photos, fmt, shop, printedAt }: Props) {
  const { paint, damage, hardware, neverCover, signature, repaints, note } = plan.walkaround
  const panelName = (id: string | null) => plan.panels.find((p) => p.id === id)?.name ?? 'no panel named'
  const skin = skinOf(plan.panels)
  const pins = damage.flatMap((d, i) => {
    const panel = plan.panels.find((p) => p.id === d.panelId)
    const at = skin.panels.find((p) => p.id === d.panelId)
    return panel && at
      ? [{ n: i + 1, ...toSkin(at, panel, d.xMm ?? panel.widthMm / 2, d.yMm ?? panel.heightMm / 2) }]
      : []
  })
  const view = {
    x: skin.box.left - 120,
    y: skin.box.top - 120,
    w: skin.box.right - skin.box.left + 240,
    h: skin.box.bottom - skin.box.top + 240,
  }
  const unit = Math.max(view.w / 520, view.h / 190)
  const path = (points: readonly { x: number; y: number }[]) =>
    `M${points.map((p) => `${p.x.toFixed(0)},${p.y.toFixed(0)}`).join('L')}Z`
  const facts: [string, string][] = [
    ['Paint', `${word('origin', paint.origin)}${paint.ageYears === null ? '' : `, ${paint.ageYears} years old`}`],
    ['Condition', word('condition', paint.condition)],
    ...(paint.repaintedOn ? [['Repainted', paint.repaintedOn] as [string, string]] : []),
    ...repaints.map((r): [string, string] => [
      'Repaint',
      `${panelName(r.panelId)}, ${r.on ?? 'date not known'} ${r.note}`,
    ]),
    ['Body colour', plan.vehicle.colour.name],
  ]
  const changed = signature && signature.mark !== signedMark(plan)
  return (
    <Document title={`Inspection, ${plan.vehicle.name}`} author={shop} language="en">
      <Page size="A4" style={s.page} wrap={false}>
        <View style={s.head}>
          <View>
            <Text style={s.h1}>Inspection before wrapping</Text>
            <Text>
              {plan.vehicle.name} · {plan.customerRef || plan.name}
            </Text>
          </View>
          <View>
            <Text>{shop}</Text>
            <Text style={s.soft}>{printedAt}</Text>
          </View>
        </View>
        {plan.panels.length > 0 && <InspectionSkin view={view} skin={skin} path={path} unit={unit} pins={pins} />}
        <View style={s.two}>
          <FoundAndOff damage={damage} fmt={fmt} panelName={panelName} hardware={hardware} />
          <View style={s.half}>
            <Text style={s.h2}>Paint</Text>
            {facts.slice(0, 7).map(([k, v]) => (
              <View key={`${k}${v}`} style={s.row}>
                <Text style={{ width: 62, ...s.soft }}>{k}</Text>
                <Text style={{ flex: 1 }}>{v}</Text>
              </View>
            ))}
            <Text style={s.h2}>Stays free of film</Text>
            <Text>
              {neverCover.length === 0
                ? 'Nothing listed.'
                : neverCover
                    .slice(0, 12)
                    .map(
                      (n) =>
                        word('neverCover', n.kind) +
                        (n.panelId ? ` (${panelName(n.panelId)})` : '') +
                        (n.note ? `: ${n.note.slice(0, 40)}` : ''),
                    )
                    .join(' · ')}
            </Text>
            <Text style={s.h2}>What follows</Text>
            {findings
              .filter((f) => f.code !== 'damage_recorded' && f.code !== 'never_cover_listed')
              .slice(0, 7)
              .map((f) => (
                <Text key={f.id} style={{ marginBottom: 1.5 }}>
                  {f.level === 'stop' ? 'Stop: ' : ''}
                  {findingText(f, fmt).replace(/ΔE/g, 'colour difference')}
                </Text>
              ))}
            {note !== '' && (
              <>
                <Text style={s.h2}>Note</Text>
                <Text>{note.slice(0, 260)}</Text>
              </>
            )}
          </View>
        </View>
        {photos.length > 0 && (
          <View style={{ flexDirection: 'row', gap: 4, marginTop: 6 }}>
            {photos.map((p) => (
              // eslint-disable-next-line jsx-a11y/alt-text -- a picture on paper has no alt
              <Image
                key={p.id}
                src={{ data: p.data, format: 'jpg' }}
                style={{ height: 66, maxWidth: 88, objectFit: 'cover' }}
              />
            ))}
          </View>
        )}
        <View style={s.box}>
          <Text>{CAUTIONS.never_cover}</Text>
          <Text>{CAUTIONS.airbag_trim}</Text>
          <Text>
            Mirror-like film and a changed registered colour may be restricted: local rules decide. The film’s own sheet
            and the paint’s maker come before this paper.
          </Text>
        </View>
        <View style={{ flexDirection: 'row', marginTop: 8, alignItems: 'flex-end', gap: 16 }}>
          <View style={{ flex: 1, borderBottom: '0.8pt solid #16202e', height: 48, justifyContent: 'flex-end' }}>
            {signature?.how === 'drawn' ? (
              <Svg viewBox="0 0 1000 320" style={{ height: 46, width: 150 }}>
                {signature.strokes.map((stroke, i) => (
                  <Path
                    key={i}
                    d={`M${stroke.map(([x, y]) => `${x},${(y * 0.32).toFixed(0)}`).join('L')}`}
                    stroke="#16202e"
                    strokeWidth={7}
                    fill="none"
                  />
                ))}
              </Svg>
            ) : (
              <Text style={{ fontSize: 13 }}>{signature?.name ?? ''}</Text>
            )}
          </View>
          <View style={{ flex: 1 }}>
            <Text>
              {signature
                ? `${signature.name}, ${fmt.moment(signature.at, { dateStyle: 'medium', timeStyle: 'short' })}`
                : 'Customer’s name, date'}
            </Text>
            <Text style={s.soft}>
              {signature
                ? `${signature.how} before ${signature.takenBy}${changed ? '; something was changed since' : ''}`
                : 'not signed yet'}
            </Text>
          </View>
        </View>
      </Page>
    </Document>
  )
}
