import { s } from './inspection-styles'
import { Text, View } from '@react-pdf/renderer'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import type { Walkaround } from '@/core/model/vehicle/walkaround-schema'

/** What was found, and what comes off. */
export function FoundAndOff({
  damage,
  fmt,
  panelName,
  hardware,
}: {
  damage: Walkaround['damage']
  fmt: Formatter
  panelName: (id: string | null) => string
  hardware: Walkaround['hardware']
}) {
  return (
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
  )
}

/** Rows that fit on the one page; what is left over is counted. */
const MOST_ROWS = 9
