export const full = (row: readonly number[], across: number): boolean =>
  row.length === 2 && row[0] <= 0 && row[1] >= across
/** Cells of a bin that are taken, row by row along it, as sorted runs. */
export class Field {
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

export interface NestBin {
  id: string
  width: number
  length: number
  blocked?: readonly { from: number; to: number }[]
}

/** A shape in one of its turns: a closed outline with its box at 0, 0; x across, y along. */
export interface Lie {
  turnDeg: 0 | 90 | 180 | 270
  points: readonly { x: number; y: number }[]
  width: number
  length: number
}

/**
 * Runs of cells by row from the shape's own corner; and the same grown by the gap, which begins `pad` cells before
 * it.
 */
export interface Mask {
  bare: Int32Array[]
  pad: number
  grown: Int32Array[]
}

export function merged(spans: number[]): number[] {
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
export function spans(points: Lie['points'], from: number, to: number, cell: number): number[] {
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

export function maskOf(lie: Lie, cell: number, gap: number): Mask {
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

/** Cells across a bin: fine enough to lose little, coarse enough to try thousands of places in a moment. */
export const CELLS_ACROSS = 192
export const LEAST_CELL = 4
export interface NestShape {
  id: string
  lies: readonly Lie[]
}
