import type { Band } from '../model/band'
import type { StripItems } from '../model/strip-items'
import type { StripJob } from '../model/strip-job'
import { PACK_TOLERANCE } from '../model/types'
import { type Decoder, EITHER } from './decode'

/** Items in a batch of a large strip, and rounds spent on it. */
export const BATCH = { least: 16, spread: 16, rounds: 1500, roundsOfMany: 2500, many: 250 }

export function readBands(decoder: Decoder): Band[] {
  const bands: Band[] = Array.from({ length: decoder.bands }, (_, b) => ({
    length: decoder.bandLength[b],
    kinds: [],
    x: [],
    y: [],
    turned: [],
  }))
  for (let i = 0; i < decoder.items.n; i++) {
    const band = bands[decoder.band[i]]
    band.kinds.push(decoder.items.kind[i])
    band.x.push(decoder.x[i])
    band.y.push(decoder.y[i])
    band.turned.push(decoder.turned[i] === 1)
  }
  return bands
}

/** How many of each of so many kinds these bands hold. */
export function heldBy(bands: readonly Band[], kinds: number): Int32Array {
  const held = new Int32Array(kinds)
  for (const b of bands) for (const k of b.kinds) held[k] = held[k] + 1
  return held
}

/** Plans of all items in a few good orders, each a first one to begin with. */
export function startLarge(job: StripJob, items: StripItems, decoder: Decoder, take: (bands: Band[]) => void): void {
  const { w, l, turn, n } = items
  const keys = [
    (i: number) => l[i],
    (i: number) => (turn[i] ? Math.max(w[i], l[i]) : l[i]),
    (i: number) => w[i] * l[i],
    (i: number) => w[i],
  ]
  let least = Infinity
  for (const key of keys)
    for (const lie of n > BATCH.many ? [EITHER] : [0, 1, EITHER]) {
      const order = Int32Array.from({ length: n }, (_, i) => i).sort((a, b) => key(b) - key(a))
      const lying = new Uint8Array(n).fill(lie)
      const length = decoder.run({ order, lying, across: new Uint8Array(n), glue: new Uint8Array(n) }, true)
      if (length < least - PACK_TOLERANCE) {
        least = length
        take(readBands(decoder))
      }
      if (job.spent()) return
    }
}
