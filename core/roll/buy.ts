import type { FilmSheet } from '../film/schema'

export interface Order {
  orderMm: number
  units: number
  cost: number
}

/** What to order of a film for a length, by its own rule: minimum and step, whole rolls, or sheets. */
export function orderQuantity(film: FilmSheet, usedMm: number, rolls: number): Order {
  const { unit, minimumMm, price } = film.soldBy
  const rollMm = film.rollLengthsMm[0] ?? 25000
  if (unit === 'roll' || unit === 'sheet') {
    const units = Math.max(rolls, Math.ceil(usedMm / rollMm - 1e-9))
    return { orderMm: units * rollMm, units, cost: units * price }
  }
  const step = unit === 'metre' ? 1000 : 500
  const orderMm = Math.max(minimumMm, Math.ceil(usedMm / step - 1e-9) * step)
  return { orderMm, units: orderMm / step, cost: (orderMm / 1000) * price }
}

/** One thing a supplier sells of a width: a length at a price, from a minimum in steps; or whole rolls. */
export interface Offer {
  id: string
  widthMm: number
  /** Least length that is sold, and the step beyond it, mm. A whole roll has both equal to its length. */
  minimumMm: number
  stepMm: number
  /** Price of one step. */
  stepPrice: number
}
export interface Bought {
  cost: number
  lines: { offerId: string; lengthMm: number; cost: number }[]
}

/**
 * The cheapest purchase of at least `needMm` out of offers of one width. Exact: an order is any number of cuts of each
 * offer; with k cuts of one that sells from a minimum, the least is k times that. Cuts shorter than `longestMm` (the
 * longest band that must stay whole) are of no use.
 */
export function cheapest(offers: readonly Offer[], needMm: number, longestMm: number): Bought | null {
  if (needMm <= 0) return { cost: 0, lines: [] }
  let best: Bought | null = null
  const usable = offers.map((o) => ({
    ...o,
    minimumMm: Math.max(o.minimumMm, Math.ceil(longestMm / o.stepMm - 1e-9) * o.stepMm),
  }))
  const search = (at: number, left: number, cost: number, lines: Bought['lines']) => {
    if (best && cost >= best.cost - 1e-9) return
    if (left <= 1e-6) {
      best = { cost, lines: [...lines] }
      return
    }
    const offer = usable[at]
    if (!offer) return
    // Enough of this one alone, then one step less each time.
    const most = Math.max(Math.ceil(left / offer.stepMm - 1e-9), Math.ceil(offer.minimumMm / offer.stepMm - 1e-9))
    for (let steps = most; steps >= 0; steps--) {
      const lengthMm = steps * offer.stepMm
      if (steps > 0 && lengthMm < offer.minimumMm - 1e-6) continue
      const price = steps * offer.stepPrice
      search(
        at + 1,
        left - lengthMm,
        cost + price,
        steps > 0 ? [...lines, { offerId: offer.id, lengthMm, cost: price }] : lines,
      )
    }
  }
  search(0, needMm, 0, [])
  return best
}
