import type { Band } from '../model/band'
import type { Kind } from '../model/kinds'
import { PACK_TOLERANCE as EPS } from '../model/types'

/**
 * All ways of cutting a few items from bands, exactly: for every subset the rectangles (width, length) that hold it and
 * that no smaller one holds, built by putting two such rectangles side by side or one behind the other.
 * What wastes more area than the best plan known, or is longer, is left out; so the least length is exact below `cap`.
 */
export interface SubsetPlan {
  /** Least total length found below the cap, and its bands; null where there is none. */
  best: Band[] | null
  /** Every band worth keeping: one a subset, with what it holds. */
  each: (visit: (kinds: number[], length: number, make: () => Band) => void) => void
  /** False where time ran out before all subsets were done. */
  whole: boolean
}

const MOST_ENTRIES = 600_000
const MOST_FRONT = 1024

export function subsets({
  kinds,
  members,
  width,
  cap,
  cuts,
  spent,
}: {
  kinds: readonly Kind[]
  members: readonly number[]
  width: number
  cap: number
  cuts: number
  spent: () => boolean
}): SubsetPlan {
  const n = members.length
  const size = 1 << n
  const levels = cuts > 2 * n ? 1 : cuts - 1
  const free = cuts > 2 * n
  const area = new Float64Array(size)
  const alias = new Int32Array(size)
  for (let mask = 1; mask < size; mask++) {
    const low = 31 - Math.clz32(mask & -mask)
    const k = kinds[members[low]]
    area[mask] = area[mask & (mask - 1)] + k.w * k.l
    let canonical = mask
    for (let i = 1; i < n; i++)
      if (members[i] === members[i - 1] && (canonical & (3 << (i - 1))) >> (i - 1) === 2) {
        canonical = (canonical & ~(1 << i)) | (1 << (i - 1))
        i = 0
      }
    alias[mask] = canonical
  }
  const waste = width * cap - area[size - 1]
  const W: number[] = []
  const H: number[] = []
  const A: number[] = []
  const B: number[] = []
  const D: number[] = []
  const start = new Int32Array((levels + 1) * size)
  const count = new Int32Array((levels + 1) * size)
  let whole = true
  // Candidates of one subset, none of which another beats in both width and length.
  const candW = new Float64Array(MOST_FRONT)
  const candH = new Float64Array(MOST_FRONT)
  const candA = new Int32Array(MOST_FRONT)
  const candB = new Int32Array(MOST_FRONT)
  const candD = new Uint8Array(MOST_FRONT)
  let front = 0
  const candidate = (w: number, h: number, a: number, b: number, d: number) => {
    for (let i = 0; i < front; i++) if (candW[i] <= w + EPS && candH[i] <= h + EPS) return
    for (let i = front - 1; i >= 0; i--)
      if (w <= candW[i] && h <= candH[i]) {
        front--
        candW[i] = candW[front]
        candH[i] = candH[front]
        candA[i] = candA[front]
        candB[i] = candB[front]
        candD[i] = candD[front]
      }
    if (front === MOST_FRONT) {
      whole = false
      return
    }
    candW[front] = w
    candH[front] = h
    candA[front] = a
    candB[front] = b
    candD[front] = d
    front++
  }
  const keep = (list: number) => {
    const order = Array.from({ length: front }, (_, i) => i).sort((i, j) => candW[i] - candW[j])
    start[list] = W.length
    for (const i of order) {
      W.push(candW[i])
      H.push(candH[i])
      A.push(candA[i])
      B.push(candB[i])
      D.push(candD[i])
    }
    count[list] = front
    front = 0
  }
  const combine = (left: number, right: number, along: boolean, across: boolean, have: number) => {
    const [s1, e1] = [start[left], start[left] + count[left]]
    const [s2, e2] = [start[right], start[right] + count[right]]
    for (let a = s1; a < e1; a++) {
      const wa = W[a]
      const ha = H[a]
      for (let b = s2; b < e2; b++) {
        const wb = W[b]
        const hb = H[b]
        if (along) {
          const w = wa + wb
          const h = ha > hb ? ha : hb
          if (w <= width + EPS && w * h - have <= waste + EPS) candidate(w, h, a, b, 1)
        }
        if (across) {
          const w = wa > wb ? wa : wb
          const h = ha + hb
          if (h <= cap + EPS && w * h - have <= waste + EPS) candidate(w, h, a, b, 2)
        }
      }
    }
  }
  for (let mask = 1; mask < size && whole; mask++) {
    if (alias[mask] !== mask) continue
    if ((mask & 15) === 0 && (spent() || W.length > MOST_ENTRIES)) {
      whole = false
      break
    }
    const have = area[mask]
    const low = mask & -mask
    if (mask === low) {
      const k = kinds[members[31 - Math.clz32(low)]]
      if (k.w <= width + EPS) candidate(k.w, k.l, -1, 0, 0)
      if (k.turn && k.l <= width + EPS) candidate(k.l, k.w, -1, 1, 0)
    }
    if (free) {
      for (let sub = (mask - 1) & mask; sub > 0; sub = (sub - 1) & mask) {
        if (!(sub & low)) continue
        combine(alias[sub], alias[mask ^ sub], true, true, have)
      }
      keep(mask)
      // Single items keep which they are by their place in A: negative.
      continue
    }
    keep(mask)
    for (let level = 1; level <= levels; level++) {
      const lower = (level - 1) * size
      const at = level * size
      for (let e = start[lower + mask], end = e + count[lower + mask]; e < end; e++) candidate(W[e], H[e], e, -1, 3)
      const along = (levels - level) % 2 === 0
      for (let sub = (mask - 1) & mask; sub > 0; sub = (sub - 1) & mask)
        if (sub & low) combine(at + alias[mask ^ sub], lower + alias[sub], along, !along, have)
      keep(at + mask)
    }
  }
  const top = free ? 0 : levels * size
  // One band for each subset, or several behind one another.
  const single = new Float64Array(size).fill(Infinity)
  const total = new Float64Array(size).fill(Infinity)
  const firstBand = new Int32Array(size)
  total[0] = 0
  for (let mask = 1; mask < size && whole; mask++) {
    const list = top + alias[mask]
    const last = start[list] + count[list] - 1
    if (count[list] > 0) single[mask] = H[last]
    const low = mask & -mask
    for (let sub = mask; sub > 0; sub = (sub - 1) & mask) {
      if (!(sub & low)) continue
      const sum = single[sub] + total[mask ^ sub]
      if (sum < total[mask] - EPS) {
        total[mask] = sum
        firstBand[mask] = sub
      }
    }
  }
  const kindOfSingle = new Map<number, number>()
  for (let i = 0; i < n; i++) {
    const list = alias[1 << i]
    for (let e = start[list], end = e + count[list]; e < end; e++) kindOfSingle.set(e, members[i])
  }
  const lay = (e: number, x: number, y: number, into: Band) => {
    const d = D[e]
    const a = A[e]
    const b = B[e]
    if (d === 3) lay(a, x, y, into)
    else if (d === 0) {
      into.kinds.push(kindOfSingle.get(e) as number)
      into.x.push(x)
      into.y.push(y)
      into.turned.push(b === 1)
    } else {
      lay(a, x, y, into)
      lay(b, d === 1 ? x + W[a] : x, d === 2 ? y + H[a] : y, into)
    }
  }
  const bandOf = (mask: number): Band => {
    const list = top + alias[mask]
    const into: Band = { length: single[mask], kinds: [], x: [], y: [], turned: [] }
    lay(start[list] + count[list] - 1, 0, 0, into)
    return into
  }
  let best: Band[] | null = null
  if (whole && total[size - 1] < cap - EPS) {
    best = []
    for (let mask = size - 1; mask > 0; mask ^= firstBand[mask]) best.push(bandOf(firstBand[mask]))
  }
  return {
    best,
    whole,
    each: (visit) => {
      if (!whole) return
      for (let mask = 1; mask < size; mask++)
        if (alias[mask] === mask && firstBand[mask] === mask)
          visit(membersOf(members, mask), single[mask], () => bandOf(mask))
    },
  }
}

function membersOf(members: readonly number[], mask: number): number[] {
  const out: number[] = []
  for (let i = 0; i < members.length; i++) if (mask & (1 << i)) out.push(members[i])
  return out
}
