/**
 * Cholesky factor of a symmetric positive definite matrix of 2 × 2 blocks, one block row a vertex, by rows
 * (up-looking).
 * The order of elimination comes in; what is filled in is found once and used for every matrix of the same pattern.
 * Source: docs/sources.md#davis-2006.
 */
export class BlockCholesky {
  private readonly n: number
  /** Place in the order of each vertex. */
  private readonly at: Int32Array
  private readonly parent: Int32Array
  private readonly start: Int32Array
  private readonly filled: Int32Array
  private readonly rows: Int32Array
  private readonly values: Float64Array
  private readonly diagonal: Float64Array
  private readonly x: Float64Array
  private readonly mark: Int32Array
  private readonly stack: Int32Array
  /** Neighbours before a row in the order, and which block of the matrix each is. */
  private readonly lowStart: Int32Array
  private readonly lowRow: Int32Array
  private readonly lowBlock: Int32Array
  private readonly lowTurned: Uint8Array

  /** `pairs`: vertices of each off-diagonal block, two by two. `order`: vertices in the order of elimination. */
  constructor(
    pairs: Int32Array,
    private readonly order: Int32Array,
  ) {
    const n = (this.n = order.length)
    this.at = new Int32Array(n)
    order.forEach((v, i) => (this.at[v] = i))
    const m = pairs.length / 2
    this.lowStart = new Int32Array(n + 1)
    for (let e = 0; e < m; e++) {
      const k = Math.max(this.at[pairs[2 * e]], this.at[pairs[2 * e + 1]])
      this.lowStart[k + 1] = this.lowStart[k + 1] + 1
    }
    for (let i = 0; i < n; i++) this.lowStart[i + 1] = this.lowStart[i + 1] + this.lowStart[i]
    const fill = this.lowStart.slice(0, n)
    this.lowRow = new Int32Array(m)
    this.lowBlock = new Int32Array(m)
    this.lowTurned = new Uint8Array(m)
    for (let e = 0; e < m; e++) {
      const [i, j] = [this.at[pairs[2 * e]], this.at[pairs[2 * e + 1]]]
      const k = Math.max(i, j)
      const p = fill[k]
      fill[k] = p + 1
      this.lowRow[p] = Math.min(i, j)
      this.lowBlock[p] = e
      // The block is that of (first, second): turned where the row is the second.
      this.lowTurned[p] = k === j ? 1 : 0
    }
    this.parent = new Int32Array(n).fill(-1)
    this.mark = new Int32Array(n).fill(-1)
    this.stack = new Int32Array(n)
    const count = new Int32Array(n)
    for (let k = 0; k < n; k++) {
      this.mark[k] = k
      for (let p = this.lowStart[k]; p < this.lowStart[k + 1]; p++)
        for (let i = this.lowRow[p]; this.mark[i] !== k; i = this.parent[i]) {
          if (this.parent[i] === -1) this.parent[i] = k
          count[i] = count[i] + 1
          this.mark[i] = k
        }
    }
    this.start = new Int32Array(n + 1)
    for (let i = 0; i < n; i++) this.start[i + 1] = this.start[i] + count[i]
    this.filled = new Int32Array(n)
    this.rows = new Int32Array(this.start[n])
    this.values = new Float64Array(4 * this.start[n])
    this.diagonal = new Float64Array(3 * n)
    this.x = new Float64Array(4 * n)
  }

  /**
   * `diagonal`: three numbers a vertex (xx, xy, yy); `blocks`: four a pair (row by row, of the pair's first against
   * its second). False where it is not positive definite.
   */
  factor(diagonal: Float64Array, blocks: Float64Array): boolean {
    const { n, start, filled, rows, values, x, mark, stack, parent } = this
    filled.fill(0)
    mark.fill(-1)
    for (let k = 0; k < n; k++) {
      let top = n
      mark[k] = k
      for (let p = this.lowStart[k]; p < this.lowStart[k + 1]; p++) {
        let i = this.lowRow[p]
        const b = 4 * this.lowBlock[p]
        const turned = this.lowTurned[p] === 1
        x[4 * i] = blocks[b]
        x[4 * i + 1] = turned ? blocks[b + 2] : blocks[b + 1]
        x[4 * i + 2] = turned ? blocks[b + 1] : blocks[b + 2]
        x[4 * i + 3] = blocks[b + 3]
        let depth = 0
        for (; mark[i] !== k; i = parent[i]) {
          stack[depth++] = i
          mark[i] = k
        }
        while (depth > 0) stack[--top] = stack[--depth]
      }
      const v = this.order[k]
      let dxx = diagonal[3 * v]
      let dxy = diagonal[3 * v + 1]
      let dyy = diagonal[3 * v + 2]
      for (; top < n; top++) {
        const i = stack[top]
        const a = this.diagonal[3 * i]
        const c = this.diagonal[3 * i + 1]
        const d = this.diagonal[3 * i + 2]
        // The block of row k: what stands there times the inverse of the transposed lower triangle of the diagonal.
        const l0 = x[4 * i] / a
        const l1 = (x[4 * i + 1] - l0 * c) / d
        const l2 = x[4 * i + 2] / a
        const l3 = (x[4 * i + 3] - l2 * c) / d
        x[4 * i] = x[4 * i + 1] = x[4 * i + 2] = x[4 * i + 3] = 0
        const from = start[i]
        const to = from + filled[i]
        for (let p = from; p < to; p++) {
          const j = 4 * rows[p]
          const q = 4 * p
          const v0 = values[q]
          const v1 = values[q + 1]
          const v2 = values[q + 2]
          const v3 = values[q + 3]
          x[j] = x[j] - l0 * v0 - l1 * v1
          x[j + 1] = x[j + 1] - l0 * v2 - l1 * v3
          x[j + 2] = x[j + 2] - l2 * v0 - l3 * v1
          x[j + 3] = x[j + 3] - l2 * v2 - l3 * v3
        }
        dxx -= l0 * l0 + l1 * l1
        dxy -= l0 * l2 + l1 * l3
        dyy -= l2 * l2 + l3 * l3
        rows[to] = k
        values[4 * to] = l0
        values[4 * to + 1] = l1
        values[4 * to + 2] = l2
        values[4 * to + 3] = l3
        filled[i] = filled[i] + 1
      }
      if (!(dxx > 0)) return false
      const a = Math.sqrt(dxx)
      const c = dxy / a
      const rest = dyy - c * c
      if (!(rest > 0)) return false
      this.diagonal[3 * k] = a
      this.diagonal[3 * k + 1] = c
      this.diagonal[3 * k + 2] = Math.sqrt(rest)
    }
    return true
  }

  /** Solves for a right side given by vertices, two numbers each. */
  solve(right: Float64Array): Float64Array {
    return this.solveBoth(right, right)[0]
  }

  /** The same for two right sides at once: the factor is read once for both. */
  solveBoth(one: Float64Array, two: Float64Array): [Float64Array, Float64Array] {
    const { n, start, rows, values, diagonal, order } = this
    // Four numbers a row: those of one, those of two.
    const y = new Float64Array(4 * n)
    for (let k = 0; k < n; k++) {
      const v = 2 * order[k]
      y[4 * k] = one[v]
      y[4 * k + 1] = one[v + 1]
      y[4 * k + 2] = two[v]
      y[4 * k + 3] = two[v + 1]
    }
    for (let k = 0; k < n; k++) {
      const a = diagonal[3 * k]
      const c = diagonal[3 * k + 1]
      const d = diagonal[3 * k + 2]
      const y0 = y[4 * k] / a
      const y1 = (y[4 * k + 1] - c * y0) / d
      const z0 = y[4 * k + 2] / a
      const z1 = (y[4 * k + 3] - c * z0) / d
      y[4 * k] = y0
      y[4 * k + 1] = y1
      y[4 * k + 2] = z0
      y[4 * k + 3] = z1
      for (let p = start[k]; p < start[k + 1]; p++) {
        const j = 4 * rows[p]
        const l0 = values[4 * p]
        const l1 = values[4 * p + 1]
        const l2 = values[4 * p + 2]
        const l3 = values[4 * p + 3]
        y[j] = y[j] - l0 * y0 - l1 * y1
        y[j + 1] = y[j + 1] - l2 * y0 - l3 * y1
        y[j + 2] = y[j + 2] - l0 * z0 - l1 * z1
        y[j + 3] = y[j + 3] - l2 * z0 - l3 * z1
      }
    }
    for (let k = n - 1; k >= 0; k--) {
      let y0 = y[4 * k]
      let y1 = y[4 * k + 1]
      let z0 = y[4 * k + 2]
      let z1 = y[4 * k + 3]
      for (let p = start[k]; p < start[k + 1]; p++) {
        const j = 4 * rows[p]
        const l0 = values[4 * p]
        const l1 = values[4 * p + 1]
        const l2 = values[4 * p + 2]
        const l3 = values[4 * p + 3]
        y0 -= l0 * y[j] + l2 * y[j + 1]
        y1 -= l1 * y[j] + l3 * y[j + 1]
        z0 -= l0 * y[j + 2] + l2 * y[j + 3]
        z1 -= l1 * y[j + 2] + l3 * y[j + 3]
      }
      const a = diagonal[3 * k]
      const c = diagonal[3 * k + 1]
      const d = diagonal[3 * k + 2]
      y[4 * k + 1] = y1 / d
      y[4 * k] = (y0 - c * y[4 * k + 1]) / a
      y[4 * k + 3] = z1 / d
      y[4 * k + 2] = (z0 - c * y[4 * k + 3]) / a
    }
    const out: [Float64Array, Float64Array] = [new Float64Array(2 * n), new Float64Array(2 * n)]
    for (let k = 0; k < n; k++) {
      const v = 2 * order[k]
      out[0][v] = y[4 * k]
      out[0][v + 1] = y[4 * k + 1]
      out[1][v] = y[4 * k + 2]
      out[1][v + 1] = y[4 * k + 3]
    }
    return out
  }
}

const LEAF = 4

/** An order of elimination by nested dissection: halves of space first, what parts them last. */
export function dissection(positions: Float64Array, neighbours: readonly (readonly number[])[]): Int32Array {
  const n = neighbours.length
  const out = new Int32Array(n)
  let end = 0
  const side = new Int8Array(n)
  const part = (list: number[]): void => {
    if (list.length <= LEAF) {
      for (const v of list) out[end++] = v
      return
    }
    let axis = 0
    let widest = -1
    for (let d = 0; d < 3; d++) {
      let [low, high] = [Infinity, -Infinity]
      for (const v of list) {
        const x = positions[3 * v + d]
        if (x < low) low = x
        if (x > high) high = x
      }
      if (high - low > widest) {
        widest = high - low
        axis = d
      }
    }
    const sorted = list.sort((a, b) => positions[3 * a + axis] - positions[3 * b + axis] || a - b)
    const half = sorted.length >> 1
    sorted.forEach((v, i) => (side[v] = i < half ? 1 : 2))
    const left: number[] = []
    const between: number[] = []
    for (let i = 0; i < half; i++) {
      const v = sorted[i]
      if (neighbours[v].some((w) => side[w] === 2)) between.push(v)
      else left.push(v)
    }
    const right = sorted.slice(half)
    for (const v of sorted) side[v] = 0
    if (left.length === 0) {
      for (const v of sorted) out[end++] = v
      return
    }
    part(left)
    part(right)
    for (const v of between) out[end++] = v
  }
  part(Array.from({ length: n }, (_, i) => i))
  return out
}
