import { nth } from '../../kit/known'
import type { FilmSheet } from '../../model/film/schema'

/** One thing a supplier sells of a width: a length at a price, from a minimum in steps; or whole rolls. */
export interface Offer {
  id: string
  widthMm: number
  /** Least length that is sold, and the step beyond it, mm. A whole roll has both equal to its length. */
  minimumMm: number
  stepMm: number
  /** Price of one step. */
  stepPrice: number
  /** Comes whole (a roll, a sheet) and is not cut to length. */
  whole: boolean
}
export interface BoughtLine {
  offerId: string
  lengthMm: number
  cost: number
}
export interface Bought {
  cost: number
  lines: BoughtLine[]
}
export interface Order {
  orderMm: number
  units: number
  cost: number
  lines: BoughtLine[]
}

const STEP_MM = { metre: 1000, half_metre: 500 } as const
/** No more whole rolls of one kind than this are reckoned with in one order. */
const MOST_ROLLS = 200

/**
 * What a film's sheet offers in a width: its own offers for that width, else its general ones.
 */
export function offersOf(film: FilmSheet, widthMm: number): Offer[] {
  const rollMm = film.rollLengthsMm[0] ?? 25000
  const asOffer = (
    id: string,
    unit: FilmSheet['soldBy']['unit'],
    minimumMm: number,
    price: number,
    lengthMm: number,
  ): Offer => {
    if (unit === 'roll' || unit === 'sheet')
      return { id, widthMm, minimumMm: lengthMm, stepMm: lengthMm, stepPrice: price, whole: true }
    const stepMm = STEP_MM[unit]
    return {
      id,
      widthMm,
      minimumMm: Math.ceil(minimumMm / stepMm - 1e-9) * stepMm,
      stepMm,
      stepPrice: (price * stepMm) / 1000,
      whole: false,
    }
  }
  const own = film.offers.filter((o) => Math.abs(o.widthMm - widthMm) < 0.5)
  if (own.length > 0)
    return own.map((o, i) => asOffer(`${o.unit}-${i + 1}`, o.unit, o.minimumMm, o.price, o.lengthMm ?? rollMm))
  return [asOffer(film.soldBy.unit, film.soldBy.unit, film.soldBy.minimumMm, film.soldBy.price, rollMm)]
}

/**
 * The cheapest purchase for bands that must each stay whole (as they are cut across the roll): any number of whole
 * rolls of each kind, and one of the offers cut to length for what these do not take. Exact in the number of rolls and
 * in what a roll can take; rolls are filled one after another. Null where an offer's lengths cannot hold a band.
 */
export function buyBands(offers: readonly Offer[], bandsMm: readonly number[]): Bought | null {
  const total = bandsMm.reduce((s, b) => s + b, 0)
  if (total <= 1e-6) return { cost: 0, lines: [] }
  const whole = offers.filter((o) => o.whole)
  const cut = offers.filter((o) => !o.whole)
  let best: Bought | null = null
  const finish = (counts: number[], cost: number) => {
    const lines = whole.flatMap((o, i) =>
      Array.from({ length: counts[i] ?? 0 }, () => ({ offerId: o.id, lengthMm: o.stepMm, cost: o.stepPrice })),
    )
    const left = leftOver(
      lines.map((l) => l.lengthMm),
      bandsMm,
    )
    const rest = left.reduce((s, b) => s + b, 0)
    if (rest <= 1e-6) {
      if (!best || cost < best.cost - 1e-9) best = { cost, lines }
      return true
    }
    for (const o of cut) {
      const steps = Math.max(Math.ceil(rest / o.stepMm - 1e-9), Math.ceil(o.minimumMm / o.stepMm - 1e-9))
      const price = cost + steps * o.stepPrice
      if (!best || price < best.cost - 1e-9)
        best = {
          cost: price,
          lines: [...lines, { offerId: o.id, lengthMm: steps * o.stepMm, cost: steps * o.stepPrice }],
        }
    }
    return false
  }
  const count = (i: number, counts: number[], cost: number) => {
    if (best && cost >= best.cost - 1e-9) return
    const o = whole[i]
    if (!o) return void finish(counts, cost)
    const most = Math.min(MOST_ROLLS, Math.ceil(total / o.stepMm) + Math.ceil(bandsMm.length / 4))
    for (let n = 0; n <= most; n++) count(i + 1, [...counts, n], cost + n * o.stepPrice)
  }
  count(0, [], 0)
  return best
}

/**
 * Bands that find no room on rolls of these lengths: each roll takes the subset that fills it best, in whole
 * millimetres.
 */
function leftOver(rolls: readonly number[], bandsMm: readonly number[]): number[] {
  let left = [...bandsMm].sort((a, b) => b - a)
  for (const roll of [...rolls].sort((a, b) => b - a)) {
    if (left.length === 0) break
    if (left.reduce((s, b) => s + b, 0) <= roll + 1e-6) return []
    const cap = Math.floor(roll + 1e-6)
    const took = new Int16Array(cap + 1).fill(-1)
    const reached = new Uint8Array(cap + 1)
    reached[0] = 1
    const size = left.map((b) => Math.ceil(b - 1e-6))
    // The band that reached a sum first; walking back from the largest sum gives a subset, since bands are added in
    // order.
    for (let i = 0; i < size.length; i++)
      for (let s = cap; s >= nth(size, i); s--)
        if (!reached[s] && reached[s - nth(size, i)]) {
          reached[s] = 1
          took[s] = i
        }
    let at = cap
    while (at > 0 && !reached[at]) at--
    const taken = new Set<number>()
    while (at > 0) {
      taken.add(nth(took, at))
      at -= nth(size, took[at] as number)
    }
    left = left.filter((_, i) => !taken.has(i))
  }
  return left
}

/** What to order of a film for bands of these lengths in one width, the cheapest by its offers. */
export function orderFor(film: FilmSheet, widthMm: number, bandsMm: readonly number[]): Order {
  const bought = buyBands(offersOf(film, widthMm), bandsMm)
  if (!bought) return { orderMm: 0, units: 0, cost: 0, lines: [] }
  const orderMm = bought.lines.reduce((s, l) => s + l.lengthMm, 0)
  const offers = new Map(offersOf(film, widthMm).map((o) => [o.id, o]))
  const units = bought.lines.reduce(
    (s, l) => s + Math.round(l.lengthMm / (offers.get(l.offerId)?.stepMm ?? l.lengthMm)),
    0,
  )
  return { orderMm, units, cost: bought.cost, lines: bought.lines }
}
