import { StyleSheet } from '@react-pdf/renderer'
import { PAPER_FONTS } from '@/web/kit/paper'

/** Look of the inspection's one page. */
export const s = StyleSheet.create({
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
