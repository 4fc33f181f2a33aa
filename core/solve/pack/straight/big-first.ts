import { markOf, worth, type Band } from '../model/band'
import { BAND, BandShape, BEHIND } from './band-shape'
import type { BigAsk } from './big-ask'
import { FillTable } from './fill-table'
import { FillView } from './fill-view'
import { aloneInBand } from '../model/kinds'
import { MOST_IN_BAND, SingleBands } from './single-bands'
import { PACK_TOLERANCE } from '../model/types'

/** What is laid by no table costs its area and this much of it. */
const UNKNOWN = 0.3

/**
 * The big items in columns of bands by annealing, the rooms filled with small items out of a table of all their
 * selections. What is left over makes a last band. Exact where filling matters, by chance only where few items are: the
 * table knows every set of small items that go together.
 */
export class BigFirst {
  private readonly table: FillTable
  private readonly big: number[]
  /**
   * Bands of one big item each, as only short and narrow items fit beside it; what of these lies there, and what is
   * left of them.
   */
  private readonly lone: Lone[] = []
  private loneRest: number
  private readonly loneLength: number
  private readonly shape: BandShape
  private readonly singles: SingleBands
  private readonly worths: Float64Array
  private readonly marks: Float64Array
  rounds = 0
  /** The best plan known: what is not shorter is not told. */
  length = Infinity
  /** The shortest plan of the last runs, whether better than that or not. */
  own = Infinity
  /** Share of the tries that it is worth. */
  share = 1
  /** Of each band laid last: its length, what it holds by its sum of codes, what it loses against the prices. */
  private readonly bandLength: number[] = []
  private readonly bandMark: number[] = []
  private readonly bandLoss: number[] = []
  private count = 0
  private placed = false
  private bands: Band[] | null = null

  constructor(private readonly ask: BigAsk) {
    const { kinds, width, known, cuts, spent, price, code, small } = ask
    const copies = kinds.reduce((n, k) => n + k.items.length, 0)
    const deep = cuts > 2 * copies
    const inTable = new Set(small.map((s) => s.kind))
    const area = kinds.reduce((s, k) => s + k.w * k.l * k.items.length, 0)
    const least = Math.min(...kinds.filter((_, i) => !inTable.has(i)).map((k) => (k.turn ? Math.min(k.w, k.l) : k.w)))
    this.table = new FillTable({
      small,
      width,
      room: width - least,
      length: known,
      waste: width * known - area,
      stages: deep ? Infinity : 3,
      spent,
    })
    this.worths = this.table.sums((k) => price[k])
    this.marks = this.table.sums((k) => code[k])
    const big = kinds.flatMap((k, i) => (inTable.has(i) ? [] : k.items.map(() => i)))
    this.big = big.filter((k) => !aloneInBand(kinds, k, width, inTable))
    for (const kind of big) {
      if (this.big.includes(kind)) continue
      const { w, l, turn } = kinds[kind]
      const turned = turn && l > w && l <= width + PACK_TOLERANCE
      this.lone.push({ kind, turned, w: turned ? l : w, l: turned ? w : l, entry: -1 })
    }
    this.loneLength = this.lone.reduce((t, b) => t + b.l, 0)
    this.loneRest = this.table.all
    const view = new FillView(this.table, this.table.area)
    const shape = (most: number) =>
      new BandShape({
        kinds,
        width,
        deep,
        table: this.table,
        view,
        worths: this.worths,
        marks: this.marks,
        most: Math.max(1, most),
      })
    this.shape = shape(this.big.length)
    this.singles = new SingleBands(ask, this.table, this.big, shape(MOST_IN_BAND + 1))
    this.shape.order.set(this.big)
  }
  get bigKinds(): number {
    return new Set(this.big).size
  }
  get smallKinds(): number {
    return this.table.small.length
  }
  /** False where there was not time enough for the table. */
  get usable(): boolean {
    return this.table.whole
  }
  /** Another beginning. */
  private fresh(): void {
    const { order, lying, link, rank, part } = this.shape
    const { random } = this.ask
    this.besideLone()
    for (let i = order.length - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1))
      ;[order[i], order[j]] = [order[j], order[i]]
    }
    for (let i = 0; i < order.length; i++) {
      lying[i] = this.shape.leaner(order[i])
      link[i] = random() < 0.5 ? BAND : BEHIND
      rank[i] = 0
      part[i] = random() < 0.5 ? 1 : 0
    }
  }

  /** The rooms beside what lies alone are filled first, in one order or another: nothing else can use them. */
  private besideLone(): void {
    const { random, width } = this.ask
    const { lone, table } = this
    let rest = table.all
    for (let i = lone.length - 1; i >= 0; i--) {
      const j = Math.floor(random() * (i + 1))
      ;[lone[i], lone[j]] = [lone[j], lone[i]]
      const b = lone[i]
      b.entry = this.shape.view.fill(width - b.w, b.l, rest, random() < 0.7 ? 0 : 1)
      if (b.entry >= 0) rest -= table.holds(b.entry)
    }
    this.loneRest = rest
  }
  private loneBands(): Band[] {
    return this.lone.map((b) => {
      const band: Band = { length: b.l, kinds: [b.kind], x: [0], y: [0], turned: [b.turned] }
      this.shape.out = band
      if (b.entry >= 0) this.table.lay(b.entry, b.w, 0, this.shape.put)
      return band
    })
  }

  /**
   * One run of annealing of so many tries; bands that lose less than `slack` go to the pool. Answers a plan shorter
   * than before.
   */
  run(tries: number, hot: number, slack: number, done: () => boolean): Band[] | null {
    const { shape } = this
    const { lying, link, rank, part } = shape
    const { random } = this.ask
    const n = this.big.length
    this.fresh()
    let current = this.lay()
    let best: Band[] | null = null
    this.offerLone(slack)
    for (let t = 0; t < tries; t++) {
      this.rounds++
      if ((t & 63) === 0 && done()) break
      const i = Math.floor(random() * n)
      const j = Math.floor(random() * n)
      const what = random()
      const had = [lying[i], link[i], rank[i], part[i]] as const
      if (what < 0.3) shape.swap(i, j)
      else if (what < 0.5) shape.move(i, j)
      else shape.alter(i, (what - 0.5) * 2, random)
      const next = this.lay()
      const heat = hot * (1 - t / tries) ** 2
      if (this.placed && next < this.own) this.own = next
      if (next <= current || random() < Math.exp((current - next) / (heat + 1e-9))) {
        if (next < current + hot * 0.5) this.offer(slack)
        current = next
        if (next < this.length - PACK_TOLERANCE && this.placed) {
          this.length = next
          best = this.read()
        }
      } else if (what < 0.3) shape.swap(i, j)
      else if (what < 0.5) shape.move(j, i)
      else [lying[i], link[i], rank[i], part[i]] = had
    }
    return best
  }
  private offerLone(slack: number): void {
    const { price, code, pool } = this.ask
    for (const band of this.loneBands()) {
      const mark = markOf(band.kinds, code)
      const loss = band.length - worth(band.kinds, price)
      if (loss < slack && pool.wants(mark, band.length)) pool.put(mark, band, loss)
    }
  }
  /** Bands that lose little go to the pool. */
  private offer(slack: number): void {
    let bands: Band[] | null = null
    for (let b = 0; b < this.count; b++) {
      const [mark, length, loss] = [this.bandMark[b], this.bandLength[b], this.bandLoss[b]]
      if (loss >= slack || !this.ask.pool.wants(mark, length)) continue
      bands ??= this.read()
      this.ask.pool.put(mark, bands[b], loss)
    }
  }
  private read(): Band[] {
    const bands: Band[] = []
    this.bands = bands
    this.lay()
    this.bands = null
    bands.push(...this.loneBands())
    return bands
  }
  private another(): Band | null {
    if (!this.bands) return null
    const band: Band = { length: 0, kinds: [], x: [], y: [], turned: [] }
    this.bands.push(band)
    return band
  }

  /** Length of strip for the order as it stands. */
  private lay(): number {
    const { shape, table } = this
    const n = this.big.length
    shape.rest = this.loneRest
    this.count = 0
    let total = this.loneLength
    for (let s = 0; s < n;) {
      const e = shape.bandEnd(s, n)
      total += this.note(shape, shape.band(shape.holds(s, e, this.ask), e, shape.across, this.another()))
      s = e
    }
    this.placed = true
    if (shape.rest === 0) return total
    const over = table.shortest(shape.rest)
    if (!over) {
      this.placed = false
      return total + (table.areaOf(shape.rest) / this.ask.width) * (1 + UNKNOWN)
    }
    const band = this.another()
    if (band) {
      band.length = over.length
      shape.out = band
      for (const p of over.parts) table.lay(p.entry, p.x, p.y, shape.put)
    }
    const c = table.indexOf(shape.rest)
    shape.worth = this.worths[c]
    shape.mark = this.marks[c]
    return total + this.note(shape, over.length)
  }
  private note(shape: BandShape, length: number): number {
    const b = this.count++
    this.bandLength[b] = length
    this.bandMark[b] = shape.mark
    this.bandLoss[b] = length - shape.worth
    return length
  }

  /**
   * Single bands that are worth most over their length at prices u, each begun with one of the big kinds in turn: those
   * that lose less than `slack` go to the pool.
   */
  find(u: Float64Array, tries: number, hot: number, slack: number, done: () => boolean): void {
    const before = this.singles.rounds
    this.singles.find(u, tries, hot, slack, done)
    this.rounds += this.singles.rounds - before
  }
}

interface Lone {
  kind: number
  turned: boolean
  w: number
  l: number
  /** What of the table lies beside it, or −1. */
  entry: number
}
