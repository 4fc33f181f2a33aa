import { Document, Page, Path, StyleSheet, Svg, Text, View } from '@react-pdf/renderer'
import type { Plan } from '@/core/model/plan/schema'
import { outlineOf } from '@/core/model/vehicle/outline'
import { walkingOrder } from '@/core/stages/tape/tape-list'
import type { Panel } from '@/core/model/vehicle/schema'
import { PAPER_FONTS } from '@/web/kit/paper'
import type { Formatter } from '@/web/words/format'

const s = StyleSheet.create({
  page: { fontFamily: PAPER_FONTS, fontSize: 8, padding: '10mm 10mm 12mm', color: '#16202e' },
  head: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    borderBottom: '1.5pt solid #7a5910',
    paddingBottom: 3,
    marginBottom: 4,
  },
  row: { flexDirection: 'row', borderBottom: '0.5pt solid #8f866e', height: 31, alignItems: 'center' },
  box: {
    width: 46,
    height: 23,
    border: '0.7pt solid #16202e',
    marginRight: 3,
    justifyContent: 'flex-end',
    paddingHorizontal: 2,
  },
  hint: { fontSize: 6.2, color: '#8a8371', textAlign: 'right' },
  th: { width: 46, marginRight: 3, fontSize: 7, color: '#4d5a6a' },
  foot: { position: 'absolute', bottom: 14, left: 28, right: 28, fontSize: 7, color: '#4d5a6a' },
})

const COLUMNS = [
  'Width',
  'Height',
  'Crown',
  'over',
  'Crown down',
  'over',
  'Corner r',
  'Top',
  'Right',
  'Bottom',
  'Left',
] as const

/** A sheet to write on with gloves: every panel in walking order, its arrow and boxes for what the tape says. */
export function MeasureDocument({ plan, fmt, shop }: { plan: Plan; fmt: Formatter; shop: string }) {
  const blank = Array.from({ length: Math.max(3, 12 - plan.panels.length) })
  const hints = (p: Panel): (number | null)[] => {
    const run = (at: string) => p.edges.filter((e) => e.at === at).reduce((sum, e) => sum + e.lengthMm, 0)
    return [
      p.widthMm,
      p.heightMm,
      p.crownMm || null,
      p.crownOverMm || null,
      p.crownDownMm,
      p.crownDownOverMm || null,
      p.cornerRadiusMm,
      run('top'),
      run('right'),
      run('bottom'),
      run('left'),
    ]
  }
  return (
    <Document title={`Measurement sheet, ${plan.vehicle.name}`} author={shop} language="en">
      <Page size="A4" orientation="landscape" style={s.page}>
        <View style={s.head} fixed>
          <Text style={{ fontSize: 12, fontWeight: 600 }}>Measurement sheet · {plan.vehicle.name}</Text>
          <Text>
            {plan.customerRef || plan.name} · {shop} · in {fmt.units.lengthUnit} · taped by ____________ on ________
          </Text>
        </View>
        <View style={{ flexDirection: 'row', marginBottom: 2 }} fixed>
          <Text style={{ width: 128, fontSize: 7, color: '#4d5a6a' }}>Panel, arrow to its top or front</Text>
          {COLUMNS.map((c, i) => (
            <Text key={i} style={s.th}>
              {c}
            </Text>
          ))}
          <Text style={{ fontSize: 7, color: '#4d5a6a' }}>Recesses, holes, notes</Text>
        </View>
        {walkingOrder(plan.panels).map((p) => (
          <View key={p.id} style={s.row} wrap={false}>
            <Shape panel={p} />
            <Text style={{ width: 88, fontWeight: 600 }}>{p.name}</Text>
            {hints(p).map((v, i) => (
              <View key={i} style={s.box}>
                <Text style={s.hint}>{v === null ? ' ' : fmt.length(v).text}</Text>
              </View>
            ))}
            <View style={{ flex: 1, height: 23, border: '0.7pt solid #16202e' }} />
          </View>
        ))}
        {blank.map((_, i) => (
          <View key={`b${i}`} style={s.row} wrap={false}>
            <View style={{ width: 128, height: 23, border: '0.7pt solid #16202e', marginRight: 3 }} />
            {COLUMNS.map((_, j) => (
              <View key={j} style={s.box} />
            ))}
            <View style={{ flex: 1, height: 23, border: '0.7pt solid #16202e' }} />
          </View>
        ))}
        <Text
          style={s.foot}
          fixed
          render={({ pageNumber, totalPages }) =>
            'Small grey figures are what is written down now. Soft tape along the surface, over the highest ' +
            `point; crown: gap under a straightedge. Page ${pageNumber} of ${totalPages}`
          }
        />
      </Page>
    </Document>
  )
}

/** The panel's own outline, with the arrow that its piece will carry. */
function Shape({ panel }: { panel: Panel }) {
  const { path, widthMm: w, heightMm: h } = outlineOf(panel)
  const pad = Math.max(w, h) * 0.06
  const line = Math.max(w, h) / 34
  return (
    <Svg viewBox={`${-pad} ${-pad} ${w + 2 * pad} ${h + 2 * pad}`} style={{ width: 34, height: 26, marginRight: 6 }}>
      <Path
        d={`M${path.map((q) => `${q.x.toFixed(0)},${q.y.toFixed(0)}`).join('L')}Z`}
        fill="#efe9d8"
        stroke="#16202e"
        strokeWidth={line}
      />
      <Path
        d={`M${w / 2},${h * 0.8}L${w / 2},${h * 0.22}M${w / 2 - h * 0.14},${h * 0.4}L${w / 2},${h * 0.2}L${w / 2 + h * 0.14},${h * 0.4}`}
        stroke="#7a5910"
        strokeWidth={line * 1.6}
        fill="none"
      />
    </Svg>
  )
}
