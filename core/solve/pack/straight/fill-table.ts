import { PACK_TOLERANCE } from '../model/types'
import { bitsFor, type Small } from './small-kinds'

/** A selection laid over the whole strip. */
export interface Over {
  length: number
  parts: { entry: number; x: number; y: number }[]
}

const MOST_ENTRIES = 400_000
/** Rectangles of one selection, none of which another beats in both width and length; more are left out. */
const MOST_FRONT = 512
export const MOST_CACHED = 3_000_000

interface FillTableAsk {
  small: readonly Small[]
  width: number
  /** The widest room there is to fill. */
  room: number
  length: number
  waste: number
  /** With three, columns of items one behind the other; else any straight cuts. */
  stages: number
  spent: () => boolean
}

/**
 * For every selection of small items the rectangles (width, length) that hold it by straight cuts and that no smaller
 * one holds; what wastes more than `waste` is left out. A room is filled with the selection of largest area that fits
 * it and is still to be laid, found by going through those that fit the room from the largest down.
 */
export class FillTable {
  /** All there is, as one number. */
  readonly all: number
  readonly guards: number
  /** False where time or room for the table ran out. */
  readonly whole: boolean
  private readonly one: number[] = []
  private readonly radix: number[] = []
  private readonly digits: Uint8Array
  readonly packed: Int32Array
  readonly area: Float64Array
  readonly start: Int32Array
  readonly W: number[] = []
  readonly L: number[] = []
  private readonly A: number[] = []
  private readonly B: number[] = []
  /** 0: an item as it comes, 1: turned, 2: two beside each other, 3: one behind the other. */
  private readonly D: number[] = []
  private readonly selection: number[] = []
  private readonly bySelection = new Map<number, number>()
  private readonly over = new Map<number, Over | null>()

  readonly small: readonly Small[]
  private readonly width: number
  private readonly room: number
  private readonly length: number
  private readonly waste: number

  constructor({ small, width, room, length, waste, stages, spent }: FillTableAsk) {
    this.small = small
    this.width = width
    this.room = room
    this.length = length
    this.waste = waste
    const { radix } = this
    let total = 1
    let at = 0
    this.all = 0
    this.guards = 0
    for (const s of small) {
      radix.push(total)
      total *= s.count + 1
      this.one.push(1 << at)
      const bits = bitsFor(s.count)
      this.all += s.count << at
      this.guards |= 1 << (at + bits - 1)
      at += bits
    }
    const K = small.length
    this.digits = new Uint8Array(total * K)
    this.packed = new Int32Array(total)
    this.area = new Float64Array(total)
    for (let c = 1; c < total; c++)
      small.forEach((s, d) => {
        const n = Math.floor(c / radix[d]) % (s.count + 1)
        this.digits[c * K + d] = n
        this.packed[c] = this.packed[c] + n * this.one[d]
        this.area[c] = this.area[c] + n * s.w * s.l
      })
    for (let c = 0; c < total; c++) this.bySelection.set(this.packed[c], c)
    this.start = new Int32Array(total + 1)
    this.whole = stages === 3 ? this.columns(total, spent) : this.anyCuts(total, spent)
  }

  /** The selections within selection c, ascending. */
  private within(c: number): number[] {
    const { radix } = this
    const subs = [0]
    for (let d = 0; d < radix.length; d++) {
      const n = this.digits[c * radix.length + d]
      const had = subs.length
      for (let x = 1; x <= n; x++) for (let j = 0; j < had; j++) subs.push(subs[j] + x * radix[d])
    }
    return subs
  }
  private only(c: number): number {
    const K = this.small.length
    let found = -1
    for (let d = 0; d < K; d++) {
      const n = this.digits[c * K + d]
      if (n > 1 || (n === 1 && found >= 0)) return -1
      if (n === 1) found = d
    }
    return found
  }
  private single(c: number): boolean {
    const d = this.only(c)
    if (d < 0) return false
    const s = this.small[d]
    this.offer(s.w, s.l, d, -1, 0)
    if (s.turn) this.offer(s.l, s.w, d, -1, 1)
    return true
  }
  private anyCuts(total: number, spent: () => boolean): boolean {
    const { W, L } = this
    for (let c = 1; c < total; c++) {
      if ((c & 31) === 0 && (spent() || W.length > MOST_ENTRIES)) return false
      this.have = this.area[c]
      if (!this.single(c))
        for (const a of this.within(c)) {
          const b = c - a
          if (a === 0 || a > b) continue
          for (let i = this.start[a], e = this.start[a + 1]; i < e; i++)
            for (let j = this.start[b], f = this.start[b + 1]; j < f; j++) {
              const [wi, li, wj, lj] = [W[i], L[i], W[j], L[j]]
              this.offer(wi + wj, li > lj ? li : lj, i, j, 2)
              this.offer(wi > wj ? wi : wj, li + lj, i, j, 3)
            }
        }
      this.close(c)
    }
    return true
  }
  /** Columns of items one behind the other first, then such columns beside each other. */
  private columns(total: number, spent: () => boolean): boolean {
    const { W, L, radix } = this
    const first = new Int32Array(total)
    const last = new Int32Array(total)
    for (let c = 1; c < total; c++) {
      if ((c & 31) === 0 && (spent() || W.length > MOST_ENTRIES)) return false
      this.have = this.area[c]
      if (!this.single(c))
        for (let d = 0; d < radix.length; d++) {
          // The last kind of the selection goes on behind: every stack is made in one order only.
          if (this.digits[c * radix.length + d] === 0) continue
          const a = radix[d]
          const b = c - a
          for (let i = first[a]; i < last[a]; i++)
            for (let j = first[b]; j < last[b]; j++) this.offer(Math.max(W[i], W[j]), L[i] + L[j], j, i, 3)
          break
        }
      first[c] = W.length
      this.put(c)
      last[c] = W.length
    }
    for (let c = 1; c < total; c++) {
      if ((c & 31) === 0 && (spent() || W.length > MOST_ENTRIES)) return false
      this.have = this.area[c]
      for (let i = first[c]; i < last[c]; i++) this.offer(W[i], L[i], i, -1, 4)
      for (const a of this.within(c)) {
        const b = c - a
        if (a === 0 || b === 0) continue
        for (let i = first[a]; i < last[a]; i++)
          for (let j = this.start[b], f = this.start[b + 1]; j < f; j++)
            this.offer(W[i] + W[j], Math.max(L[i], L[j]), i, j, 2)
      }
      this.close(c)
    }
    return true
  }

  private have = 0
  private front = 0
  private readonly cand = {
    w: new Float64Array(MOST_FRONT),
    l: new Float64Array(MOST_FRONT),
    a: new Int32Array(MOST_FRONT),
    b: new Int32Array(MOST_FRONT),
    d: new Uint8Array(MOST_FRONT),
  }
  private offer(w: number, l: number, a: number, b: number, d: number): void {
    if (w > this.room + PACK_TOLERANCE || l > this.length + PACK_TOLERANCE || w * l - this.have > this.waste) return
    const { cand } = this
    for (let i = 0; i < this.front; i++) if (cand.w[i] <= w + PACK_TOLERANCE && cand.l[i] <= l + PACK_TOLERANCE) return
    let kept = 0
    for (let i = 0; i < this.front; i++)
      if (w > cand.w[i] || l > cand.l[i]) {
        if (kept < i) {
          cand.w[kept] = cand.w[i]
          cand.l[kept] = cand.l[i]
          cand.a[kept] = cand.a[i]
          cand.b[kept] = cand.b[i]
          cand.d[kept] = cand.d[i]
        }
        kept++
      }
    this.front = kept
    if (kept === MOST_FRONT) return
    cand.w[kept] = w
    cand.l[kept] = l
    cand.a[kept] = a
    cand.b[kept] = b
    cand.d[kept] = d
    this.front++
  }
  private put(c: number): void {
    for (let i = 0; i < this.front; i++) {
      this.W.push(this.cand.w[i])
      this.L.push(this.cand.l[i])
      this.A.push(this.cand.a[i])
      this.B.push(this.cand.b[i])
      this.D.push(this.cand.d[i])
      this.selection.push(c)
    }
    this.front = 0
  }
  private close(c: number): void {
    this.start[c] = this.W.length
    this.put(c)
    this.start[c + 1] = this.W.length
  }

  /**
   * The shortest block over the strip that holds just this selection: one entry, or two beside each other; null where
   * the table has none.
   */
  shortest(rest: number): Over | null {
    const known = this.over.get(rest)
    if (known !== undefined) return known
    const c = this.bySelection.get(rest) as number
    let best: Over | null = null
    const flat = this.flattest(c)
    if (flat >= 0) best = { length: this.L[flat], parts: [{ entry: flat, x: 0, y: 0 }] }
    for (const a of this.within(c)) {
      const b = c - a
      if (a === 0 || a > b) continue
      for (let i = this.start[a], e = this.start[a + 1]; i < e; i++)
        for (let j = this.start[b], f = this.start[b + 1]; j < f; j++) {
          const length = Math.max(this.L[i], this.L[j])
          if (this.W[i] + this.W[j] <= this.width + PACK_TOLERANCE && (!best || length < best.length - PACK_TOLERANCE))
            best = {
              length,
              parts: [
                { entry: i, x: 0, y: 0 },
                { entry: j, x: this.W[i], y: 0 },
              ],
            }
        }
    }
    this.over.set(rest, best)
    return best
  }
  private flattest(c: number): number {
    let best = -1
    for (let e = this.start[c], f = this.start[c + 1]; e < f; e++) if (best < 0 || this.L[e] < this.L[best]) best = e
    return best
  }
  /** Of every selection the sum of a figure of its kinds. */
  sums(figure: (kind: number) => number): Float64Array {
    const K = this.small.length
    return Float64Array.from(this.area, (_, c) =>
      this.small.reduce((sum, s, d) => sum + this.digits[c * K + d] * figure(s.kind), 0),
    )
  }
  selectionOf(entry: number): number {
    return this.selection[entry]
  }
  indexOf(rest: number): number {
    return this.bySelection.get(rest) as number
  }
  holds(entry: number): number {
    return this.packed[this.selection[entry]]
  }
  areaOf(rest: number): number {
    return this.area[this.bySelection.get(rest) as number]
  }
  /** The items of an entry with their places from its own corner. */
  lay(entry: number, x: number, y: number, visit: (kind: number, x: number, y: number, turned: boolean) => void): void {
    const d = this.D[entry]
    const a = this.A[entry]
    if (d < 2) visit(this.small[a].kind, x, y, d === 1)
    else {
      this.lay(a, x, y, visit)
      const b = this.B[entry]
      if (d === 2) this.lay(b, x + this.W[a], y, visit)
      else if (d === 3) this.lay(b, x, y + this.L[a], visit)
    }
  }
}
