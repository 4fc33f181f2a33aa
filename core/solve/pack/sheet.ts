import type { Random } from '../../kit/random'
import type { Band } from './band'
import { EITHER, type StripItems } from './decode'
import { PACK_TOLERANCE as EPS } from './types'

const STRIDE = 8

/**
 * Fills one sheet of a set length in a given order by straight cuts, each item into the free rectangle that it wastes
 * least of, what is left split by one cut. What finds no room is left out; the answer is its area.
 * Unlike bands, the first cut may run lengthwise through everything.
 */
class SheetDecoder {
  readonly x: Float64Array
  readonly y: Float64Array
  readonly turned: Uint8Array
  length = 0
  private readonly fx: Float64Array
  private readonly fy: Float64Array
  private readonly fw: Float64Array
  private readonly fh: Float64Array
  /** The state before every `STRIDE`-th item, twice over: that of the order kept, and that of the one being tried. */
  private readonly saved: [Float64Array, Float64Array][]
  private readonly which: Uint8Array
  private begun = 0
  constructor(readonly items: StripItems) {
    const { n } = items
    this.x = new Float64Array(n)
    this.y = new Float64Array(n)
    this.turned = new Uint8Array(n)
    const most = n + 8
    this.fx = new Float64Array(most)
    this.fy = new Float64Array(most)
    this.fw = new Float64Array(most)
    this.fh = new Float64Array(most)
    const stops = Math.ceil(n / STRIDE) + 1
    this.which = new Uint8Array(stops)
    this.saved = Array.from({ length: stops }, () => [new Float64Array(4 * most + 3), new Float64Array(4 * most + 3)])
  }
  /** The order tried last is kept from now on. */
  keep(): void {
    for (let b = this.begun + 1; b < this.which.length; b++) this.which[b] = 1 - (this.which[b] as number)
  }
  private save(into: Float64Array, free: number, out: number): void {
    into[0] = free
    into[1] = out
    into[2] = this.length
    into.set(this.fx.subarray(0, free), 3)
    into.set(this.fy.subarray(0, free), 3 + free)
    into.set(this.fw.subarray(0, free), 3 + 2 * free)
    into.set(this.fh.subarray(0, free), 3 + 3 * free)
  }
  /** `from`: the first place in the order that changed since the one kept. `limit`: stop when more area is left out. */
  run(
    order: Int32Array,
    way: Uint8Array,
    across: Uint8Array,
    length: number,
    byArea: boolean,
    from: number,
    limit: number,
  ): number {
    const { items, fx, fy, fw, fh } = this
    const { w: iw, l: il, turn, n, width } = items
    let free = 1
    let out = 0
    this.begun = Math.floor(from / STRIDE)
    if (this.begun === 0) {
      fx[0] = 0
      fy[0] = 0
      fw[0] = width
      fh[0] = length
      this.length = 0
    } else {
      const was = (this.saved[this.begun] as [Float64Array, Float64Array])[this.which[this.begun] as 0 | 1]
      free = was[0] as number
      out = was[1] as number
      this.length = was[2] as number
      fx.set(was.subarray(3, 3 + free))
      fy.set(was.subarray(3 + free, 3 + 2 * free))
      fw.set(was.subarray(3 + 2 * free, 3 + 3 * free))
      fh.set(was.subarray(3 + 3 * free, 3 + 4 * free))
    }
    for (let o = this.begun * STRIDE; o < n; o++) {
      const stop = o / STRIDE
      if (stop > this.begun && Number.isInteger(stop))
        this.save(
          (this.saved[stop] as [Float64Array, Float64Array])[(1 - (this.which[stop] as number)) as 0 | 1],
          free,
          out,
        )
      const i = order[o] as number
      const asked = turn[i] ? (way[i] as number) : 0
      let best = Infinity
      let at = -1
      let lies = 0
      for (let t = 0; t < 2; t++) {
        if (asked !== EITHER && t !== asked) continue
        const w = (t ? il[i] : iw[i]) as number
        const h = (t ? iw[i] : il[i]) as number
        for (let f = 0; f < free; f++) {
          const dw = (fw[f] as number) - w
          const dh = (fh[f] as number) - h
          if (dw < -EPS || dh < -EPS) continue
          const score = byArea ? (fw[f] as number) * (fh[f] as number) : dw < dh ? dw : dh
          if (score < best) {
            best = score
            at = f
            lies = t
          }
        }
      }
      if (at < 0) {
        out += (iw[i] as number) * (il[i] as number)
        if (out > limit) return Infinity
        continue
      }
      const w = (lies ? il[i] : iw[i]) as number
      const h = (lies ? iw[i] : il[i]) as number
      const [X, Y, W, H] = [fx[at] as number, fy[at] as number, fw[at] as number, fh[at] as number]
      this.x[i] = X
      this.y[i] = Y
      this.turned[i] = lies
      if (Y + h > this.length) this.length = Y + h
      free--
      fx[at] = fx[free] as number
      fy[at] = fy[free] as number
      fw[at] = fw[free] as number
      fh[at] = fh[free] as number
      const [dw, dh] = [W - w, H - h]
      let lengthwise = dw * H >= W * dh
      if (across[i]) lengthwise = !lengthwise
      if (dw > EPS) {
        fx[free] = X + w
        fy[free] = Y
        fw[free] = dw
        fh[free++] = lengthwise ? H : h
      }
      if (dh > EPS) {
        fx[free] = X
        fy[free] = Y + h
        fw[free] = lengthwise ? w : W
        fh[free++] = dh
      }
    }
    return out
  }
  band(): Band {
    const { items } = this
    const band: Band = { length: this.length, kinds: [], x: [], y: [], turned: [] }
    for (let i = 0; i < items.n; i++) {
      band.kinds.push(items.kind[i] as number)
      band.x.push(this.x[i] as number)
      band.y.push(this.y[i] as number)
      band.turned.push(this.turned[i] === 1)
    }
    return band
  }
}

export interface SheetJob {
  items: StripItems
  random: Random
  /** The least that a shorter plan is shorter by. */
  step: number
  bound: number
  spent: () => boolean
  better: (band: Band) => void
}

/**
 * Annealed orders into a sheet a little shorter than the best plan known; what does not fit is what is to be lessened.
 * Goes on from the order that it ended with, or begins anew.
 */
export class SheetSearch {
  private readonly decoder: SheetDecoder
  private readonly order: Int32Array
  private readonly way: Uint8Array
  private readonly across: Uint8Array
  private readonly total: number
  constructor(private readonly job: SheetJob) {
    const { n, w, l } = job.items
    this.decoder = new SheetDecoder(job.items)
    this.order = Int32Array.from({ length: n }, (_, i) => i)
    this.way = new Uint8Array(n).fill(EITHER)
    this.across = new Uint8Array(n)
    this.total = w.reduce((sum, wi, i) => sum + wi * (l[i] as number), 0)
  }
  private anew(spreadOf: number): void {
    const { items, random } = this.job
    const key = Float64Array.from(this.order, (_, i) => (items.w[i] as number) * (items.l[i] as number) * (1 + spreadOf * (random() - 0.5))) // prettier-ignore
    this.order.sort((a, b) => (key[b] as number) - (key[a] as number))
    this.way.fill(EITHER)
    this.across.fill(0)
  }
  /** `length` of the best plan known. Answers the rounds spent. */
  run(length: number, rounds: number, turn: number): number {
    const { job, decoder, order, way, across } = this
    const { items, random } = job
    const { n } = items
    if (turn % 3 === 0) this.anew(turn === 0 ? 0 : 0.6)
    const byArea = turn % 2 === 0
    let target = length - job.step
    const whole = () => {
      const out = decoder.run(order, way, across, target, byArea, 0, Infinity)
      decoder.keep()
      return out
    }
    let current = whole()
    let r = 0
    while (r++ < rounds) {
      if (current <= 0) {
        // Places of items that a refused try moved are made good by laying all of them once more.
        whole()
        job.better(decoder.band())
        if (decoder.length <= job.bound + EPS) break
        target = decoder.length - job.step
        current = whole()
        continue
      }
      if ((r & 31) === 0 && job.spent()) break
      const i = Math.floor(random() * n)
      const item = order[i] as number
      const what = random()
      const [hadWay, hadAcross] = [way[item] as number, across[item] as number]
      let j = -1
      if (what < 0.15 && items.turn[item]) way[item] = (hadWay + 1 + Math.floor(random() * 2)) % 3
      else if (what < 0.3) across[item] = 1 - hadAcross
      else {
        // Near in the order more often than far.
        j = Math.min(n - 1, Math.max(0, i + Math.round((random() - 0.5) * n * (random() < 0.5 ? 0.2 : 1))))
        order[i] = order[j] as number
        order[j] = item
      }
      const heat = (turn % 3 === 0 ? 0.004 : 0.0015) * this.total * (1 - r / rounds) ** 2
      const limit = current - heat * Math.log(Math.max(1e-9, random()))
      const next = decoder.run(order, way, across, target, byArea, j < 0 ? i : Math.min(i, j), limit)
      if (next <= limit) {
        current = next
        decoder.keep()
      } else {
        way[item] = hadWay
        across[item] = hadAcross
        if (j >= 0) {
          order[j] = order[i] as number
          order[i] = item
        }
      }
    }
    return r
  }
}
