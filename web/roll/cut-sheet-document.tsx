import { Canvas, Document, Page, Rect, StyleSheet, Svg, Text, View, Line, G } from '@react-pdf/renderer'
import type { FilmLayout, RollPlan } from '@/core/engines/roll/film-layout'
import { PAPER_FONTS } from '@/web/kit/paper'
import type { Formatter } from '@/web/words/format'
import { QUIET, type QrCode } from './qr'

const s = StyleSheet.create({
  page: { fontFamily: PAPER_FONTS, fontSize: 8.5, padding: '10mm 10mm 13mm', color: '#16202e' },
  head: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    borderBottom: '1.5pt solid #7a5910',
    paddingBottom: 3,
    marginBottom: 6,
  },
  row: { flexDirection: 'row', borderBottom: '0.5pt solid #d8d1bd', paddingVertical: 2.5, alignItems: 'center' },
  box: { width: 10, height: 10, border: '0.8pt solid #16202e', marginRight: 6 },
  foot: { position: 'absolute', bottom: 16, left: 28, right: 28, fontSize: 7, color: '#4d5a6a' },
})

/** The cut sheet: each roll drawn, then its cuts in order with boxes to tick. */
export function CutSheetDocument({
  layout,
  fmt,
  job,
  shop,
  rollName,
}: {
  layout: FilmLayout
  fmt: Formatter
  job: string
  shop: string
  rollName: (rollId: string) => string
}) {
  const name = (id: string) => layout.pieces.find((p) => p.id === id)?.name ?? id
  return (
    <Document title={`Cut sheet, ${job}`} author={shop} language="en">
      {layout.rolls.map((roll) => (
        <Page key={roll.id} size="A4" orientation="landscape" style={s.page}>
          <View style={s.head} fixed>
            <Text style={{ fontSize: 12, fontWeight: 600 }}>
              Cut sheet · {job} · {layout.film.name}
            </Text>
            <Text>
              {rollName(roll.id)}
              {roll.stock ? `, lot ${roll.stock.lot}` : ', lot ____________'} · {fmt.text(fmt.length(roll.widthMm))}{' '}
              wide · {fmt.text(fmt.longLength(roll.usedMm))} used
            </Text>
          </View>
          {layout.settling && (
            <Text style={{ color: '#7a5910', marginBottom: 4 }}>
              Settling: a first layout. Film used may still fall; print again when it has settled, or keep this layout.
            </Text>
          )}
          <RollPicture roll={roll} layout={layout} />
          <View style={{ marginTop: 8 }}>
            {roll.cutting.cuts.length === 0 && <Text>Laid for a machine: no order of straight cuts.</Text>}
            {roll.cutting.cuts.map((c) => (
              <View key={c.number} style={s.row} wrap={false}>
                <View style={s.box} />
                <Text style={{ width: 26, fontWeight: 600 }}>{c.number}</Text>
                <Text style={{ width: 118, paddingLeft: (c.stage - 1) * 8 }}>
                  {c.runs === 'across' ? 'across' : 'lengthwise'} {c.stage === 1 ? 'from the end' : 'of the part'}
                </Text>
                <Text style={{ width: 80, fontWeight: 600, textAlign: 'right', marginRight: 14 }}>
                  {fmt.text(fmt.length(c.tapeMm))}
                </Text>
                <Text style={{ flex: 1 }}>{c.done.length > 0 ? `free: ${c.done.map(name).join(', ')}` : ''}</Text>
              </View>
            ))}
          </View>
          <Text style={s.foot} fixed>
            {shop} · Fresh blade, film side up, fingers clear of the line. Label each piece and rest at once, arrow up.
            Check the roll against the lot before the first cut.
          </Text>
        </Page>
      ))}
    </Document>
  )
}

const WIDE = 770
const TALL = 170
function RollPicture({ roll, layout }: { roll: RollPlan; layout: FilmLayout }) {
  const k = Math.min(WIDE / Math.max(1, roll.usedMm), TALL / roll.widthMm)
  const [w, h] = [roll.usedMm * k, roll.widthMm * k]
  const grid = Array.from({ length: Math.floor(roll.usedMm / 100) + 1 }, (_, i) => i * 100 * k)
  return (
    <Svg width={w + 2} height={h + 14} viewBox={`-1 -12 ${w + 2} ${h + 14}`}>
      {grid.map((x, i) => (
        <Line key={i} x1={x} x2={x} y1={0} y2={h} stroke="#d8d1bd" strokeWidth={i % 10 === 0 ? 0.8 : 0.3} />
      ))}
      <Rect x={0} y={0} width={w} height={h} stroke="#16202e" strokeWidth={0.8} fill="none" />
      {roll.placements.map((p) => {
        const piece = layout.pieces.find((x) => x.id === p.pieceId)
        const [pw, ph] = [p.lengthMm * k, p.widthMm * k]
        const size = Math.max(4.2, Math.min(8, ph / 2.2, pw / 6))
        return (
          <G key={p.pieceId}>
            <Rect
              x={p.yMm * k}
              y={p.xMm * k}
              width={pw}
              height={ph}
              stroke="#16202e"
              strokeWidth={0.7}
              fill="#f3efe2"
            />
            {ph > 6 && pw > 16 && (
              <Text x={p.yMm * k + 2} y={p.xMm * k + size + 1} style={{ fontSize: size }}>
                {(piece?.name ?? p.pieceId).slice(0, Math.max(2, Math.floor(pw / (size * 0.55))))}
              </Text>
            )}
          </G>
        )
      })}
      {roll.cutting.cuts.map((c) => (
        <Line
          key={c.number}
          x1={c.from.yMm * k}
          x2={c.to.yMm * k}
          y1={c.from.xMm * k}
          y2={c.to.xMm * k}
          stroke="#b3261e"
          strokeWidth={c.stage === 1 ? 1 : 0.5}
          strokeDasharray={c.stage === 1 ? '4 2' : '1.5 1.5'}
        />
      ))}
      {roll.cutting.cuts
        .filter((c) => c.stage === 1)
        .map((c) => (
          <Text key={c.number} x={c.from.yMm * k - 4} y={-3} style={{ fontSize: 7, fontWeight: 600 }} fill="#b3261e">
            {String(c.number)}
          </Text>
        ))}
    </Svg>
  )
}

export interface Label {
  name: string
  size: string
  film: string
  lot: string
  job: string
  arrow: string
  qr: QrCode
  /** What is typed where no camera can read the code; empty on rests. */
  code: string
}
const MM = 72 / 25.4

/** Rows of a code reach a hair into one another, so that no printer leaves a light line between them. */
const NO_SEAM = 1.02

/** One label a page of the roll of labels: piece, size, film, lot, arrow up, and a QR code that names the piece. */
export function LabelsDocument({
  labels,
  widthMm,
  heightMm,
  shop,
}: {
  labels: Label[]
  widthMm: number
  heightMm: number
  shop: string
}) {
  const side = Math.min(heightMm - 6, widthMm * 0.36) * MM
  return (
    <Document title="Piece labels" author={shop} language="en">
      {labels.map((l, i) => (
        <Page
          key={i}
          wrap={false}
          size={[widthMm * MM, heightMm * MM]}
          style={{ fontFamily: PAPER_FONTS, padding: 3 * MM, flexDirection: 'row', color: '#16202e' }}
        >
          <View style={{ flex: 1, paddingRight: 4, justifyContent: 'space-between' }}>
            <Text style={{ fontSize: heightMm > 40 ? 15 : 10, fontWeight: 600 }}>{l.name}</Text>
            {/* One text of four lines: thousands of labels are laid out by their texts. */}
            <Text style={{ fontSize: 8 }}>{[l.size, l.film, l.lot, l.job].join('\n')}</Text>
            <Text style={{ fontSize: 8, fontWeight: 600 }}>{l.arrow}</Text>
          </View>
          <View style={{ alignItems: 'center', justifyContent: 'center' }}>
            <Canvas
              style={{ width: side, height: side }}
              paint={(page) => {
                const cell = side / (l.qr.side + 2 * QUIET)
                for (const [x, y, run] of l.qr.runs)
                  page.rect((x + QUIET) * cell, (y + QUIET) * cell, run * cell, cell * NO_SEAM)
                if (l.qr.runs.length > 0) page.fill('#000000')
                return null
              }}
            />
            {l.code !== '' && <Text style={{ fontSize: 9, fontWeight: 600, letterSpacing: 1.5 }}>{l.code}</Text>}
          </View>
        </Page>
      ))}
    </Document>
  )
}
