import { minutesToCivil, weekday, type OpenHours } from '../../kit/civil'
import { Calendar } from '../../solve/schedule'

const DAY_MIN = 1440
/** Days laid out; what takes longer has no schedule. */
const DAYS = 400

/** Opening hours from a day on, as the solver takes them: minutes of the shop's clock. */
export function calendarOf({ week, closed }: OpenHours, start: number): Calendar {
  const firstDay = Math.floor(start / DAY_MIN)
  const stretches = Array.from({ length: DAYS }, (_, i) => (firstDay + i) * DAY_MIN)
    .filter((day) => !closed.includes(minutesToCivil(day).slice(0, 10)))
    .flatMap((day) =>
      week.filter((s) => s.day === weekday(day)).map((s): [number, number] => [day + s.fromMinute, day + s.toMinute]),
    )
  return Calendar.of(stretches)
}
