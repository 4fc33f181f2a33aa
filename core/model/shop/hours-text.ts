import { err, ok, type Result } from '../../kit/result'
import type { OpenStretch } from '../../kit/civil'

const clock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`

/** The hours of one weekday as people write them: `08:00-12:00, 13:00-17:00`; empty on a day that is closed. */
export const dayText = (week: readonly OpenStretch[], day: number): string =>
  week
    .filter((s) => s.day === day)
    .sort((a, b) => a.fromMinute - b.fromMinute)
    .map((s) => `${clock(s.fromMinute)}-${clock(s.toMinute)}`)
    .join(', ')

/** Read back; `8-17` is enough. Errors: hours_unreadable, upside_down, hours_overlap. */
export function readDay(text: string, day: number): Result<OpenStretch[]> {
  const out: OpenStretch[] = []
  for (const part of text.split(/[,;]/).map((p) => p.trim())) {
    if (part === '') continue
    const m = /^(\d{1,2})(?:[:.](\d{2}))?\s*(?:-|–|to)\s*(\d{1,2})(?:[:.](\d{2}))?$/.exec(part)
    if (!m) return err({ code: 'hours_unreadable', facts: { text: part } })
    const [fromMinute, toMinute] = [
      Number(m[1]) * 60 + Number(m[2] ?? 0),
      Number(m[3]) * 60 + Number(m[4] ?? 0),
    ] as const
    if (toMinute > 1440 || Number(m[2] ?? 0) > 59 || Number(m[4] ?? 0) > 59)
      return err({ code: 'hours_unreadable', facts: { text: part } })
    if (fromMinute >= toMinute) return err({ code: 'upside_down', facts: { text: part } })
    if (out.some((s) => fromMinute < s.toMinute && s.fromMinute < toMinute))
      return err({ code: 'hours_overlap', facts: { text: part } })
    out.push({ day, fromMinute, toMinute })
  }
  return ok(out)
}
