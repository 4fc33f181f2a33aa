import { Circle, Document, G, Image, Page, Path, StyleSheet, Svg, Text, View } from '@react-pdf/renderer'
import type { Plan } from '@/core/model/plan/schema'
import type { Finding } from '@/core/model/finding/finding'
import { skinOf, toSkin } from '@/core/engines/skin/skin'
import { signedMark } from '@/core/model/plan/signed-mark'
import { PAPER_FONTS } from '@/web/kit/paper'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { findingText } from '@/web/words/findings'
import { CAUTIONS } from '@/web/words/steps'

const s = StyleSheet.create({
  page: { fontFamily: PAPER_FONTS, fontSize: 8.2, padding: '11mm 13mm', color: '#16202e' },
  head: {
    borderBottom: '2pt solid #7a5910',
    paddingBottom: 4,
    marginBottom: 5,
    flexDirection: 'row',
    justifyContent: 'space-between',
  },
  h1: { fontSize: 16, fontWeight: 600 },
  h2: { fontSize: 9.5, fontWeight: 600, marginTop: 5, marginBottom: 2 },
  soft: { color: '#4d5a6a' },
  row: { flexDirection: 'row', borderBottom: '0.5pt solid #cdc4ac', paddingVertical: 1.2 },
  two: { flexDirection: 'row', gap: 12 },
  half: { flex: 1 },
  box: { border: '0.8pt solid #9c2f1d', padding: 4, marginTop: 4 },
})

interface Props {
  plan: Plan
  findings: readonly Finding[]
  photos: { id: string; data: Buffer }[]
  fmt: Formatter
  shop: string
  printedAt: string
}

/** Rows that fit on the one page; what is left over is counted. */
const MOST_ROWS = 9

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
        {plan.panels.length > 0 && (
          <Svg viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`} style={{ width: '100%', height: 190 }}>
            {skin.panels.map((p) => (
              <Path key={p.id} d={path(p.path)} fill="#efe9d8" stroke="#16202e" strokeWidth={unit * 0.7} />
            ))}
            {pins.map((p) => (
              <G key={p.n}>
                <Circle cx={p.x} cy={p.y} r={unit * 5.5} fill="#9c2f1d" />
                <Text
                  x={p.x}
                  y={p.y + unit * 2.4}
                  style={{ fontSize: unit * 6.5, fontFamily: 'Archivo', fontWeight: 600 }}
                  fill="#ffffff"
                  textAnchor="middle"
                >
                  {String(p.n)}
                </Text>
              </G>
            ))}
          </Svg>
        )}
        <View style={s.two}>
          <View style={s.half}>
            <Text style={s.h2}>Found before the work</Text>
            {damage.length === 0 && <Text style={s.soft}>No damage found.</Text>}
            {damage.slice(0, MOST_ROWS).map((d, i) => (
              <View key={d.id} style={s.row}>
                <Text style={{ width: 16, fontWeight: 600 }}>{i + 1}</Text>
                <Text style={{ flex: 1 }}>
                  {word('damage', d.kind)}
                  {d.sizeMm ? `, ${fmt.text(fmt.length(d.sizeMm))}` : ''} · {panelName(d.panelId)}
                  {d.note ? ` · ${d.note.slice(0, 90)}` : ''}
                  {d.waived ? ` · waived by ${d.waived.by}: ${d.waived.reason.slice(0, 80)}` : ''}
                </Text>
              </View>
            ))}
            {damage.length > MOST_ROWS && <Text style={s.soft}>and {damage.length - MOST_ROWS} more in the job</Text>}
            <Text style={s.h2}>Hardware</Text>
            {hardware.length === 0 && <Text style={s.soft}>Nothing comes off.</Text>}
            {hardware.slice(0, MOST_ROWS).map((h) => (
              <View key={h.id} style={s.row}>
                <Text style={{ flex: 1 }}>{h.name}</Text>
                <Text>
                  {word('hardware', h.way)}
                  {h.minutes > 0 ? `, ${h.minutes} min` : ''}
                  {h.who ? `, ${h.who}` : ''}
                </Text>
              </View>
            ))}
            {hardware.length > MOST_ROWS && <Text style={s.soft}>and {hardware.length - MOST_ROWS} more</Text>}
          </View>
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
