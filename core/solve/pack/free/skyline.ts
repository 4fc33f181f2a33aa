import { type Band, splitIntoBands } from '../model/band'
import { AS_COMES, EITHER, TURNED } from '../straight/decode'
import type { StripItems } from '../model/strip-items'
import type { StripJob } from '../model/strip-job'
import { PACK_TOLERANCE } from '../model/types'

/** Items laid between two looks at the clock. */
const ASK_EVERY = 256

/** Lays items one by one on the outline of what lies already. */
export class Skyline {
  readonly x: Float64Array
  readonly y: Float64Array
  readonly turned: Uint8Array
  length = 0
  private sx: Float64Array
  private sy: Float64Array
  private sw: Float64Array
  private count = 0
  constructor(readonly items: StripItems) {
    this.x = new Float64Array(items.n)
    this.y = new Float64Array(items.n)
    this.turned = new Uint8Array(items.n)
    this.sx = new Float64Array(items.n + 4)
    this.sy = new Float64Array(items.n + 4)
    this.sw = new Float64Array(items.n + 4)
  }
  /**
   * Each item at its lowest place, with the least area lost under it. `stop` is asked now and then; once it says so the
   * run ends without a plan, Infinity long.
   */
  run(order: Int32Array, lying: Uint8Array, stop?: () => boolean): number {
    const { items, sx, sy, sw } = this
    const { width } = items
    this.count = 1
    sx[0] = 0
    sy[0] = 0
    sw[0] = width
    this.length = 0
    for (let o = 0; o < items.n; o++) {
      if (o % ASK_EVERY === ASK_EVERY - 1 && stop?.()) return Infinity
      const i = order[o]
      const asked = items.turn[i] ? lying[i] : AS_COMES
      let best = Infinity
      let at = -1
      let atY = 0
      let lies = 0
      for (let t = 0; t < 2; t++) {
        if (asked !== EITHER && t !== asked) continue
        const w = t ? items.l[i] : items.w[i]
        const h = t ? items.w[i] : items.l[i]
        for (let s = 0; s < this.count; s++) {
          if (sx[s] + w > width + PACK_TOLERANCE) break
          let y = 0
          let left = w
          let e = s
          let under = 0
          for (; left > PACK_TOLERANCE && e < this.count; e++) {
            const sey = sy[e]
            const take = Math.min(left, sw[e])
            if (sey > y) {
              under += (w - left) * (sey - y)
              y = sey
            }
            under += take * (y - sey)
            left -= sw[e]
          }
          const score = y + h + under / width + (y + h) * 1e-7 * s
          if (score < best - 1e-9) {
            best = score
            at = s
            atY = y
            lies = t
          }
        }
      }
      if (at < 0) {
        // It fits one way only.
        lying[i] = asked === TURNED ? AS_COMES : TURNED
        o--
        continue
      }
      const w = lies ? items.l[i] : items.w[i]
      const h = lies ? items.w[i] : items.l[i]
      const x = sx[at]
      this.x[i] = x
      this.y[i] = atY
      this.turned[i] = lies
      this.lift(at, x, w, atY + h)
      if (atY + h > this.length) this.length = atY + h
    }
    return this.length
  }
  private lift(at: number, x: number, w: number, top: number): void {
    const { sx, sy, sw } = this
    let end = at
    let left = w
    while (end < this.count && left > PACK_TOLERANCE) {
      left -= sw[end]
      end++
    }
    // Segments at..end−1 are covered; the last of them may stick out by −left.
    const out = left < -PACK_TOLERANCE ? -left : 0
    const outY = sy[end - 1]
    const outX = sx[end - 1] + sw[end - 1] - out
    const grow = 1 + (out > 0 ? 1 : 0) - (end - at)
    if (grow !== 0) {
      sx.copyWithin(end + grow, end, this.count)
      sy.copyWithin(end + grow, end, this.count)
      sw.copyWithin(end + grow, end, this.count)
      this.count += grow
    }
    sx[at] = x
    sy[at] = top
    sw[at] = w
    if (out > 0) {
      sx[at + 1] = outX
      sy[at + 1] = outY
      sw[at + 1] = out
    }
    if (at > 0 && Math.abs(sy[at - 1] - top) < PACK_TOLERANCE) {
      sw[at - 1] = sw[at - 1] + w
      this.drop(at)
      at--
    }
    if (at + 1 < this.count && Math.abs(sy[at + 1] - sy[at]) < PACK_TOLERANCE) {
      sw[at] = sw[at] + sw[at + 1]
      this.drop(at + 1)
    }
  }
  private drop(at: number): void {
    this.sx.copyWithin(at, at + 1, this.count)
    this.sy.copyWithin(at, at + 1, this.count)
    this.sw.copyWithin(at, at + 1, this.count)
    this.count--
  }
  /** The plan as bands. */
  bands(kinds: StripJob['kinds']): Band[] {
    const { kind } = this.items
    return splitIntoBands(
      {
        length: this.length,
        kinds: [...kind],
        x: [...this.x],
        y: [...this.y],
        turned: [...this.turned].map((t) => t === 1),
      },
      kinds,
    )
  }
}
