import { bandsLength, type Band } from '../model/band'
import { Decoder, EITHER } from '../straight/decode'
import type { Kind } from '../model/kinds'
import { itemsOf } from '../model/strip-items'
import { type StripJob } from '../model/strip-job'
import { PACK_TOLERANCE } from '../model/types'

/** What is left over narrower or shorter than this share of the strip's width is of no use. */
const LEAST_SHARE = 0.1
const MOST_ITEMS = 24
const STAY = 1e-9

/**
 * Among plans as long as this one: the one with the largest useful left-overs, then with the fewest cuts. One or two
 * bands at a time are laid anew in chance orders; what is no longer and leaves larger pieces is kept.
 */
export function tidied(job: StripJob, bands: readonly Band[], rounds: number): Band[] {
  const { kinds, width, random } = job
  const least = width * LEAST_SHARE
  const scored = bands.map((band) => ({ band, score: scoreOf(band, kinds, width, least) }))
  for (let round = 0; round < rounds && !job.spent(); round++) {
    const i = Math.floor(random() * scored.length)
    const j = random() < 0.5 ? Math.floor(random() * scored.length) : i
    const picked = [...new Set([i, j])].map((k) => scored[k])
    const members = picked.flatMap((p) => p.band.kinds)
    if (members.length < 2 || members.length > MOST_ITEMS) continue
    const held = new Map<number, number>()
    for (const k of members) held.set(k, (held.get(k) ?? 0) + 1)
    const from = [...held.keys()]
    const some = from.map((k) => ({ ...kinds[k], items: kinds[k].items.slice(0, held.get(k)) }))
    const items = itemsOf(some, width)
    const decoder = new Decoder(items, job.cuts)
    const cap = bandsLength(picked.map((p) => p.band)) + STAY
    const was = sum(picked.map((p) => p.score))
    for (let t = 0; t < 12; t++) {
      const order = Int32Array.from({ length: items.n }, (_, k) => k)
      const key = Float64Array.from(
        order,
        (k) => items.w[k] * items.l[k] * (0.3 + random()) + (t % 3 === 0 ? 1e9 * items.l[k] : 0),
      )
      order.sort((a, b) => key[b] - key[a])
      const across = Uint8Array.from(order, () => (random() < 0.35 ? 1 : 0))
      const lying = new Uint8Array(items.n).fill(EITHER)
      const length = decoder.run({ order, lying, across, glue: new Uint8Array(items.n) }, t % 2 === 0)
      if (length > cap || decoder.bands > picked.length) continue
      const next = read(decoder, from)
      const scores = next.map((b) => scoreOf(b, kinds, width, least))
      if (!better(sum(scores), was)) continue
      ;[...new Set([i, j])].sort((a, b) => b - a).forEach((k) => scored.splice(k, 1))
      next.forEach((band, k) => scored.push({ band, score: scores[k] }))
      break
    }
  }
  return scored.map((s) => s.band)
}

interface Score {
  /** Σ area² of what is left over and large enough: one large left-over beats two halves of it. */
  rests: number
  cuts: number
}
const sum = (list: readonly Score[]): Score =>
  list.reduce((a, b) => ({ rests: a.rests + b.rests, cuts: a.cuts + b.cuts }), { rests: 0, cuts: 0 })
const better = (a: Score, b: Score): boolean =>
  a.rests > b.rests * (1 + STAY) + STAY || (a.rests >= b.rests * (1 - STAY) - STAY && a.cuts < b.cuts)

function read(decoder: Decoder, from: readonly number[]): Band[] {
  const out: Band[] = Array.from({ length: decoder.bands }, (_, b) => ({
    length: decoder.bandLength[b],
    kinds: [],
    x: [],
    y: [],
    turned: [],
  }))
  for (let i = 0; i < decoder.items.n; i++) {
    const band = out[decoder.band[i]]
    band.kinds.push(from[decoder.items.kind[i]])
    band.x.push(decoder.x[i])
    band.y.push(decoder.y[i])
    band.turned.push(decoder.turned[i] === 1)
  }
  return out
}

/** What straight cuts leave of a band: taken apart along the cuts that free its items. */
export function scoreOf(band: Band, kinds: readonly Kind[], width: number, least: number): Score {
  const score: Score = { rests: 0, cuts: 0 }
  const all = band.kinds.map((k, i) => {
    const kind = kinds[k]
    return {
      x: band.x[i],
      y: band.y[i],
      w: band.turned[i] ? kind.l : kind.w,
      l: band.turned[i] ? kind.w : kind.l,
    }
  })
  const rest = (w: number, l: number) => {
    if (w >= least && l >= least) score.rests += (w * l) ** 2 / 1e6
  }
  const part = ({
    here,
    x,
    y,
    w,
    l,
    lengthwise,
    again,
  }: {
    here: typeof all
    x: number
    y: number
    w: number
    l: number
    lengthwise: boolean
    again: boolean
  }) => {
    if (here.length === 0) return rest(w, l)
    const at = (r: (typeof all)[number]) => (lengthwise ? r.x : r.y)
    const size = (r: (typeof all)[number]) => (lengthwise ? r.w : r.l)
    const sorted = [...here].sort((a, b) => at(a) - at(b))
    const groups: { from: number; to: number; members: typeof all }[] = []
    for (const r of sorted) {
      const last = groups[groups.length - 1]
      if (last && at(r) < last.to - PACK_TOLERANCE) {
        last.members.push(r)
        last.to = Math.max(last.to, at(r) + size(r))
      } else groups.push({ from: at(r), to: at(r) + size(r), members: [r] })
    }
    let pos = lengthwise ? x : y
    const end = lengthwise ? x + w : y + l
    if (
      groups.length === 1 &&
      (groups[0]?.from ?? 0) - pos < PACK_TOLERANCE &&
      end - (groups[0]?.to ?? 0) < PACK_TOLERANCE
    ) {
      // Nothing to cut this way: a single item that fills its part is free, else the other way is tried once.
      if (here.length > 1 || !again) if (!again) part({ here, x, y, w, l, lengthwise: !lengthwise, again: true })
      return
    }
    const strip = (from: number, to: number, members: typeof all) => {
      if (to - from < PACK_TOLERANCE) return
      if (to < end - PACK_TOLERANCE) score.cuts++
      if (lengthwise) part({ here: members, x: from, y, w: to - from, l, lengthwise: false, again: false })
      else part({ here: members, x, y: from, w, l: to - from, lengthwise: true, again: false })
    }
    for (const g of groups) {
      strip(pos, g.from, [])
      strip(g.from, g.to, g.members)
      pos = g.to
    }
    strip(pos, end, [])
  }
  part({ here: all, x: 0, y: 0, w: width, l: band.length, lengthwise: true, again: false })
  return score
}
