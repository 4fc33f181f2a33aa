/** Nodes along one side of a panel, in the middles of equal cells, and the even waves that they carry (DCT-II). */
export interface Side {
  lengthM: number
  cells: number
  cellM: number
  /** Wave m at node i: cos(mπ(i + ½)/n), at m·n + i. */
  cosines: Float64Array
  /** Its begin is the middle of what it is half of: the field goes on there as in a mirror. */
  mirrored: boolean
}

export function sideOf(lengthM: number, cells: number, mirrored = false): Side {
  const cosines = new Float64Array(cells * cells)
  for (let m = 0; m < cells; m++)
    for (let i = 0; i < cells; i++) cosines[m * cells + i] = Math.cos((m * Math.PI * (i + 0.5)) / cells)
  return { lengthM, cells, cellM: lengthM / cells, cosines, mirrored }
}

export const waveNumber = (side: Side, m: number): number => (m * Math.PI) / side.lengthM
/** Share of each wave in a field: 1/n for the level, 2/n for the others. */
export const waveShare = (side: Side, m: number): number => (m === 0 ? 1 : 2) / side.cells
export const nodePlace = (side: Side, i: number): number => (i + 0.5) * side.cellM

/**
 * The nodes about a place with their weights: a cubic through four of them (Lagrange). At the ends it reaches out, or
 * goes on into the mirror.
 */
export function cubicWeights(side: Side, atM: number): { node: number; weight: number }[] {
  const at = atM / side.cellM - 0.5
  const count = Math.min(4, side.cells)
  const least = side.mirrored ? -2 : 0
  const first = Math.max(least, Math.min(side.cells - count, Math.floor(at) - 1))
  return Array.from({ length: count }, (_, i) => {
    let weight = 1
    for (let j = 0; j < count; j++) if (j !== i) weight *= (at - first - j) / (i - j)
    const node = first + i
    return { node: node < 0 ? -1 - node : node, weight }
  })
}

/** What each wave is worth at a place. */
export function wavesAt(side: Side, atM: number): Float64Array {
  const out = new Float64Array(side.cells)
  for (const { node, weight } of cubicWeights(side, atM))
    for (let m = 0; m < side.cells; m++) out[m] += weight * side.cosines[m * side.cells + node]
  return out
}

/** Nodes from `from` up to `to`, without it. */
export interface Window {
  from: number
  to: number
}
export const windowOf = (side: Side, fromM: number, toM: number): Window => ({
  from: Math.max(0, Math.min(side.cells, Math.ceil(fromM / side.cellM - 0.5))),
  to: Math.max(0, Math.min(side.cells, Math.floor(toM / side.cellM - 0.5) + 1)),
})

/**
 * Fields of a rectangle as waves and as values at nodes, the values only within a window. Layout, the long side within:
 * waves[n·nx + m], values[(k − y.from)·(x.to − x.from) + (i − x.from)].
 */
export class WaveField {
  private readonly half: Float64Array
  constructor(
    readonly x: Side,
    readonly y: Side,
  ) {
    this.half = new Float64Array(x.cells * y.cells)
  }

  valuesInto(values: Float64Array, waves: Float64Array, wx: Window, wy: Window): void {
    const [nx, ny] = [this.x.cells, this.y.cells]
    const { half } = this
    const [along, across] = [this.x.cosines, this.y.cosines]
    // First across, into half[k·nx + m].
    half.fill(0, wy.from * nx, wy.to * nx)
    for (let k = wy.from; k < wy.to; k++) {
      const to = k * nx
      let n = 0
      for (; n + 3 < ny; n += 4) {
        const at = n * ny + k
        const [c0, c1, c2, c3] = [across[at], across[at + ny], across[at + 2 * ny], across[at + 3 * ny]]
        const a0 = n * nx
        const [a1, a2, a3] = [a0 + nx, a0 + 2 * nx, a0 + 3 * nx]
        for (let m = 0; m < nx; m++)
          half[to + m] += c0 * waves[a0 + m] + c1 * waves[a1 + m] + c2 * waves[a2 + m] + c3 * waves[a3 + m]
      }
      for (; n < ny; n++) {
        const c = across[n * ny + k]
        for (let m = 0, a = n * nx; m < nx; m++) half[to + m] += c * waves[a + m]
      }
    }
    const wide = wx.to - wx.from
    for (let k = wy.from; k < wy.to; k++) {
      const row = (k - wy.from) * wide
      values.fill(0, row, row + wide)
      // Four waves at a time: each value is read and written once for all of them.
      let m = 0
      for (; m + 3 < nx; m += 4) {
        const at = k * nx + m
        const [h0, h1, h2, h3] = [half[at], half[at + 1], half[at + 2], half[at + 3]]
        const c0 = m * nx + wx.from
        const [c1, c2, c3] = [c0 + nx, c0 + 2 * nx, c0 + 3 * nx]
        for (let i = 0; i < wide; i++)
          values[row + i] += h0 * along[c0 + i] + h1 * along[c1 + i] + h2 * along[c2 + i] + h3 * along[c3 + i]
      }
      for (; m < nx; m++) {
        const h = half[k * nx + m]
        for (let i = 0, c = m * nx + wx.from; i < wide; i++) values[row + i] += h * along[c + i]
      }
    }
  }

  wavesInto(waves: Float64Array, values: Float64Array, wx: Window, wy: Window): void {
    const [nx, ny] = [this.x.cells, this.y.cells]
    const { half } = this
    const [along, across] = [this.x.cosines, this.y.cosines]
    const wide = wx.to - wx.from
    for (let k = wy.from; k < wy.to; k++) {
      const row = (k - wy.from) * wide
      let m = 0
      for (; m + 3 < nx; m += 4) {
        let [s0, s1, s2, s3] = [0, 0, 0, 0]
        const c0 = m * nx + wx.from
        const [c1, c2, c3] = [c0 + nx, c0 + 2 * nx, c0 + 3 * nx]
        for (let i = 0; i < wide; i++) {
          const value = values[row + i]
          s0 += value * along[c0 + i]
          s1 += value * along[c1 + i]
          s2 += value * along[c2 + i]
          s3 += value * along[c3 + i]
        }
        const at = k * nx + m
        half[at] = s0 * waveShare(this.x, m)
        half[at + 1] = s1 * waveShare(this.x, m + 1)
        half[at + 2] = s2 * waveShare(this.x, m + 2)
        half[at + 3] = s3 * waveShare(this.x, m + 3)
      }
      for (; m < nx; m++) {
        let sum = 0
        for (let i = 0, c = m * nx + wx.from; i < wide; i++) sum += values[row + i] * along[c + i]
        half[k * nx + m] = sum * waveShare(this.x, m)
      }
    }
    for (let n = 0; n < ny; n++) {
      const a = n * nx
      waves.fill(0, a, a + nx)
      const share = waveShare(this.y, n)
      let k = wy.from
      for (; k + 3 < wy.to; k += 4) {
        const at = n * ny + k
        const [c0, c1] = [across[at] * share, across[at + 1] * share]
        const [c2, c3] = [across[at + 2] * share, across[at + 3] * share]
        const b0 = k * nx
        const [b1, b2, b3] = [b0 + nx, b0 + 2 * nx, b0 + 3 * nx]
        for (let m = 0; m < nx; m++)
          waves[a + m] += c0 * half[b0 + m] + c1 * half[b1 + m] + c2 * half[b2 + m] + c3 * half[b3 + m]
      }
      for (; k < wy.to; k++) {
        const c = across[n * ny + k] * share
        for (let m = 0, b = k * nx; m < nx; m++) waves[a + m] += c * half[b + m]
      }
    }
  }
}
