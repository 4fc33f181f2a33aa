import type { OpenHours } from '../../kit/civil'
import type { ShopSettings } from './shop'

const WORKDAYS = [0, 1, 2, 3, 4]

/** A shop that has not said anything yet: Monday to Friday, eight to five, one bay. */
export const DEFAULT_SHOP: ShopSettings = {
  timeZone: 'UTC',
  currency: 'EUR',
  tax: { rate: 0, included: false },
  week: WORKDAYS.map((day) => ({ day, fromMinute: 480, toMinute: 1020 })),
  closed: [],
  bays: [{ id: 'bay-1', name: 'Bay 1' }],
  people: [],
  guns: [],
  climate: 'mild',
  winter: false,
  margin: 0,
  edgeLeave: {},
  edgeCut: {},
  lockAfterMin: 0,
  supplies: {},
  ready: 'recheck',
  units: { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB' },
}

export const hoursOf = ({ week, closed }: Pick<ShopSettings, 'week' | 'closed'>): OpenHours => ({
  week,
  closed: closed.map((c) => c.date),
})
