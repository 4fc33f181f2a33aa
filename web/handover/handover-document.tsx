import { Document, Page, StyleSheet, Text, View } from '@react-pdf/renderer'
import type { Handover } from '@/core/stages/handover/handover'
import type { Plan } from '@/core/model/plan/schema'
import type { Formatter } from '@/web/words/format'
import { PAPER_FONTS } from '@/web/kit/paper'
import { word } from '@/web/words/names'

const s = StyleSheet.create({
  page: {
    fontFamily: PAPER_FONTS,
    fontSize: 9.5,
    padding: '16mm 16mm 18mm',
    color: '#16202e',
  },
  head: {
    borderBottom: '2pt solid #7a5910',
    paddingBottom: 6,
    marginBottom: 10,
    flexDirection: 'row',
    justifyContent: 'space-between',
  },
  // Text made at render time (page numbers) comes out empty under a lineHeight, so only the body has one.
  body: { fontSize: 9.5, lineHeight: 1.35 },
  h1: { fontSize: 18, fontWeight: 600, lineHeight: 1.1 },
  h2: { fontSize: 11.5, fontWeight: 600, marginTop: 10, marginBottom: 3 },
  soft: { color: '#4d5a6a' },
  row: { flexDirection: 'row', borderBottom: '0.5pt solid #cdc4ac', paddingVertical: 2 },
  bold: { fontWeight: 600 },
  box: { border: '0.8pt solid #9c2f1d', padding: 5, marginTop: 4, marginRight: 1 },
  foot: { position: 'absolute', bottom: 22, left: 45, right: 45, fontSize: 8, color: '#4d5a6a' },
})

interface Props {
  plan: Plan
  handover: Handover
  fmt: Formatter
  shop: string
  printedAt: string
  openWords: string[]
  pointName: (p: Handover['readings'][number]['point']) => string
}

/** The paper a customer keeps. */
export function HandoverDocument({ plan, handover: h, fmt, shop, printedAt, openWords, pointName }: Props) {
  const cell = (text: string, width: string, style = {}) => (
    <Text style={{ width, paddingRight: 4, ...style }}>{text}</Text>
  )
  const when = (iso: string) => fmt.moment(iso, { dateStyle: 'medium', timeStyle: 'short' })
  return (
    <Document title={`Handover, ${plan.vehicle.name}`} author={shop} language="en">
      <Page size="A4" style={s.page}>
        <View style={s.body}>
          <View style={s.head}>
            <View style={{ width: '68%' }}>
              <Text style={s.h1}>{plan.vehicle.name}</Text>
              <Text style={s.soft}>
                {plan.name} · {plan.customerRef || 'no reference'}
              </Text>
            </View>
            <View style={{ width: '32%', textAlign: 'right' }}>
              <Text style={s.bold}>{shop}</Text>
              <Text style={s.soft}>{printedAt}</Text>
            </View>
          </View>
          {openWords.length > 0 && (
            <View style={s.box}>
              <Text style={s.bold}>Not complete yet: {openWords.join(', ')}.</Text>
            </View>
          )}
          <Text style={s.h2}>What was applied</Text>
          {h.films.map((f) => (
            <View key={f.film.id} wrap={false} style={{ marginBottom: 5 }}>
              <Text>
                <Text style={s.bold}>{f.film.name}</Text>, {f.film.maker}, {word('film', f.film.kind, fmt.units.locale)}
                . Lot {f.lots.join(', ') || 'not recorded'}
                {f.usedMm > 0 ? `, ${fmt.text(fmt.longLength(f.usedMm))}` : ''}
              </Text>
              <Text>On: {f.panels.join(', ')}</Text>
            </View>
          ))}
          <Text style={s.h2}>Warranty by zone and surface</Text>
          {h.films.map((f) => (
            <Text key={f.film.id}>
              {f.film.name}, {word('zone', plan.walkaround.zone)} climate:{' '}
              {f.warranty.map((w) => `${w.surface} surfaces ${w.months} months`).join(', ') || 'none on the film sheet'}
              . The film&apos;s own sheet governs.
            </Text>
          ))}
          <Text style={s.h2}>Care</Text>
          {h.films.map((f) => (
            <Text key={f.film.id}>
              {f.film.care} Full adhesion after {f.film.cureHours} h: no wash before.
            </Text>
          ))}
          <Text style={s.h2}>Recheck</Text>
          <Text>
            {h.recheckDone
              ? `Done ${when(h.recheckDone)}.`
              : h.recheckDueAt
                ? `Due ${when(h.recheckDueAt)}. Please bring the vehicle back, or tell us of any edge that lifts.`
                : 'Falls due a day after the last check.'}
          </Text>
          <Text style={s.h2}>Temperatures reached</Text>
          <View style={[s.row, s.soft]}>
            {cell('Piece', '28%')}
            {cell('Place', '24%')}
            {cell('Wanted', '16%')}
            {cell('Reading', '12%', { textAlign: 'right' })}
            {cell('Verdict', '20%', { paddingLeft: 12 })}
          </View>
          {h.readings.map((r) => (
            <View key={r.point.id} style={s.row} wrap={false}>
              {cell(r.piece, '28%')}
              {cell(pointName(r.point), '24%')}
              {cell(`${fmt.temp(r.point.range.min).text}–${fmt.text(fmt.temp(r.point.range.max))}`, '16%')}
              {cell(r.tempC === null ? '–' : fmt.text(fmt.temp(r.tempC)), '12%', { textAlign: 'right' })}
              {cell(r.verdict ? `${word('verdict', r.verdict)}${r.by ? `, ${r.by}` : ''}` : 'not read', '20%', {
                paddingLeft: 12,
              })}
            </View>
          ))}
          {h.defects.length > 0 && (
            <>
              <Text style={s.h2}>Defects found and what was done</Text>
              {h.defects.map((d) => (
                <Text key={d.id}>
                  {d.closed ? 'Closed' : 'Open'}: {d.panel}, {word('defect', d.defect)}
                  {d.note ? `, ${d.note}` : ''} ({d.by}, {when(d.at)})
                  {d.closed ? `. ${d.closed.how} (${d.closed.by}, ${when(d.closed.at)})` : ''}
                </Text>
              ))}
            </>
          )}
          {plan.walkaround.damage.length > 0 && (
            <>
              <Text style={s.h2}>Noted before the work</Text>
              {plan.walkaround.damage.map((d) => (
                <Text key={d.id}>
                  {plan.panels.find((p) => p.id === d.panelId)?.name ?? 'Vehicle'}: {word('damage', d.kind)}
                  {d.note ? `, ${d.note}` : ''}
                </Text>
              ))}
            </>
          )}
          <Text style={s.h2}>Please note</Text>
          <Text>
            Lamps, plates, sensors, radar and camera windows and reflectors stay free of film. A changed or mirror-like
            colour may have to be registered or may be restricted: check local rules. On repainted or old paint, film
            may lift paint or leave residue when it is taken off.
          </Text>
        </View>
        <Text
          fixed
          style={s.foot}
          render={({ pageNumber, totalPages }) => `${shop} · ${plan.vehicle.name} · ${pageNumber} / ${totalPages}`}
        />
      </Page>
    </Document>
  )
}
