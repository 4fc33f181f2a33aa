import type { Random } from '../../../kit/random'
import type { Band } from '../model/band'
import { Decoder, EITHER } from './decode'
import { type StripItems } from '../model/strip-items'
import type { Kind } from '../model/kinds'

/**
 * Worth of each kind, leaning by a share from its price towards its bare area at `perArea` of length for each unit of
 * it.
 */
export const leaning = (kinds: readonly Kind[], price: Float64Array, perArea: number, lean: number): Float64Array =>
  price.map((p, k) => {
    const { w, l } = kinds[k]
    return (1 - lean) * p + lean * w * l * perArea
  })

/**
 * Items that stand ready for one band at a time, tries at it, and the warmth these begin with as a share of its
 * length.
 */
const READY = 20
const WARM = 0.03

/**
 * One band after another, each begun by the longest item left and filled from all of them: what lies beside it is
 * exchanged by chance so long as the band is worth more than before. Many items offer a near fit almost everywhere,
 * which no order of all of them finds. `value`: worth of an item in length of strip, by kind.
 */
export class Filling {
  private readonly decoder: Decoder
  private readonly value: Float64Array
  private readonly order = new Int32Array(READY)
  private readonly ready: Uint8Array
  private readonly way: Uint8Array
  private readonly across: Uint8Array
  private readonly glue: Uint8Array
  rounds = 0

  constructor(
    private readonly items: StripItems,
    cuts: number,
    value: Float64Array,
    private readonly random: Random,
    private readonly spent: () => boolean,
  ) {
    this.decoder = new Decoder(items, cuts)
    this.value = Float64Array.from(items.kind, (k) => value[k])
    this.ready = new Uint8Array(items.n)
    this.way = new Uint8Array(items.n)
    this.across = new Uint8Array(items.n)
    this.glue = new Uint8Array(items.n)
  }

  /** Bands of all these items (indices), in so many tries a band; null where time ran out first. */
  run(list: readonly number[], tries: number): Band[] | null {
    const { l, w, turn, width } = this.items
    const long = (i: number) => {
      const [a, b] = [l[i], w[i]]
      return turn[i] && a <= width ? Math.max(a, b) : a
    }
    let left = [...list].sort((a, b) => long(b) - long(a))
    const bands: Band[] = []
    while (left.length > 0) {
      const taken = this.one(left, tries)
      if (!taken) return null
      bands.push(this.read(taken))
      const gone = new Set(taken)
      left = left.filter((i) => !gone.has(i))
    }
    return bands
  }

  /**
   * The best band found that is begun by the first item left; leaves it in the decoder. Null where time ran out
   * first.
   */
  private one(left: readonly number[], tries: number): number[] | null {
    const { random, ready, way, across, glue, items } = this
    const m = Math.min(READY, left.length)
    const order = m === READY ? this.order : new Int32Array(m)
    // The first, and others by chance: partial shuffle of places.
    order[0] = left[0]
    ready[order[0]] = 1
    for (let j = 1; j < m; j++) {
      let i = left[Math.floor(random() * left.length)]
      while (ready[i]) i = left[Math.floor(random() * left.length)]
      order[j] = i
      ready[i] = 1
    }
    for (const i of order) {
      way[i] = i === order[0] ? 0 : EITHER
      across[i] = 0
    }
    let best = -Infinity
    let bestOrder = order.slice()
    let bestWay = new Uint8Array(m)
    let bestAcross = new Uint8Array(m)
    let current = -Infinity
    const keep = () => {
      bestOrder = order.slice()
      bestWay = Uint8Array.from(order, (i) => way[i])
      bestAcross = Uint8Array.from(order, (i) => across[i])
    }
    for (let t = 0; t <= tries; t++) {
      if ((t & 127) === 0 && this.spent()) return null
      let undo = () => {}
      if (t > 0) {
        const j = Math.floor(random() * m)
        const i = order[j]
        const what = random()
        if (what < 0.15 && items.turn[i]) {
          const had = way[i]
          way[i] = j === 0 ? 1 - had : (had + 1 + Math.floor(random() * 2)) % 3
          undo = () => void (way[i] = had)
        } else if (what < 0.3) {
          across[i] = 1 - across[i]
          undo = () => void (across[i] = 1 - across[i])
        } else if (what < 0.55 && m > 2) {
          const a = 1 + Math.floor(random() * (m - 1))
          const b = 1 + Math.floor(random() * (m - 1))
          const [x, y] = [order[a], order[b]]
          order[a] = y
          order[b] = x
          undo = () => {
            order[a] = x
            order[b] = y
          }
        } else if (left.length > m && j > 0) {
          const other = left[Math.floor(random() * left.length)]
          if (ready[other]) continue
          ready[i] = 0
          ready[other] = 1
          way[other] = EITHER
          across[other] = 0
          order[j] = other
          undo = () => {
            ready[i] = 1
            ready[other] = 0
            order[j] = i
          }
        } else continue
      }
      const length = this.decoder.run(order, way, across, glue, true, 1)
      this.rounds++
      let worth = -length
      for (let j = 0; j < m; j++) {
        const i = order[j]
        if (this.decoder.band[i] === 0) worth += this.value[i]
      }
      const heat = WARM * length * (1 - t / (tries + 1)) ** 2
      if (worth >= current || random() < Math.exp((worth - current) / (heat + 1e-9))) {
        current = worth
        if (worth > best) {
          best = worth
          keep()
        }
      } else undo()
    }
    for (const i of order) ready[i] = 0
    bestOrder.forEach((i, j) => {
      way[i] = bestWay[j]
      across[i] = bestAcross[j]
    })
    this.decoder.run(bestOrder, way, across, glue, true, 1)
    return [...bestOrder].filter((i) => this.decoder.band[i] === 0)
  }
  private read(taken: readonly number[]): Band {
    const { decoder, items } = this
    return {
      length: decoder.bandLength[0],
      kinds: taken.map((i) => items.kind[i]),
      x: taken.map((i) => decoder.x[i]),
      y: taken.map((i) => decoder.y[i]),
      turned: taken.map((i) => decoder.turned[i] === 1),
    }
  }
}
