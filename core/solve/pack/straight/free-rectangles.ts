import type { StripItems } from '../model/strip-items'
import { PACK_TOLERANCE } from '../model/types'

/** How an item may be asked to lie: as it comes, turned, or whichever wastes less. */
export const [AS_COMES, TURNED, EITHER] = [0, 1, 2]

/** A rectangle of a band: the stages of cuts allowed in it, and whether the next runs along the strip or across it. */
interface FreeRectangle {
  x: number
  y: number
  w: number
  h: number
  band: number
  cuts: number
  long: 0 | 1
}

/** What is still free of the bands of a plan, and where in it an item goes. Arrays are made once and used again. */
export class FreeRectangles {
  count = 0
  readonly x: Float64Array
  readonly y: Float64Array
  readonly w: Float64Array
  readonly h: Float64Array
  readonly band: Int32Array
  /** Stages still allowed here; and whether the next cut in this one runs along the strip (1) or across it (0). */
  readonly cuts: Int32Array
  readonly long: Uint8Array
  /** What is narrower or shorter than every item holds none: it is not remembered. */
  private leastWidth = Infinity
  private leastLength = Infinity

  constructor({ w, l, turn, n }: StripItems) {
    for (let i = 0; i < n; i++) {
      const short = Math.min(w[i], l[i])
      this.leastWidth = Math.min(this.leastWidth, (turn[i] ? short : w[i]) - PACK_TOLERANCE)
      this.leastLength = Math.min(this.leastLength, (turn[i] ? short : l[i]) - PACK_TOLERANCE)
    }
    const most = 3 * n + 8
    this.x = new Float64Array(most)
    this.y = new Float64Array(most)
    this.w = new Float64Array(most)
    this.h = new Float64Array(most)
    this.band = new Int32Array(most)
    this.cuts = new Int32Array(most)
    this.long = new Uint8Array(most)
  }

  /** How the item seated last lies there. */
  lies = 0

  /** The free rectangle that one item wastes least, lying as asked; −1 where it fits none. Sets `lies`. */
  seat(w: number, l: number, asked: number, byArea: boolean): number {
    const { w: fw, h: fh, count } = this
    const leastW = w - PACK_TOLERANCE
    const leastL = l - PACK_TOLERANCE
    const straight = asked !== TURNED
    const turned = asked !== AS_COMES
    let at = -1
    let turnedAt = -1
    let best = Infinity
    let turnedBest = Infinity
    for (let f = 0; f < count; f++) {
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

  /** The same for a block of items, `bw` by `bh`. */
  seatBlock(bw: number, bh: number, limited: boolean, byArea: boolean): number {
    const { w: fw, h: fh, count } = this
    let at = -1
    let best = Infinity
    for (let f = 0; f < count; f++) {
      const dw = fw[f] - bw
      const dh = fh[f] - bh
      if (dw < -PACK_TOLERANCE || dh < -PACK_TOLERANCE) continue
      if (limited && !(this.long[f] && this.cuts[f] >= 2)) continue
      const score = byArea ? fw[f] * fh[f] : Math.min(dw, dh)
      if (score < best) {
        best = score
        at = f
      }
    }
    return at
  }

  add({ x, y, w, h, band, cuts, long }: FreeRectangle): void {
    if (w < this.leastWidth || h < this.leastLength || cuts <= 0) return
    const f = this.count++
    this.x[f] = x
    this.y[f] = y
    this.w[f] = w
    this.h[f] = h
    this.band[f] = band
    this.cuts[f] = cuts
    this.long[f] = long
  }
  remove(f: number) {
    const last = --this.count
    if (f === last) return
    this.x[f] = this.x[last]
    this.y[f] = this.y[last]
    this.w[f] = this.w[last]
    this.h[f] = this.h[last]
    this.band[f] = this.band[last]
    this.cuts[f] = this.cuts[last]
    this.long[f] = this.long[last]
  }
}
