import { civilToMinutes, minutesToCivil, type OpenHours } from '../../kit/civil'
import { SKILLS } from '../../model/shop/kinds'
import type { ShopSettings } from '../../model/shop/shop'
import type { Person } from '../../solve/schedule'
import { calendarOf } from './calendar-of'

/** Skills as the solver takes them: a bit each. */
export const bits = (skills: readonly string[]): number =>
  SKILLS.reduce((sum, skill, i) => (skills.includes(skill) ? sum | (1 << i) : sum), 0)

export interface OnShift {
  name: string
  person: Person
}

/** The people of the shop on the days they are there; a shop that named nobody has two. */
export function peopleOf(shop: ShopSettings, hours: OpenHours, start: number): OnShift[] {
  if (shop.people.length === 0) {
    const person = { skills: bits(SKILLS), hours: calendarOf(hours, start) }
    return ['', ''].map((name) => ({ name, person }))
  }
  return shop.people.map(({ name, skills, away }) => ({
    name,
    person: {
      skills: bits(skills),
      hours: calendarOf({ ...hours, closed: [...hours.closed, ...daysOf(away)] }, start),
    },
  }))
}

const DAY_MIN = 1440
function daysOf(away: ShopSettings['people'][number]['away']): string[] {
  return away.flatMap(({ from, to }) => {
    const [first, last] = [civilToMinutes(`${from}T00:00`), civilToMinutes(`${to}T00:00`)]
    if (first === null || last === null) return []
    return Array.from({ length: (last - first) / DAY_MIN + 1 }, (_, i) =>
      minutesToCivil(first + i * DAY_MIN).slice(0, 10),
    )
  })
}
