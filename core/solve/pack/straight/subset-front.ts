import { PACK_TOLERANCE } from '../model/types'

const MOST_FRONT = 1024

/** Candidates of one subset, none of which another beats in both width and length. */
export class SubsetFront {
  readonly w = new Float64Array(MOST_FRONT)
  readonly h = new Float64Array(MOST_FRONT)
  readonly a = new Int32Array(MOST_FRONT)
  readonly b = new Int32Array(MOST_FRONT)
  readonly d = new Uint8Array(MOST_FRONT)
  size = 0
  overflown = false

  add(w: number, h: number, a: number, b: number, d: number): void {
    for (let i = 0; i < this.size; i++) if (this.w[i] <= w + PACK_TOLERANCE && this.h[i] <= h + PACK_TOLERANCE) return
    for (let i = this.size - 1; i >= 0; i--) if (w <= this.w[i] && h <= this.h[i]) this.takeOut(i)
    if (this.size === MOST_FRONT) {
      this.overflown = true
      return
    }
    const at = this.size++
    this.w[at] = w
    this.h[at] = h
    this.a[at] = a
    this.b[at] = b
    this.d[at] = d
  }

  private takeOut(i: number): void {
    const last = --this.size
    this.w[i] = this.w[last]
    this.h[i] = this.h[last]
    this.a[i] = this.a[last]
    this.b[i] = this.b[last]
    this.d[i] = this.d[last]
  }
}
