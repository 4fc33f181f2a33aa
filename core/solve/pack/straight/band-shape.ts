import type { Random } from '../../../kit/random'
import type { Band } from '../model/band'
import type { FillTable } from './fill-table'
import type { FillView } from './fill-view'
import type { Kind } from '../model/kinds'
import { PACK_TOLERANCE } from '../model/types'

/**
 * How a big item goes on from the one before it: a new band, behind it in its column, a new column, beside it in its
 * row.
 */
export const [BAND, BEHIND, COLUMN, BESIDE] = [0, 1, 2, 3]
export const LINKS = 4
/** Selections below the worthiest that the room beside a band is tried with. */
const RANKS = 4
const STATE = ['order', 'lying', 'link', 'rank', 'part'] as const
export type ShapeState = Pick<BandShape, (typeof STATE)[number]>

interface BandShapeAsk {
  kinds: readonly Kind[]
  width: number
  deep: boolean
  table: FillTable
  view: FillView
  worths: Float64Array
  marks: Float64Array
  /** Items at most. */
  most: number
}

/**
 * Bands of big items in columns, the rooms beside and behind them filled with small ones out of a table. An order of
 * items, how each lies, how it goes on from the one before it, and where a column comes apart into runs of rows.
 * With few stages of cuts columns hold one item a row and nothing but the room beside them is filled.
 */
export class BandShape {
  readonly order: Int32Array
  readonly lying: Uint8Array
  readonly link: Uint8Array
  /** The room beside the columns takes not the worthiest selection but one so many places down. */
  readonly rank: Uint8Array
  readonly part: Uint8Array
  /** Small items still to be laid. */
  rest = 0
  /** Worth and mark of the small items laid since these were last set. */
  worth = 0
  mark = 0
  /** Where items are written as they are laid, or null. */
  out: Band | null = null

  readonly kinds: readonly Kind[]
  readonly width: number
  /** Any number of cuts. */
  readonly deep: boolean
  readonly table: FillTable
  view: FillView
  private readonly worths: Float64Array
  private readonly marks: Float64Array

  constructor({ kinds, width, deep, table, view, worths, marks, most }: BandShapeAsk) {
    this.kinds = kinds
    this.width = width
    this.deep = deep
    this.table = table
    this.view = view
    this.worths = worths
    this.marks = marks
    this.order = new Int32Array(most)
    this.lying = new Uint8Array(most)
    this.link = new Uint8Array(most)
    this.rank = new Uint8Array(most)
    this.part = new Uint8Array(most)
  }
  /** The turn in which a wide item takes least length. */
  leaner(kind: number): number {
    const k = this.kinds[kind]
    return k.turn && k.l > k.w && k.l <= this.width + PACK_TOLERANCE ? 1 : 0
  }
  /**
   * Changes how item i goes on, what fills beside it, where its column comes apart, or how it lies. `what`: 0–1 by
   * chance.
   */
  alter(i: number, what: number, random: Random): void {
    const { link, rank, part, lying } = this
    if (what < 0.4) link[i] = Math.floor(random() * LINKS)
    else if (what < 0.64) rank[i] = random() < 0.5 ? 0 : Math.floor(random() * RANKS)
    else if (what < 0.8) part[i] = 1 - part[i]
    else if (this.kinds[this.order[i]].turn) lying[i] = 1 - lying[i]
  }
  swap(i: number, j: number): void {
    for (const list of [this.order, this.lying]) [list[i], list[j]] = [list[j], list[i]]
  }
  move(i: number, j: number): void {
    for (const list of [this.order, this.lying, this.link, this.rank, this.part]) {
      const it = list[i]
      if (j > i) list.copyWithin(i, i + 1, j + 1)
      else list.copyWithin(j + 1, j, i)
      list[j] = it
    }
  }
  /** The state as it is, to go back to. */
  copy(): ShapeState {
    const { order, lying, link, rank, part } = this
    return { order: order.slice(), lying: lying.slice(), link: link.slice(), rank: rank.slice(), part: part.slice() }
  }
  keepIn(state: ShapeState): void {
    for (const name of STATE) state[name].set(this[name])
  }
  goBack(state: ShapeState): void {
    for (const name of STATE) this[name].set(state[name])
  }
  w(i: number): number {
    const k = this.kinds[this.order[i]]
    return this.lying[i] ? k.l : k.w
  }
  l(i: number): number {
    const k = this.kinds[this.order[i]]
    return this.lying[i] ? k.w : k.l
  }
  private how(i: number): number {
    const how = this.link[i]
    return how === BESIDE && !this.deep ? COLUMN : how
  }
  readonly put = (kind: number, x: number, y: number, turned: boolean) => {
    const out = this.out as Band
    out.kinds.push(kind)
    out.x.push(x)
    out.y.push(y)
    out.turned.push(turned)
  }
  /** Length of the band last laid. */
  length = 0
  /** What the columns of the band last looked at are wide. */
  across = 0
  /** Where the band that begins with item s ends: at a new band, or where the strip is too narrow to go on. */
  bandEnd(s: number, n: number): number {
    let e = s + 1
    let across = this.w(s)
    let col = across
    let row = across
    for (; e < n && this.link[e] !== BAND; e++) {
      const w = this.w(e)
      const how = this.how(e)
      if (how === COLUMN) {
        if (across + w > this.width + PACK_TOLERANCE) break
        across += w
        col = row = w
      } else {
        row = how === BESIDE ? row + w : w
        const wider = Math.max(col, row)
        if (across + wider - col > this.width + PACK_TOLERANCE) break
        across += wider - col
        col = wider
      }
    }
    this.across = across
    return e
  }
  /** Items s to e, `across` wide, as one band. Answers its length. */
  band(s: number, e: number, across: number, out: Band | null): number {
    let length = 0
    for (let i = s; i < e;) {
      const end = this.columnEnd(i, e)
      length = Math.max(length, this.columnLength(i, end))
      i = end
    }
    if (out) out.length = length
    this.length = length
    this.out = out
    // The room beside the columns comes first on the strip; what of it is not used is the last column's.
    let x = this.fill(0, 0, this.width - across, length, this.rank[s])
    for (let i = s; i < e;) {
      const end = this.columnEnd(i, e)
      const wide = this.columnWidth(i, end)
      this.column(i, end, x, end === e ? this.width - x : wide, length)
      x += wide
      i = end
    }
    return length
  }
  /** Fills a room; answers the width used. */
  private fill(x: number, y: number, w: number, l: number, skip: number): number {
    const { table } = this
    const entry = this.view.fill(w, l, this.rest, skip)
    if (entry < 0) return 0
    this.rest -= table.holds(entry)
    const c = table.selectionOf(entry)
    this.worth += this.worths[c]
    this.mark += this.marks[c]
    if (this.out) table.lay(entry, x, y, this.put)
    return table.W[entry]
  }
  private columnEnd(i: number, e: number): number {
    let end = i + 1
    while (end < e && this.how(end) !== COLUMN) end++
    return end
  }
  private rowEnd(i: number, e: number): number {
    let end = i + 1
    while (end < e && this.how(end) === BESIDE) end++
    return end
  }
  private rowWidth(i: number, end: number): number {
    let w = 0
    for (let k = i; k < end; k++) w += this.w(k)
    return w
  }
  private rowLength(i: number, end: number): number {
    let l = 0
    for (let k = i; k < end; k++) l = Math.max(l, this.l(k))
    return l
  }
  private columnLength(i: number, end: number): number {
    let l = 0
    for (let r = i; r < end; r = this.rowEnd(r, end)) l += this.rowLength(r, this.rowEnd(r, end))
    return l
  }
  private columnWidth(i: number, end: number): number {
    let w = 0
    for (let r = i; r < end; r = this.rowEnd(r, end)) w = Math.max(w, this.rowWidth(r, this.rowEnd(r, end)))
    return w
  }
  /** A column in `room` of the strip: rows in runs, each run with the room beside it, each row with its own. */
  private column(s: number, e: number, x: number, room: number, length: number): void {
    const { deep } = this
    let y = 0
    for (let i = s; i < e;) {
      const end = this.runEnd(i, e)
      let inner = room
      let at = x
      if (deep && this.rowEnd(i, e) < end && (i > s || end < e)) {
        const used = this.fill(x, y, room - this.columnWidth(i, end), this.columnLength(i, end), 0)
        inner -= used
        at += used
      }
      for (let r = i; r < end; r = this.rowEnd(r, end)) y += this.row(r, this.rowEnd(r, end), at, y, inner)
      i = end
    }
    if (deep && y < length - PACK_TOLERANCE) this.fill(x, y, room, length - y, 0)
  }
  private runEnd(i: number, e: number): number {
    let end = this.rowEnd(i, e)
    if (this.deep) while (end < e && this.part[end]) end = this.rowEnd(end, e)
    return end
  }
  private row(r: number, end: number, x: number, y: number, room: number): number {
    const { deep } = this
    const length = this.rowLength(r, end)
    const wide = this.rowWidth(r, end)
    if (deep) this.fill(x + wide, y, room - wide, length, 0)
    for (let k = r; k < end; k++) {
      const [w, l] = [this.w(k), this.l(k)]
      if (this.out) this.put(this.order[k], x, y, this.lying[k] === 1)
      if (deep && l < length - PACK_TOLERANCE) this.fill(x, y + l, w, length - l, 0)
      x += w
    }
    return length
  }

  /** Worth and mark of the big items s to e, to which the fill adds its own. */
  holds(s: number, e: number, { price, code }: { price: Float64Array; code: Float64Array }): number {
    this.worth = this.mark = 0
    for (let i = s; i < e; i++) {
      this.worth += price[this.order[i]]
      this.mark += code[this.order[i]]
    }
    return s
  }
}
