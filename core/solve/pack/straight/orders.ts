import type { Band } from '../model/band'
import { LEAST_STEP, type StripJob } from '../model/strip-job'
import type { StripItems } from '../model/strip-items'
import { PACK_TOLERANCE } from '../model/types'
import { Decoder, EITHER } from './decode'
import type { BandPool } from './recombine'

/** Warmth of the annealing at its start, as a share of the length. */
const HOT = 0.01

/** The search that orders take part in: what is known so far, and where plans and bands go. */
interface SearchSoFar {
  readonly job: StripJob
  readonly pool: BandPool
  readonly code: Float64Array
  readonly best: readonly Band[]
  readonly length: number
  /** What a band may lose. */
  readonly slack: number
  rounds: number
  done(): boolean
  take(bands: Band[]): void
}

/** Orders of all items, each with its turn and choice of cut, laid one after the other into bands. */
export class Orders {
  private readonly decoder: Decoder
  private order: Int32Array
  private lying: Uint8Array
  private across: Uint8Array
  private glue: Uint8Array
  private readonly loss: Float64Array
  private readonly mark: Float64Array
  /** Rounds of one run of annealing at most. */
  longest = 60_000

  constructor(
    private readonly search: SearchSoFar,
    private readonly items: StripItems,
  ) {
    const { n } = items
    this.decoder = new Decoder(items, search.job.cuts)
    this.loss = new Float64Array(n)
    this.mark = new Float64Array(n)
    this.order = Int32Array.from({ length: n }, (_, i) => i)
    this.lying = new Uint8Array(n).fill(EITHER)
    this.across = new Uint8Array(n)
    this.glue = new Uint8Array(n)
  }

  /** Good orders to begin with. */
  sorted(): void {
    const { w, l, turn, n } = this.items
    const long = (i: number) => (turn[i] ? Math.max(w[i], l[i]) : l[i])
    const short = (i: number) => (turn[i] ? Math.min(w[i], l[i]) : l[i])
    const keys = [(i: number) => l[i], short, long, (i: number) => w[i] * l[i], (i: number) => w[i]]
    let least = Infinity
    for (const key of keys)
      for (let lie = 0; lie < 3; lie++)
        for (const byArea of [true, false]) {
          const order = Int32Array.from({ length: n }, (_, i) => i).sort((a, b) => key(b) - key(a))
          const lying = new Uint8Array(n).fill(lie === 2 ? EITHER : lie)
          const across = new Uint8Array(n)
          const length = this.decoder.run({ order, lying, across, glue: new Uint8Array(n) }, byArea)
          this.offer()
          if (length < least) {
            least = length
            ;[this.order, this.lying, this.across] = [order, lying, across]
          }
          if (this.search.job.spent() && this.search.best.length > 0) return
        }
  }

  /** The decoder's plan as bands, if it is the best yet; its low-loss bands to the pool. */
  private offer(): void {
    const { decoder } = this
    if (decoder.length < this.search.length - LEAST_STEP) this.search.take(this.read(-1))
    // A plan of several bands has few that lose much: the worst half is left out.
    const slack = this.search.slack * 0.5
    const { n, kind } = this.items
    const { price } = this.search.job
    const { loss, mark } = this
    for (let b = 0; b < decoder.bands; b++) {
      loss[b] = decoder.bandLength[b]
      mark[b] = 0
    }
    for (let i = 0; i < n; i++) {
      const b = decoder.band[i]
      const k = kind[i]
      loss[b] = loss[b] - price[k]
      mark[b] = mark[b] + this.search.code[k]
    }
    for (let b = 0; b < decoder.bands; b++)
      if (loss[b] < slack && this.search.pool.wants(mark[b], decoder.bandLength[b])) {
        const band = this.read(b)[0]
        this.search.pool.put(mark[b], band, loss[b])
      }
  }
  private read(only: number): Band[] {
    const { decoder, items } = this
    const bands: Band[] = Array.from({ length: decoder.bands }, (_, b) => ({
      length: decoder.bandLength[b],
      kinds: [],
      x: [],
      y: [],
      turned: [],
    }))
    for (let i = 0; i < items.n; i++) {
      const band = bands[decoder.band[i]]
      band.kinds.push(items.kind[i])
      band.x.push(decoder.x[i])
      band.y.push(decoder.y[i])
      band.turned.push(decoder.turned[i] === 1)
    }
    return only < 0 ? bands : [bands[only]]
  }

  /** One run of annealing over order, turn and choice of cut, from the last best order or a shaken one. */
  anneal(turn: number): void {
    const { items, decoder, search } = this
    const { job } = search
    const { random } = job
    const n = items.n
    const cycle = Math.min(
      job.rounds - this.search.rounds,
      Math.min(this.longest, (300 + 60 * n) * 2 ** Math.floor(turn / 2)),
    )
    const byArea = turn % 2 === 0
    const order = this.order.slice()
    const lying = this.lying.slice()
    const across = this.across.slice()
    const glue = this.glue.slice()
    // From the best order, a little shaken, or quite another one.
    const swaps = turn % 4 === 1 ? n : turn % 4 === 2 ? Math.ceil(n / 8) : 0
    for (let k = 0; k < swaps; k++) {
      const i = swaps === n ? k : Math.floor(random() * n)
      const j = Math.floor(random() * n)
      ;[order[i], order[j]] = [order[j], order[i]]
    }
    const ordering = { order, lying, across, glue }
    let current = decoder.run(ordering, byArea)
    let bestHere = current
    const hot = HOT * current
    for (let r = 0; r < cycle; r++) {
      this.search.rounds++
      if ((r & 127) === 0 && this.search.done()) break
      const i = Math.floor(random() * n)
      const j = Math.floor(random() * n)
      const what = random()
      const item = order[i]
      const [hadLying, hadAcross, hadGlue] = [lying[item], across[item], glue[item]]
      let moved = 0
      if (what < 0.2 && items.turn[item]) lying[item] = (hadLying + 1 + Math.floor(random() * 2)) % 3
      else if (what < 0.3) across[item] = 1 - hadAcross
      else if (what < 0.42) glue[item] = (hadGlue + 1 + Math.floor(random() * 2)) % 3
      else if (what < 0.68) {
        moved = 1
        order[i] = order[j]
        order[j] = item
      } else {
        moved = 2
        shift(order, i, j)
      }
      const heat = hot * (1 - r / cycle) ** 2
      // Drawn first, so that a plan too long for it need not be laid to its end.
      const most = current - heat * Math.log(1 - random())
      const length = decoder.run(ordering, byArea, most)
      if (length <= most) {
        if (length < current + hot * 0.5) this.offer()
        current = length
        if (length < bestHere - PACK_TOLERANCE) {
          bestHere = length
          if (length <= this.search.length + PACK_TOLERANCE)
            [this.order, this.lying, this.across, this.glue] = [
              order.slice(),
              lying.slice(),
              across.slice(),
              glue.slice(),
            ]
        }
      } else {
        lying[item] = hadLying
        across[item] = hadAcross
        glue[item] = hadGlue
        if (moved === 1) {
          order[j] = order[i]
          order[i] = item
        } else if (moved === 2) shift(order, j, i)
      }
    }
  }
}

/** Moves the entry at i to j. */
function shift(order: Int32Array, i: number, j: number): void {
  const item = order[i]
  if (j > i) order.copyWithin(i, i + 1, j + 1)
  else order.copyWithin(j + 1, j, i)
  order[j] = item
}
