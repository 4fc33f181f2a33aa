import { Document, Line, Page, Path, Svg, Text, View } from '@react-pdf/renderer'
import type { InlayTemplate } from '@/core/engines/pieces/behind'
import type { Point } from '@/core/kit/plane'
import { PAPER_FONTS } from '@/web/kit/paper'
import type { Formatter } from '@/web/words/format'

/** Points of print a millimetre. */
const MM = 72 / 25.4
const MARGIN_MM = 12
const HEAD_MM = 34
/** A bar to lay a rule on: printers shrink what they are not told to leave. */
const BAR_MM = 100
const STROKE = { object: '0', piece: '0', main: '6 3' } as const
const WIDTH = { object: 0.5, piece: 1.4, main: 0.9 } as const

const path = (points: readonly Point[]): string =>
  `M${points.map((p) => `${(p.x * MM).toFixed(2)} ${(p.y * MM).toFixed(2)}`).join('L')}Z`

/** Templates of small pieces behind handles and the like, one a page, each page as large as it takes at true size. */
export function TemplatesDocument({
  templates,
  job,
  shop,
  fmt,
}: {
  templates: readonly InlayTemplate[]
  job: string
  shop: string
  fmt: Formatter
}) {
  const size = (mm: number) => fmt.text(fmt.length(mm))
  return (
    <Document title={`Templates, ${job}`} author={shop} language="en">
      {templates.map((t) => {
        const page = [Math.max(BAR_MM, t.widthMm) + 2 * MARGIN_MM + 30, t.heightMm + 2 * MARGIN_MM + HEAD_MM] as const
        return (
          <Page
            key={t.pieceId}
            wrap={false}
            size={[page[0] * MM, page[1] * MM]}
            style={{ fontFamily: PAPER_FONTS, padding: MARGIN_MM * MM, color: '#16202e' }}
          >
            <View style={{ height: HEAD_MM * MM }}>
              <Text style={{ fontSize: 11, fontWeight: 600 }}>{t.name}</Text>
              <Text style={{ fontSize: 7.5 }}>
                {job}. {size(t.widthMm)} × {size(t.heightMm)}. Thick: cut the small piece. Dashed: the panel’s film ends
                here, {t.laid === 'inlay' ? 'over the small piece, laid first' : 'below the small piece, laid last'}.
                Thin: the object. Never cut on paint.
              </Text>
              <Svg width={BAR_MM * MM + 2} height={12}>
                <Line x1={1} x2={BAR_MM * MM + 1} y1={6} y2={6} stroke="#16202e" strokeWidth={1} />
                {[0, BAR_MM].map((x) => (
                  <Line key={x} x1={x * MM + 1} x2={x * MM + 1} y1={1} y2={11} stroke="#16202e" strokeWidth={1} />
                ))}
              </Svg>
              <Text style={{ fontSize: 7 }}>
                Print at 100 %. This bar is {size(BAR_MM)} long: lay a rule on it first.
              </Text>
            </View>
            {/* A millimetre more on every side: half of a line lies outside of its ring. */}
            <Svg
              width={(t.widthMm + 2) * MM}
              height={(t.heightMm + 2) * MM}
              viewBox={`${-MM} ${-MM} ${(t.widthMm + 2) * MM} ${(t.heightMm + 2) * MM}`}
            >
              {t.rings.map((r) => (
                <Path
                  key={r.id}
                  d={path(r.points)}
                  fill="none"
                  stroke="#16202e"
                  strokeWidth={WIDTH[r.id]}
                  {...(STROKE[r.id] === '0' ? {} : { strokeDasharray: STROKE[r.id] })}
                />
              ))}
            </Svg>
          </Page>
        )
      })}
    </Document>
  )
}
