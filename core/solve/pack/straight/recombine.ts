import { markOf, worth, type Band } from '../model/band'
import { coverLp, type Column } from '../bound/cover-lp'

const MOST_BANDS = 60_000
const MOST_COLUMNS = 4000

/** Bands seen so far, the shortest for each content, by their loss: length less the worth of what they hold. */
export class BandPool {
  private readonly byKey = new Map<number, { band: Band; kinds: number[]; length: number; loss: number }>()
  changed = 0
  get size(): number {
    return this.byKey.size
  }
  wants(mark: number, length: number): boolean {
    const had = this.byKey.get(mark)
    return had ? length < had.length - 1e-7 : this.byKey.size < MOST_BANDS
  }
  put(mark: number, band: Band, loss: number): void {
    this.byKey.set(mark, { band, kinds: band.kinds, length: band.length, loss })
    this.changed++
  }
  /** Forget what can no longer be in a better plan. */
  prune(slack: number): void {
    for (const [key, entry] of this.byKey) if (entry.loss >= slack) this.byKey.delete(key)
  }
  /**
   * Worth of each kind by the bands in the pool (every band costs at least the worth of what it holds), and what that
   * proves of them.
   */
  prices(
    need: Int32Array,
    alone: Float64Array,
    spent: () => boolean = () => false,
  ): { price: Float64Array; value: number; taken: { band: Band; times: number }[] } {
    // The bands that lose least are enough for good prices.
    const entries = [...this.byKey.values()].sort((a, b) => a.loss - b.loss).slice(0, MOST_COLUMNS)
    const columns = entries.map((e) => contentOf(e.kinds, e.length))
    const bandOf = new Map<Column, Band>(columns.map((c, i) => [c, (entries[i] as { band: Band }).band]))
    const lp = coverLp(
      need,
      [...alone].map((cost) => ({ value: 1, cost })),
      (u) => {
        if (spent()) return null
        let best: Column | null = null
        let most = 1e-7
        for (const c of columns) {
          let sum = -c.cost
          for (let k = 0; k < c.rows.length; k++) sum += u[c.rows[k]] * c.values[k]
          if (sum > most) {
            most = sum
            best = c
          }
        }
        return best
      },
      10 * need.length + 200,
    )
    const taken = lp.taken.flatMap(({ column, times }) => {
      const band = bandOf.get(column)
      return band ? [{ band, times }] : []
    })
    return { price: lp.price, value: lp.value, taken }
  }
  /** Bands that hold no more of each kind than is left. */
  within(left: Int32Array): Band[] {
    const held = new Int32Array(left.length)
    const bands: Band[] = []
    for (const { band } of this.byKey.values()) {
      let fits = true
      for (const k of band.kinds) if ((held[k] = held[k] + 1) > left[k]) fits = false
      for (const k of band.kinds) held[k] = 0
      if (fits) bands.push(band)
    }
    return bands
  }
  /** Keeps no more than so many bands: those that lose least at these prices. */
  keepLeast(most: number, price: Float64Array): void {
    if (this.byKey.size <= most) return
    for (const e of this.byKey.values()) e.loss = e.length - worth(e.kinds, price)
    const losses = [...this.byKey.values()].map((e) => e.loss).sort((a, b) => a - b)
    this.prune(losses[most])
  }
  /** The shortest band known that holds what this one does, which is known from now on. */
  shortest(mark: number, band: Band): Band {
    const had = this.byKey.get(mark)
    if (had && had.length <= band.length) return had.band
    this.put(mark, band, 0)
    return band
  }
  /** Bands of a pool over some of the kinds, which `from` names. */
  takeFrom(other: BandPool, from: readonly number[], code: Float64Array): void {
    for (const { band, loss } of other.byKey.values()) {
      const kinds = band.kinds.map((k) => from[k])
      const mark = markOf(kinds, code)
      if (this.wants(mark, band.length)) this.put(mark, { ...band, kinds }, loss)
    }
  }
  /** Bands of another pool over the same kinds. */
  takeIn(other: BandPool): void {
    for (const [mark, e] of other.byKey) if (this.wants(mark, e.length)) this.put(mark, e.band, e.loss)
  }
  /**
   * Bands that cover every kind exactly `need` times with a length under `length`, the least found within `nodes`
   * steps:
   * a depth-first search on the loss that is left against `price`. `trim`: a band may leave out what is laid already.
   * `whole` says that nothing better is in the pool.
   */
  recombine({
    need,
    price,
    length,
    nodes,
    spent,
    trim = false,
  }: {
    need: Int32Array
    price: Float64Array
    length: number
    nodes: number
    spent: () => boolean
    trim?: boolean
  }): { bands: Band[] | null; whole: boolean } {
    let slack = length
    for (let k = 0; k < need.length; k++) slack -= price[k] * need[k]
    const entries = [...this.byKey.values()]
      .map((e) => ({ ...e, loss: e.kinds.reduce((l, k) => l - price[k], e.length) }))
      .filter((e) => e.loss < slack)
      .sort((a, b) => a.loss - b.loss)
    const content = entries.map((e) => contentOf(e.kinds, 0))
    const having: number[][] = Array.from(need, () => [])
    content.forEach((c, e) => c.rows.forEach((k) => having[k].push(e)))
    const order = [...need.keys()].sort((a, b) => having[a].length - having[b].length)
    const left = need.slice()
    const path: { e: number; took: number[] }[] = []
    let bestLoss = slack
    let best: { e: number; took: number[] }[] | null = null
    let steps = 0
    let whole = true
    const search = (loss: number, from: number, lastKind: number, lastEntry: number) => {
      if (!whole) return
      let at = from
      while (at < order.length && left[order[at]] === 0) at++
      if (at === order.length) {
        bestLoss = loss
        best = [...path]
        return
      }
      const kind = order[at]
      const list = having[kind]
      // The same kind again: bands in list order only, so that no set is tried twice.
      for (let j = kind === lastKind ? lastEntry : 0; j < list.length; j++) {
        const e = list[j]
        const l = Math.max(0, (entries[e] as { loss: number }).loss)
        if (loss + l >= bestLoss - 1e-7) break
        if (++steps > nodes || ((steps & 1023) === 0 && spent())) {
          whole = false
          return
        }
        const { rows, values } = content[e] as { rows: number[]; values: number[] }
        // What is left out of the band is lost as worth.
        let spare = 0
        for (let k = 0; k < rows.length && spare < Infinity; k++) {
          const over = values[k] - left[rows[k]]
          if (over > 0) spare += trim ? over * price[rows[k]] : Infinity
        }
        if (loss + l + spare >= bestLoss - 1e-7) continue
        const took = rows.map((k, i) => Math.min(values[i], left[k]))
        for (let k = 0; k < rows.length; k++) left[rows[k]] = left[rows[k]] - took[k]
        path.push({ e, took })
        search(loss + l + spare, at, kind, j)
        path.pop()
        for (let k = 0; k < rows.length; k++) left[rows[k]] = left[rows[k]] + took[k]
      }
    }
    search(0, 0, -1, 0)
    const found = best as { e: number; took: number[] }[] | null
    const bands =
      found &&
      found.map(({ e, took }) =>
        only((entries[e] as { band: Band }).band, (content[e] as { rows: number[] }).rows, took),
      )
    return { bands, whole }
  }
}

/** The band with no more of each kind than `took` says. */
function only(band: Band, rows: readonly number[], took: readonly number[]): Band {
  const left = new Map(rows.map((k, i) => [k, took[i]]))
  const out: Band = { length: band.length, kinds: [], x: [], y: [], turned: [] }
  band.kinds.forEach((kind, i) => {
    const n = left.get(kind) as number
    if (n === 0) return
    left.set(kind, n - 1)
    out.kinds.push(kind)
    out.x.push(band.x[i])
    out.y.push(band.y[i])
    out.turned.push(band.turned[i])
  })
  return out
}

export function contentOf(kinds: readonly number[], cost: number): { rows: number[]; values: number[]; cost: number } {
  const rows: number[] = []
  const values: number[] = []
  for (const k of [...kinds].sort((a, b) => a - b))
    if (rows[rows.length - 1] === k) values[values.length - 1] = values[values.length - 1] + 1
    else {
      rows.push(k)
      values.push(1)
    }
  return { rows, values, cost }
}
