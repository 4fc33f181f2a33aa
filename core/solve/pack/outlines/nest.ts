import type { Budget } from '../../../kit/budget'
import type { Random } from '../../../kit/random'

/** One way for a shape to lie: a closed outline with its box at 0, 0; x across, y along. */
export interface Lie {
  turnDeg: 0 | 90 | 180 | 270
  points: readonly { x: number; y: number }[]
  width: number
  length: number
}

export interface NestShape {
  id: string
  lies: readonly Lie[]
}

export interface NestBin {
  id: string
  width: number
  length: number
  blocked?: readonly { from: number; to: number }[]
}

export interface NestPlaced {
  id: string
  binId: string
  x: number
  y: number
  lie: Lie
}

export interface NestOptions {
  /** Clear space between shapes. */
  gap: number
  random: Random
  budget: Budget
  /** What lies already and stays: outlines where they are. */
  still?: readonly { binId: string; points: readonly { x: number; y: number }[] }[]
  /** Orders to begin with. */
  start?: readonly string[]
  better?: (placed: NestPlaced[], used: number) => void
}

/** Cells across a bin: fine enough to lose little, coarse enough to try thousands of places in a moment. */
const CELLS_ACROSS = 192
const LEAST_CELL = 4

/**
 * Outlines of any shape into bins, interlocking where they can. Each shape is a set of cells that covers it wholly,
 * grown
 * by the gap, so a plan is sound whatever the cells' size; shapes go one by one to the lowest free place, and orders
 * and
 * turns are bettered by chance within the budget. Null where not all shapes find room.
 */
export function nest(
  shapes: readonly NestShape[],
  bins: readonly NestBin[],
  options: NestOptions,
): { placed: NestPlaced[]; used: number } | null {
  const { gap, random, budget } = options
  const widest = Math.max(1, ...bins.map((b) => b.width))
  const cell = Math.max(LEAST_CELL, widest / CELLS_ACROSS)
  const masks = shapes.map((s) => s.lies.map((lie) => maskOf(lie, cell, gap)))
  const fields = bins.map(
    (bin) =>
      new Field(
        bin,
        cell,
        gap,
        (options.still ?? []).filter((f) => f.binId === bin.id).map((f) => f.points),
      ),
  )
  const lay = (
    order: readonly number[],
    ways: readonly number[],
    limit: number,
  ): { placed: NestPlaced[]; used: number } | null => {
    for (const f of fields) f.clear()
    const placed: NestPlaced[] = []
    const far = fields.map((f) => f.begun)
    for (const i of order) {
      const shape = shapes[i]
      let found = false
      for (let b = 0; b < fields.length && !found; b++) {
        const field = fields[b]
        let best: { at: { x: number; y: number }; end: number; way: number } | null = null
        for (let w = 0; w < shape.lies.length; w++) {
          const way = ways[i]
          if (way >= 0 && w !== way % shape.lies.length) continue
          const lie = shape.lies[w]
          const at = field.lowest(masks[i][w], lie)
          if (at && (!best || at.y + lie.length < best.end - 1e-9)) best = { at, end: at.y + lie.length, way: w }
        }
        if (!best) continue
        const lie = shape.lies[best.way]
        field.put(masks[i][best.way], best.at)
        placed.push({ id: shape.id, binId: bins[b].id, x: best.at.x, y: best.at.y, lie })
        far[b] = Math.max(far[b], best.end)
        found = true
        if (far.reduce((s, f) => s + f, 0) >= limit) return null
      }
      if (!found) return null
    }
    return { placed, used: far.reduce((s, f) => s + f, 0) }
  }
  const place = new Map(shapes.map((s, i) => [s.id, i]))
  const size = (i: number) => Math.max(...shapes[i].lies.map((l) => l.width * l.length))
  const bySize = shapes.map((_, i) => i).sort((a, b) => size(b) - size(a))
  const given = (options.start ?? []).flatMap((id) => place.get(id) ?? [])
  const starts = [...(given.length === shapes.length ? [given] : []), bySize]
  const any = shapes.map(() => -1)
  let best: { placed: NestPlaced[]; used: number } | null = null
  let order = bySize
  let ways = any
  const offer = (plan: { placed: NestPlaced[]; used: number } | null): boolean => {
    if (!plan || (best && plan.used >= best.used - 1e-6)) return false
    best = plan
    options.better?.(plan.placed, plan.used)
    return true
  }
  for (const start of starts) if (offer(lay(start, any, Infinity))) order = start
  for (let round = 0; round < budget.rounds && !budget.spent?.() && shapes.length > 1; round++) {
    const next = [...order]
    const turned = [...ways]
    for (let k = 0; k < 1 + (random() < 0.3 ? 2 : 0); k++) {
      const i = Math.floor(random() * next.length)
      if (random() < 0.3) turned[next[i]] = random() < 0.4 ? -1 : Math.floor(random() * 4)
      else {
        const j = Math.floor(random() * next.length)
        const [item] = next.splice(i, 1)
        next.splice(j, 0, item)
      }
    }
    const had: { used: number } | null = best
    if (offer(lay(next, turned, had ? (had as { used: number }).used - 1e-6 : Infinity))) {
      order = next
      ways = turned
    }
  }
  return best
}

/**
 * Runs of cells by row from the shape's own corner; and the same grown by the gap, which begins `pad` cells before
 * it.
 */
interface Mask {
  bare: Int32Array[]
  pad: number
  grown: Int32Array[]
}

function maskOf(lie: Lie, cell: number, gap: number): Mask {
  const pad = gap > 0 ? Math.ceil(gap / cell) : 0
  const count = Math.ceil(lie.length / cell - 1e-9)
  const raw = Array.from({ length: count }, (_, r) => spans(lie.points, r * cell, (r + 1) * cell, cell))
  const bare = raw.map((s) => Int32Array.from(s))
  if (pad === 0) return { bare, pad: 0, grown: bare }
  // Only what is put down is grown: what is tried stays as it is.
  const grown = Array.from({ length: count + 2 * pad }, (_, r) => {
    const near: number[] = []
    for (let k = Math.max(0, r - 2 * pad); k <= Math.min(count - 1, r); k++)
      for (let i = 0; i < raw[k].length; i += 2) near.push(raw[k][i], raw[k][i + 1] + 2 * pad)
    return Int32Array.from(merged(near))
  })
  return { bare, pad, grown }
}

function merged(spans: number[]): number[] {
  const pairs: [number, number][] = []
  for (let i = 0; i < spans.length; i += 2) pairs.push([spans[i], spans[i + 1]])
  pairs.sort((a, b) => a[0] - b[0])
  const out: number[] = []
  for (const [a, b] of pairs)
    if (out.length > 0 && a <= out[out.length - 1]) out[out.length - 1] = Math.max(out[out.length - 1], b)
    else out.push(a, b)
  return out
}

/** Cells of one row that an outline touches: where its edges run within the row, and what lies inside at its middle. */
function spans(points: Lie['points'], from: number, to: number, cell: number): number[] {
  const out: number[] = []
  const crossings: number[] = []
  const middle = (from + to) / 2
  for (let i = 0; i < points.length; i++) {
    const a = points[i]
    const b = points[(i + 1) % points.length]
    if ((a.y <= middle && b.y > middle) || (b.y <= middle && a.y > middle))
      crossings.push(a.x + ((middle - a.y) / (b.y - a.y)) * (b.x - a.x))
    const low = Math.min(a.y, b.y)
    const high = Math.max(a.y, b.y)
    if (high <= from + 1e-9 || low >= to - 1e-9) continue
    const at = (y: number) =>
      high - low < 1e-9 ? null : a.x + ((Math.min(high, Math.max(low, y)) - a.y) / (b.y - a.y)) * (b.x - a.x)
    const x1 = at(from) ?? a.x
    const x2 = at(to) ?? b.x
    const left = Math.min(x1, x2)
    const right = Math.max(x1, x2)
    out.push(
      Math.floor(left / cell + 1e-9),
      Math.max(Math.floor(left / cell + 1e-9) + 1, Math.ceil(right / cell - 1e-9)),
    )
  }
  crossings.sort((a, b) => a - b)
  for (let i = 0; i + 1 < crossings.length; i += 2)
    out.push(Math.floor(crossings[i] / cell + 1e-9), Math.ceil(crossings[i + 1] / cell - 1e-9))
  return merged(out)
}

/** Cells of a bin that are taken, row by row along it, as sorted runs. */
class Field {
  private rows: number[][] = []
  private readonly base: number[][]
  /** How far along the bin something lies from the start. */
  readonly begun: number
  private readonly across: number
  private readonly most: number
  private hint = 0
  constructor(
    private readonly bin: NestBin,
    private readonly cell: number,
    gap: number,
    still: readonly Lie['points'][],
  ) {
    this.across = Math.floor(bin.width / cell + 1e-9)
    this.most = Math.floor(bin.length / cell + 1e-9)
    this.base = []
    let far = 0
    const mark = (r: number, a: number, b: number) => {
      if (r < 0 || b <= 0) return
      while (this.base.length <= r) this.base.push([])
      this.base[r] = merged([...this.base[r], Math.max(0, a), b])
    }
    for (const b of bin.blocked ?? [])
      for (let r = Math.floor(b.from / cell); r < Math.ceil(b.to / cell); r++) mark(r, 0, this.across + 1)
    for (const points of still) {
      const length = Math.max(...points.map((p) => p.y))
      far = Math.max(far, length)
      const pad = Math.ceil(gap / cell)
      for (let r = 0; r < Math.ceil(length / cell); r++) {
        const row = spans(points, r * cell, (r + 1) * cell, cell)
        for (let i = 0; i < row.length; i += 2)
          for (let k = -pad; k <= pad; k++) mark(r + k, row[i] - pad, row[i + 1] + pad)
      }
    }
    this.begun = far
    this.clear()
  }
  clear(): void {
    this.rows = this.base.map((r) => [...r])
    this.hint = 0
  }
  /** The lowest place, then the leftmost, where the bare shape meets nothing that is taken. */
  lowest(mask: Mask, lie: Lie): { x: number; y: number } | null {
    const count = mask.bare.length
    const wide = Math.ceil(lie.width / this.cell - 1e-9)
    const last = Math.floor((this.bin.width - lie.width) / this.cell + 1e-9)
    if (last < 0 || wide > this.across + 1) return null
    while (this.hint < this.rows.length && full(this.rows[this.hint], this.across)) this.hint++
    for (let y = this.hint; y + count <= this.most || (y === 0 && lie.length <= this.bin.length); y++) {
      if (y * this.cell + lie.length > this.bin.length + 1e-9) return null
      for (let x = 0; x <= last;) {
        // How far right the shape has to go to clear the first thing it meets.
        const jump = this.blockedBy(mask, x, y)
        if (jump <= x) return { x: x * this.cell, y: y * this.cell }
        x = jump
      }
    }
    return null
  }
  private blockedBy(mask: Mask, x: number, y: number): number {
    for (let r = 0; r < mask.bare.length; r++) {
      const taken = this.rows[y + r]
      if (!taken || taken.length === 0) continue
      const own = mask.bare[r]
      let to = x
      for (let i = 0; i < own.length; i += 2) {
        const a = own[i] + x
        const b = own[i + 1] + x
        for (let t = 0; t < taken.length; t += 2) {
          if (taken[t] >= b) break
          if (taken[t + 1] > a) to = Math.max(to, x + taken[t + 1] - a)
        }
      }
      if (to > x) return to
    }
    return x
  }
  put(mask: Mask, at: { x: number; y: number }): void {
    const x = Math.round(at.x / this.cell)
    const y = Math.round(at.y / this.cell)
    mask.grown.forEach((own, r) => {
      const row = y + r - mask.pad
      if (row < 0) return
      while (this.rows.length <= row) this.rows.push([])
      const list = this.rows[row]
      for (let i = 0; i < own.length; i += 2) list.push(Math.max(0, own[i] - mask.pad + x), own[i + 1] - mask.pad + x)
      this.rows[row] = merged(list)
    })
  }
}
const full = (row: readonly number[], across: number): boolean => row.length === 2 && row[0] <= 0 && row[1] >= across
