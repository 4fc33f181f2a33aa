import { StripItems } from '../model/strip-items'
import { PACK_TOLERANCE } from '../model/types'

/** Ways an item may be asked to lie: as it comes, turned, or whichever wastes less. */
export const [AS_COMES, TURNED, EITHER] = [0, 1, 2]
/** So many stages are as good as any number. */
const UNLIMITED = 64
const MOST_BLOCK = 4

/**
 * Fills bands in the order given by straight cuts: an item takes the free rectangle that it wastes least, or opens a
 * new band across the strip as long as itself. What is left beside and behind it is split by one cut; `across` of an
 * item turns that choice round. Items with `glue` join the item before them as one block. With `cuts` the depth of
 * cutting is kept to that many stages (across, lengthwise, across …), the trim of an item within its last rectangle not
 * counted. What is wider than the strip is in band −1. A plan that is known to be longer than `most` is left unfinished. Arrays are made once and used again.
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
  private readonly fx: Float64Array
  private readonly fy: Float64Array
  private readonly fw: Float64Array
  private readonly fh: Float64Array
  private readonly fband: Int32Array
  /**
   * Stages still allowed here; and whether the next cut in this rectangle runs along the strip (1) or across it (0).
   */
  private readonly fcuts: Int32Array
  private readonly flong: Uint8Array
  private free = 0
  /** What is narrower or shorter than every item holds none: it is not remembered. */
  private leastWidth = Infinity
  private leastLength = Infinity

  constructor(
    readonly items: StripItems,
    cuts: number,
  ) {
    this.cuts = Math.min(cuts, 1e6)
    const n = items.n
    for (let i = 0; i < n; i++) {
      const [w, l] = [items.w[i], items.l[i]]
      this.leastWidth = Math.min(this.leastWidth, (items.turn[i] ? Math.min(w, l) : w) - PACK_TOLERANCE)
      this.leastLength = Math.min(this.leastLength, (items.turn[i] ? Math.min(w, l) : l) - PACK_TOLERANCE)
    }
    this.x = new Float64Array(n)
    this.y = new Float64Array(n)
    this.band = new Int32Array(n)
    this.turned = new Uint8Array(n)
    this.bandLength = new Float64Array(n)
    const most = 3 * n + 8
    this.fx = new Float64Array(most)
    this.fy = new Float64Array(most)
    this.fw = new Float64Array(most)
    this.fh = new Float64Array(most)
    this.fband = new Int32Array(most)
    this.fcuts = new Int32Array(most)
    this.flong = new Uint8Array(most)
  }

  run(
    order: Int32Array,
    way: Uint8Array,
    across: Uint8Array,
    glue: Uint8Array,
    byArea: boolean,
    most = Infinity,
  ): number {
    const { items, fw, fh } = this
    const { width, w: iw, l: il, turn } = items
    const n = order.length
    const limited = this.cuts < UNLIMITED
    this.free = 0
    this.bands = 0
    this.length = 0
    for (let o = 0; o < n;) {
      const i = order[o]
      const joins = o + 1 < n ? glue[order[o + 1]] : 0
      // Most items lie by themselves.
      const single = joins === 0 || (limited && (joins === 2 || this.cuts < 3))
      const asked = turn[i] ? way[i] : AS_COMES
      let end = o + 1
      let at = -1
      if (single) at = this.seat(iw[i], il[i], asked, byArea)
      else {
        end = this.block(order, o, way, across, glue, limited)
        at = this.seatBlock(limited, byArea)
      }
      if (at < 0) {
        if (single) this.block(order, o, way, across, glue, limited)
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
        else this.put(order, o, end, 0, 0, b, this.cuts - 1)
        this.bandLength[b] = h
        this.length += h
        if (this.length > most) return this.length
        this.add(w, 0, width - w, h, b, this.cuts - 1, 1)
        o = end
        continue
      }
      const x = this.fx[at]
      const y = this.fy[at]
      const W = fw[at]
      const H = fh[at]
      const b = this.fband[at]
      const cuts = this.fcuts[at]
      const long = this.flong[at]
      let w = this.bw
      let h = this.bh
      this.remove(at)
      if (single) {
        const lies = this.lies
        w = lies ? il[i] : iw[i]
        h = lies ? iw[i] : il[i]
        this.place(i, x, y, lies, b)
      } else this.put(order, o, end, x, y, b, cuts)
      const dw = W - w
      const dh = H - h
      // The cut that leaves the larger rectangle whole, unless turned round; a stack is cut off lengthwise first.
      let lengthwise = dw * H >= W * dh
      if (across[i]) lengthwise = !lengthwise
      if (limited && !single) lengthwise = true
      // Stages left beside and behind it: a cut the other way than the last one takes one.
      if (lengthwise) {
        this.add(x + w, y, dw, H, b, long ? cuts : cuts - 1, 1)
        this.add(x, y + h, w, dh, b, long ? cuts - 1 : cuts - 2, 0)
      } else {
        this.add(x + w, y, dw, h, b, long ? cuts - 2 : cuts - 1, 1)
        this.add(x, y + h, W, dh, b, long ? cuts - 1 : cuts, 0)
      }
      o = end
    }
    return this.length
  }

  /** How the item seated last lies there. */
  private lies = 0

  /** The free rectangle that one item wastes least, lying as asked; −1 where it fits none. Sets `lies`. */
  private seat(w: number, l: number, asked: number, byArea: boolean): number {
    const { fw, fh, free } = this
    const leastW = w - PACK_TOLERANCE
    const leastL = l - PACK_TOLERANCE
    const straight = asked !== TURNED
    const turned = asked !== AS_COMES
    let at = -1
    let turnedAt = -1
    let best = Infinity
    let turnedBest = Infinity
    for (let f = 0; f < free; f++) {
      const W = fw[f]
      const H = fh[f]
      if (straight && W >= leastW && H >= leastL) {
        const score = byArea ? W * H : Math.min(W - w, H - l)
        if (score < best) {
          best = score
          at = f
        }
      }
      if (turned && W >= leastL && H >= leastW) {
        const score = byArea ? W * H : Math.min(W - l, H - w)
        if (score < turnedBest) {
          turnedBest = score
          turnedAt = f
        }
      }
    }
    this.lies = turnedBest < best ? 1 : 0
    return this.lies ? turnedAt : at
  }

  /** The same for the block sized last. */
  private seatBlock(limited: boolean, byArea: boolean): number {
    const { fw, fh, free, bw, bh } = this
    let at = -1
    let best = Infinity
    for (let f = 0; f < free; f++) {
      const dw = fw[f] - bw
      const dh = fh[f] - bh
      if (dw < -PACK_TOLERANCE || dh < -PACK_TOLERANCE) continue
      if (limited && !(this.flong[f] && this.fcuts[f] >= 2)) continue
      const score = byArea ? fw[f] * fh[f] : Math.min(dw, dh)
      if (score < best) {
        best = score
        at = f
      }
    }
    return at
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
  private block(
    order: Int32Array,
    o: number,
    way: Uint8Array,
    across: Uint8Array,
    glue: Uint8Array,
    limited: boolean,
  ): number {
    const { w: iw, l: il, turn, width } = this.items
    let end = o
    for (; end < order.length && end < o + MOST_BLOCK; end++) {
      const i = order[end]
      let how = end === o ? 0 : glue[i]
      if (end > o && (how === 0 || (limited && (how === 2 || this.cuts < 3)))) break
      const asked = turn[i] ? way[i] : AS_COMES
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
  private put(order: Int32Array, o: number, end: number, x: number, y: number, band: number, cuts: number): void {
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
        if (pw < w) this.add(x + pw, y + h, w - pw, ph, band, inner, 1)
        else {
          this.add(x + w, y, pw - w, h, band, inner, 1)
          w = pw
        }
        h += ph
      } else {
        if (ph < h) this.add(x + w, y + ph, pw, h - ph, band, inner, 0)
        else {
          this.add(x, y + h, w, ph - h, band, inner, 0)
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
  private add(x: number, y: number, w: number, h: number, band: number, cuts: number, long: 0 | 1) {
    if (w < this.leastWidth || h < this.leastLength || cuts <= 0) return
    const f = this.free++
    this.fx[f] = x
    this.fy[f] = y
    this.fw[f] = w
    this.fh[f] = h
    this.fband[f] = band
    this.fcuts[f] = cuts
    this.flong[f] = long
  }
  private remove(f: number) {
    const last = --this.free
    if (f === last) return
    this.fx[f] = this.fx[last]
    this.fy[f] = this.fy[last]
    this.fw[f] = this.fw[last]
    this.fh[f] = this.fh[last]
    this.fband[f] = this.fband[last]
    this.fcuts[f] = this.fcuts[last]
    this.flong[f] = this.flong[last]
  }
}
