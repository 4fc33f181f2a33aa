import type { Band } from '../model/band'
import { BAND, BEHIND, LINKS, type BandShape } from './band-shape'
import type { BigAsk } from './big-ask'
import type { FillTable } from './fill-table'
import { FillView } from './fill-view'

/** Big items in one band that is looked for by itself. */
export const MOST_IN_BAND = 6
/** Worth of small items, so small that any price outweighs it. */
const NEARLY_NOTHING = 1e-6
interface Walk {
  first: number
  u: Float64Array
  /** Worth at u of every selection of the table. */
  worth: Float64Array
  tries: number
  hot: number
  slack: number
  done: () => boolean
}

/** Bands looked for one by one, each around a big item, their rooms filled out of the table. */
export class SingleBands {
  rounds = 0

  /** `shape` has room for one item more than a band may hold. */
  constructor(
    private readonly ask: BigAsk,
    private readonly table: FillTable,
    private readonly big: readonly number[],
    private readonly shape: BandShape,
  ) {}

  /**
   * Single bands that are worth most over their length at prices u, each begun with one of the big kinds in turn: those
   * that lose less than `slack` go to the pool.
   */
  find(u: Float64Array, tries: number, hot: number, slack: number, done: () => boolean): void {
    const worth = this.table.sums((k) => u[k])
    // Where prices say nothing of small items the larger go first.
    const perArea = NEARLY_NOTHING / this.ask.width
    this.shape.view = new FillView(
      this.table,
      worth.map((w, c) => w + perArea * this.table.area[c]),
    )
    for (const first of new Set(this.big)) {
      if (done()) return
      this.findWith({ first, u, worth, tries, hot, slack, done })
    }
  }
  /** A walk from band to band, each a change of the one before: items come and go, `first` stays. */
  private findWith({ first, u, worth, tries, hot, slack, done }: Walk): void {
    const { shape, table } = this
    const { random, pool } = this.ask
    const kinds = [...new Set(this.big)]
    const left = new Int32Array(this.ask.kinds.length)
    for (const k of this.big) left[k] = left[k] + 1
    let n = 0
    const add = (kind: number) => {
      shape.order[n] = kind
      shape.lying[n] = shape.leaner(kind)
      shape.link[n] = BEHIND + Math.floor(random() * (LINKS - 1))
      shape.rank[n] = 0
      shape.part[n] = random() < 0.5 ? 1 : 0
      n++
      left[kind] = left[kind] - 1
    }
    const gain = () => {
      shape.rest = table.all
      for (let i = 0; i < n; i++) if (shape.link[i] === BAND) shape.link[i] = BEHIND
      if (shape.bandEnd(0, n) < n) return -Infinity
      let value = -shape.band(shape.holds(0, n, this.ask), n, shape.across, null)
      for (let i = 0; i < n; i++) value += u[shape.order[i]]
      return value + worth[table.indexOf(table.all - shape.rest)]
    }
    add(first)
    let current = gain()
    const had = shape.copy()
    const hadLeft = left.slice()
    for (let t = 0; t < tries; t++) {
      if ((t & 255) === 255 && done()) return
      this.rounds++
      shape.keepIn(had)
      hadLeft.set(left)
      const hadMany = n
      const what = random()
      const i = Math.floor(random() * n)
      if (what < 0.25) {
        const kind = kinds[Math.floor(random() * kinds.length)]
        if (n === MOST_IN_BAND || left[kind] === 0) continue
        add(kind)
        shape.move(n - 1, Math.floor(random() * n))
      } else if (what < 0.4) {
        if (n === 1 || shape.order[i] === first) continue
        left[shape.order[i]] = left[shape.order[i]] + 1
        shape.move(i, n - 1)
        n--
      } else if (what < 0.55) shape.swap(i, Math.floor(random() * n))
      else if (what < 0.65) shape.move(i, Math.floor(random() * n))
      else shape.alter(i, (what - 0.65) / 0.35, random)
      const next = gain()
      if (next < current && random() >= Math.exp((next - current) / hot)) {
        shape.goBack(had)
        left.set(hadLeft)
        n = hadMany
        continue
      }
      current = next
      const [loss, mark] = [shape.length - shape.worth, shape.mark]
      if (next <= -slack || loss >= slack || !pool.wants(mark, shape.length)) continue
      const band: Band = { length: 0, kinds: [], x: [], y: [], turned: [] }
      shape.rest = table.all
      shape.band(0, n, shape.across, band)
      pool.put(mark, band, loss)
    }
  }
}
