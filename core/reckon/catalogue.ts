import type { OpenHours } from '../kit/civil'
import type { FilmSheet, StockItem } from '../film/schema'

/** What the shop brings to a job: its rack, its hours, and today's date (core has no clock). */
export interface Catalogue {
  films: readonly FilmSheet[]
  stock: readonly StockItem[]
  hours: OpenHours
  /** Local wall time `YYYY-MM-DDTHH:MM`. */
  now: string
}

export const EMPTY_CATALOGUE: Catalogue = {
  films: [],
  stock: [],
  hours: { days: [0, 1, 2, 3, 4], fromMinute: 480, toMinute: 1020 },
  now: '2026-01-05T08:00',
}
