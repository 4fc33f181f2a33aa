import { StripItems } from '../model/strip-items'
import { PACK_TOLERANCE } from '../model/types'
import { AS_COMES, EITHER, FreeRectangles, TURNED } from './free-rectangles'

export { AS_COMES, EITHER, TURNED }
/** So many stages are as good as any number. */
const UNLIMITED = 64
const MOST_BLOCK = 4

/** An order of items; how each lies, along which side the rest is cut, and what is joined to the one before: by item. */
export interface Ordering {
  order: Int32Array
  lying: Uint8Array
  across: Uint8Array
  glue: Uint8Array
}
/** Where something is laid, and the stages of cuts left there. */
interface Corner {
  x: number
  y: number
  band: number
  cuts: number
}

/**
 * Fills bands in the order given by straight cuts: an item takes the free rectangle that it wastes least, or opens a
 * new band across the strip as long as itself. What is left beside and behind it is split by one cut; `across` of an
 * item turns that choice round. Items with `glue` join the item before them as one block. With `cuts` the depth of
 * cutting is kept to that many stages (across, lengthwise, across …), the trim of an item within its last rectangle not
 * counted. What is wider than the strip is in band −1. A plan that is known to be longer than `most` is left unfinished.
 * Arrays are made once and used again.
 */
export class Decoder {
  readonly cuts: number
  readonly x: Float64Array
  readonly y: Float64Array
  readonly band: Int32Array
  readonly turned: Uint8Array
  readonly bandLength: Float64Array
  bands = 0
  length = 0
  private readonly free: FreeRectangles

  constructor(
    readonly items: StripItems,
    cuts: number,
  ) {
    this.cuts = Math.min(cuts, 1e6)
    const n = items.n
    this.x = new Float64Array(n)
    this.y = new Float64Array(n)
    this.band = new Int32Array(n)
    this.turned = new Uint8Array(n)
    this.bandLength = new Float64Array(n)
    this.free = new FreeRectangles(items)
  }

  run(ordering: Ordering, byArea: boolean, most = Infinity): number {
    const { order, lying, across, glue } = ordering
    const { items, free } = this
    const { width, w: iw, l: il, turn } = items
    const n = order.length
    const limited = this.cuts < UNLIMITED
    free.count = 0
    this.bands = 0
    this.length = 0
    for (let o = 0; o < n;) {
      const i = order[o]
      const joins = o + 1 < n ? glue[order[o + 1]] : 0
      // Most items lie by themselves.
      const single = joins === 0 || (limited && (joins === 2 || this.cuts < 3))
      const asked = turn[i] ? lying[i] : AS_COMES
      let end = o + 1
      let at = -1
      if (single) at = free.seat(iw[i], il[i], asked, byArea)
      else {
        end = this.block(ordering, o, limited)
        at = free.seatBlock(this.bw, this.bh, limited, byArea)
      }
      if (at < 0) {
        if (single) this.block(ordering, o, limited)
        const w = this.bw
        const h = this.bh
        if (w > width + PACK_TOLERANCE) {
          // A block that fits nowhere comes apart.
          if (!single) glue[order[o + 1]] = 0
          else {
            this.band[i] = -1
            o = end
          }
          continue
        }
        const b = this.bands++
        if (single) this.place(i, 0, 0, this.bt[0], b)
        else this.put(order, o, end, { x: 0, y: 0, band: b, cuts: this.cuts - 1 })
        this.bandLength[b] = h
        this.length += h
        if (this.length > most) return this.length
        free.add({ x: w, y: 0, w: width - w, h, band: b, cuts: this.cuts - 1, long: 1 })
        o = end
        continue
      }
      const x = free.x[at]
      const y = free.y[at]
      const W = free.w[at]
      const H = free.h[at]
      const b = free.band[at]
      const cuts = free.cuts[at]
      const long = free.long[at]
      let w = this.bw
      let h = this.bh
      free.remove(at)
      if (single) {
        const lies = free.lies
        w = lies ? il[i] : iw[i]
        h = lies ? iw[i] : il[i]
        this.place(i, x, y, lies, b)
      } else this.put(order, o, end, { x, y, band: b, cuts })
      const dw = W - w
      const dh = H - h
      // The cut that leaves the larger rectangle whole, unless turned round; a stack is cut off lengthwise first.
      let lengthwise = dw * H >= W * dh
      if (across[i]) lengthwise = !lengthwise
      if (limited && !single) lengthwise = true
      // Stages left beside and behind it: a cut the other way than the last one takes one.
      if (lengthwise) {
        free.add({ x: x + w, y, w: dw, h: H, band: b, cuts: long ? cuts : cuts - 1, long: 1 })
        free.add({ x, y: y + h, w, h: dh, band: b, cuts: long ? cuts - 1 : cuts - 2, long: 0 })
      } else {
        free.add({ x: x + w, y, w: dw, h, band: b, cuts: long ? cuts - 2 : cuts - 1, long: 1 })
        free.add({ x, y: y + h, w: W, h: dh, band: b, cuts: long ? cuts - 1 : cuts, long: 0 })
      }
      o = end
    }
    return this.length
  }

  private bw = 0
  private bh = 0
  private readonly bx = new Float64Array(MOST_BLOCK)
  private readonly by = new Float64Array(MOST_BLOCK)
  private readonly bt = new Uint8Array(MOST_BLOCK)

  /**
   * Sizes the block that begins at place o: the item there and those glued to it, each behind (1) or beside (2) what
   * is there.
   */
  private block({ order, lying, across, glue }: Ordering, o: number, limited: boolean): number {
    const { w: iw, l: il, turn, width } = this.items
    let end = o
    for (; end < order.length && end < o + MOST_BLOCK; end++) {
      const i = order[end]
      let how = end === o ? 0 : glue[i]
      if (end > o && (how === 0 || (limited && (how === 2 || this.cuts < 3)))) break
      const asked = turn[i] ? lying[i] : AS_COMES
      let t = asked === TURNED ? 1 : 0
      let w = t ? il[i] : iw[i]
      let h = t ? iw[i] : il[i]
      if (w > width + PACK_TOLERANCE || (asked === EITHER && h < w && h <= width + PACK_TOLERANCE && across[i] === 0)) {
        t = 1 - t
        ;[w, h] = [h, w]
      }
      const p = end - o
      this.bt[p] = t
      if (how === 2 && this.bw + w > width + PACK_TOLERANCE) how = 1
      this.bx[p] = how === 2 ? this.bw : 0
      this.by[p] = how === 1 ? this.bh : 0
      if (how === 0) {
        this.bw = w
        this.bh = h
      } else if (how === 1) {
        this.bh += h
        if (w > this.bw) this.bw = w
      } else {
        this.bw += w
        if (h > this.bh) this.bh = h
      }
    }
    return end
  }
  /** Lays the block sized last; what is left over beside its parts is free. */
  private put(order: Int32Array, o: number, end: number, { x, y, band, cuts }: Corner): void {
    const { w: iw, l: il } = this.items
    let w = 0
    let h = 0
    const inner = this.cuts < UNLIMITED ? cuts - 2 : cuts
    for (let p = o; p < end; p++) {
      const i = order[p]
      const q = p - o
      const t = this.bt[q]
      const [pw, ph] = t ? [il[i], iw[i]] : [iw[i], il[i]]
      const [px, py] = [this.bx[q], this.by[q]]
      this.place(i, x + px, y + py, t, band)
      if (p === o) {
        w = pw
        h = ph
      } else if (py > 0) {
        if (pw < w) this.free.add({ x: x + pw, y: y + h, w: w - pw, h: ph, band, cuts: inner, long: 1 })
        else {
          this.free.add({ x: x + w, y, w: pw - w, h, band, cuts: inner, long: 1 })
          w = pw
        }
        h += ph
      } else {
        if (ph < h) this.free.add({ x: x + w, y: y + ph, w: pw, h: h - ph, band, cuts: inner, long: 0 })
        else {
          this.free.add({ x, y: y + h, w, h: ph - h, band, cuts: inner, long: 0 })
          h = ph
        }
        w += pw
      }
    }
  }

  private place(i: number, x: number, y: number, turned: number, band: number) {
    this.x[i] = x
    this.y[i] = y
    this.turned[i] = turned
    this.band[i] = band
  }
}
