import { BandTable, type How } from './band-table'
import type { Beside, BlocksAsk, Counting, Selection } from './blocks-ask'
import { CodeTable, longer } from '../model/code-table'
import { layerOf, LEAST, LEVELS, type Layer } from './layer'
import { MADE, lastUpTo, NONE, ordered, type Ordered, type Split } from './ordered'

/**
 * Candidates of one number of items, places of rectangles in lists (some ten for each) and bands at most: some 50 MB
 * in all.
 */
const MOST = { candidates: 150_000, listed: 1_000_000, bands: 60_000 }
/** The clock is asked after so many pairs. */
export const CHECK_EVERY = 16_384
/** And before so many rectangles are put in order. */
const ASK_FROM = 1_000
/** Selections of items with their least rectangles, by number of items; and bands, which nothing fits beside. */
export class Blocks {
  work = 0
  private readonly layers: Layer[] = []
  // Rectangles that are done: size, what they hold and how they are put together.
  w = new Int32Array(8192)
  h = new Int32Array(8192)
  private a = new Int32Array(8192)
  private b = new Int32Array(8192)
  made = new Int32Array(8192)
  low = new Int32Array(8192)
  high = new Int32Array(8192)
  value = new Float64Array(8192)
  private entries = 0
  private listed = 0
  // Those of the number of items being worked on: lists of rectangles, one a selection.
  private readonly open = new CodeTable()
  private openValue = new Float64Array(4096)
  private openHead = new Int32Array(4096)
  private cw = new Int32Array(8192)
  private ch = new Int32Array(8192)
  private ca = new Int32Array(8192)
  private cb = new Int32Array(8192)
  private cmade = new Int32Array(8192)
  private next = new Int32Array(8192)
  private candidates = 0
  /** Told to stop while lists were being made: what there is is of no use. */
  private stopped = false

  readonly bands = new BandTable()

  /** 1 − u(W − w) for each width w, the same at the least width of each level, and the level of each width. */
  readonly keep: Float64Array
  readonly keepOf: Float64Array
  readonly level: Uint8Array
  /** What can be lost at most beside a block that is itself worth more than it keeps. */
  private readonly spare: number

  readonly width: number
  private readonly narrowest: number
  readonly slack: number
  private readonly counting: Counting
  private readonly over: () => boolean

  constructor({ width, narrowest, u, slack, length, counting, over }: BlocksAsk) {
    this.width = width
    this.narrowest = narrowest
    this.slack = slack
    this.counting = counting
    this.over = over
    this.keep = Float64Array.from(u, (_, w) => 1 - u[width - w])
    this.level = Uint8Array.from(this.keep, (k) => Math.min(LEVELS - 1, Math.floor(Math.max(0, k) * LEVELS)))
    // A level without widths keeps what the one below it does.
    this.keepOf = new Float64Array(LEVELS).fill(-1)
    for (let w = width; w >= 0; w--) this.keepOf[this.level[w]] = this.keep[w]
    for (let l = 1; l < LEVELS; l++) if (this.keepOf[l] === -1) this.keepOf[l] = this.keepOf[l - 1]
    this.spare = length * u.reduce((most, x, w) => Math.max(most, x - this.keep[w]), 0)
  }

  /** True once there are more than can be held. */
  get full(): boolean {
    return (
      this.stopped || this.candidates > MOST.candidates || this.listed > MOST.listed || this.bands.size > MOST.bands
    )
  }
  /** How a rectangle is put together. */
  how(e: number): How {
    return { made: this.made[e], a: this.a[e], b: this.b[e] }
  }
  /** A rectangle that holds a selection, unless it loses too much or is no smaller than one known. */
  add({ low, high, value, w, h, made, a, b }: Selection & How): void {
    if (this.width - w < this.narrowest) {
      if (h - value <= this.slack) this.bands.keep(low, high, h, { made, a, b })
      return
    }
    if (h * this.keep[w] - value > this.slack) return
    const known = this.open.size
    const s = this.open.put(low, high)
    if (s === known) {
      if (s === this.openValue.length) {
        this.openValue = longer(this.openValue)
        this.openHead = longer(this.openHead)
      }
      this.openValue[s] = value
      this.openHead[s] = -1
    }
    // By width, the thinnest first; so the longest first, too.
    const { cw, ch, next } = this
    let before = -1
    let after = this.openHead[s]
    while (after >= 0 && cw[after] < w) {
      if (ch[after] <= h) return
      before = after
      after = next[after]
    }
    if (after >= 0 && cw[after] === w && ch[after] <= h) return
    while (after >= 0 && ch[after] >= h) after = next[after]
    const c = this.candidates++
    if (c === cw.length) {
      this.cw = longer(this.cw)
      this.ch = longer(this.ch)
      this.ca = longer(this.ca)
      this.cb = longer(this.cb)
      this.cmade = longer(this.cmade)
      this.next = longer(this.next)
    }
    this.cw[c] = w
    this.ch[c] = h
    this.ca[c] = a
    this.cb[c] = b
    this.cmade[c] = made
    this.next[c] = after
    if (before < 0) this.openHead[s] = c
    else this.next[before] = c
  }

  /** The selections worked on are done: they are put in order, and what may be a band by itself becomes one. */
  close(): void {
    const { open } = this
    const from = this.entries
    for (let s = 0; s < open.size; s++) {
      const value = this.openValue[s]
      const [low, high] = [open.low[s], open.high[s]]
      let last = -1
      for (let c = this.openHead[s]; c >= 0; c = this.next[c]) {
        const e = this.entries++
        if (e === this.w.length) this.lengthen()
        this.w[e] = this.cw[c]
        this.h[e] = this.ch[c]
        this.a[e] = this.ca[c]
        this.b[e] = this.cb[c]
        this.made[e] = this.cmade[c]
        this.low[e] = low
        this.high[e] = high
        this.value[e] = value
        last = c
      }
      if (last >= 0 && this.ch[last] - value <= this.slack)
        this.bands.keep(low, high, this.ch[last], { made: this.cmade[last], a: this.ca[last], b: this.cb[last] })
    }
    this.layers.push(
      layerOf(this, { from, to: this.entries, most: this.slack + this.spare + LEAST }, (...of) => this.split(...of)),
    )
    open.clear()
    this.candidates = 0
  }
  private lengthen(): void {
    this.w = longer(this.w)
    this.h = longer(this.h)
    this.a = longer(this.a)
    this.b = longer(this.b)
    this.made = longer(this.made)
    this.low = longer(this.low)
    this.high = longer(this.high)
    this.value = longer(this.value)
  }
  /** Rectangles in the order of their keys, by how they are put together; nothing once it was told to stop. */
  private split(entries: readonly number[], keys: readonly number[], made: number): Split {
    if (entries.length === 0 || this.stopped) return [NONE, NONE]
    this.work += entries.length >> 2
    if (entries.length > ASK_FROM && this.over()) this.stopped = true
    this.listed += entries.length
    return ordered(this, entries, keys, made)
  }

  /** All selections of so many items with all of so many others; false where that was too much. */
  pair(few: number, many: number): boolean {
    const x = this.layers[few - 1]
    const y = this.layers[many - 1]
    // What is put together of several blocks in a row is so of one that is not and the rest.
    for (const [p, q] of [
      [0, 0],
      [0, 1],
      [1, 0],
    ] as const)
      for (let l = 0; l < LEVELS; l++) {
        const [ownX, ownY] = [x.own[l][p], y.own[l][q]]
        if (few !== many || p <= q) if (!this.allBehind(ownX, ownY, few === many && p === q)) return false
        if (!this.allBehind(ownX, y.lower[l][q], false)) return false
        if (few !== many && !this.allBehind(x.lower[l][p], ownY, false)) return false
        if (this.over()) return false
      }
    return this.allBeside(x, y, false) && (few === many || this.allBeside(y, x, true))
  }
  private allBehind(x: Ordered, y: Ordered, same: boolean): boolean {
    const [bias0, bias1] = this.counting.bias
    const [guard0, guard1] = this.counting.guard
    const { entry, low, high, key } = x
    const { entry: entry1, low: low1, high: high1, key: key1 } = y
    let looked = 0
    for (let i = 0; i < key.length; i++) {
      const most = this.slack - key[i] + LEAST
      const l = low[i] + bias0
      const h = high[i] + bias1
      let t = same ? i : 0
      for (; t < key1.length && key1[t] <= most; t++)
        if ((((l + low1[t]) & guard0) | ((h + high1[t]) & guard1)) === 0)
          this.behind(entry[i], entry1[t], l - bias0 + low1[t], h - bias1 + high1[t], x.value[i] + y.value[t])
      looked += t - (same ? i : 0)
      if (t === 0) break
      if (looked > CHECK_EVERY) {
        this.work += looked >> 3
        looked = 0
        if (this.over()) return false
      }
    }
    this.work += looked >> 3
    return true
  }
  private behind(a: number, b: number, low: number, high: number, value: number): void {
    this.work++
    const widest = Math.max(this.w[a], this.w[b])
    const length = this.h[a] + this.h[b]
    if (length * this.keep[widest] <= value + this.slack)
      this.add({ low, high, value, w: widest, h: length, made: MADE.behind, a, b })
  }

  /**
   * Each of one layer with those of the other that are no longer than it (`shorter`: shorter) and worth enough beside
   * it.
   */
  private allBeside(x: Layer, y: Layer, shorter: boolean): boolean {
    let looked = 0
    for (const { split } of x.wide)
      for (const [p, q] of [
        [0, 0],
        [0, 1],
        [1, 0],
      ] as const) {
        const from = split[p]
        const beside = { y, q, shorter, same: x === y && p === q }
        for (let i = 0; i < from.key.length; i++) {
          looked += this.besideOne(from, i, beside)
          if (looked > CHECK_EVERY) {
            this.work += looked >> 3
            looked = 0
            if (this.over()) return false
          }
        }
      }
    this.work += looked >> 3
    return true
  }
  private besideOne(from: Ordered, i: number, { y, q, shorter, same }: Beside): number {
    const { width, keep, slack } = this
    const [bias0, bias1] = this.counting.bias
    const [guard0, guard1] = this.counting.guard
    const e = from.entry[i]
    const value = from.value[i]
    const length = from.key[i]
    const across = this.w[e]
    const l = from.low[i] + bias0
    const h = from.high[i] + bias1
    let looked = 0
    for (const { thin, worth, rich, split } of y.wide) {
      if (across + thin > width) break
      const enough = length * keep[across + thin] - value - slack - LEAST
      looked++
      if (worth < enough) continue
      const { entry, low, high, key, value: values } = split[q]
      // From the longest that is not too long, down to those too short to be worth enough.
      let t = lastUpTo(key, shorter ? length - 1 : length)
      const shortest = enough / rich
      for (; t >= 0 && key[t] >= shortest; t--) {
        looked++
        if (values[t] < enough) continue
        if ((((l + low[t]) & guard0) | ((h + high[t]) & guard1)) !== 0) continue
        const f = entry[t]
        if (same && key[t] === length && f < e) continue
        this.work++
        const both = across + this.w[f]
        const sum = value + values[t]
        if (both > width || length * keep[both] > sum + slack) continue
        const held = { low: l - bias0 + low[t], high: h - bias1 + high[t], value: sum }
        this.add({ ...held, w: both, h: length, made: MADE.beside, a: e, b: f })
      }
    }
    return looked
  }
}
