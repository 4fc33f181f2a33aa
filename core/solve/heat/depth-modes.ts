import type { DepthMesh } from './layers'

/** How one wave along the panel lives in the depth of the wall: rates of decay, and what each row sees of them. */
export interface DepthModes {
  /** 1/s. */
  rates: number[]
  /** By row, then by mode: what the row reads for one unit of heat given at the front, K m²/J. */
  weights: number[][]
  /** By row: what it reads at once of a flux, from modes too fast to follow, K m²/W. */
  atOnce: number[]
}

/** Modes that die away faster than this follow the flux at once, 1/s. */
const FAST_RATE = 120
const MOST_SWEEPS = 60

/**
 * The modes of a wall for one wave number: heat in depth, spreading sideways by `waveNumber2` (1/m²), with constant
 * coefficients of exchange in front and behind. Rows are read through `rows` (per node; a temperature is a row with a
 * single 1), and heat enters at node `enters`.
 */
export function depthModes(
  mesh: DepthMesh,
  waveNumber2: number,
  exchange: { front: number; back: number },
  { rows, enters = 0 }: { rows: readonly Float64Array[]; enters?: number },
): DepthModes {
  const n = mesh.depths.length
  const root = mesh.capacity.map(Math.sqrt)
  const diagonal = new Float64Array(n)
  const beside = new Float64Array(n)
  for (let i = 0; i < n; i++) {
    const before = i > 0 ? mesh.conductance[i - 1] : exchange.front
    const after = i + 1 < n ? mesh.conductance[i] : exchange.back
    diagonal[i] = (before + after + waveNumber2 * mesh.lateral[i]) / mesh.capacity[i]
    if (i + 1 < n) beside[i] = -mesh.conductance[i] / (root[i] * root[i + 1])
  }
  const entry = new Float64Array(n)
  entry[enters] = 1 / root[enters]
  // A row of temperatures in the basis that makes the wall symmetric; where heat enters is one of them already.
  const isEntry = (row: Float64Array) => row.every((w, i) => w === (i === enters ? 1 : 0))
  const read = rows.map((row) => (isEntry(row) ? entry : row.map((w, i) => w / root[i])))
  diagonaliseInPlace(diagonal, beside, [...new Set([entry, ...read])])
  const modes: DepthModes = { rates: [], weights: rows.map(() => []), atOnce: rows.map(() => 0) }
  for (let j = 0; j < n; j++) {
    const rate = Math.max(0, diagonal[j])
    const fast = rate > FAST_RATE
    if (!fast) modes.rates.push(rate)
    read.forEach((row, r) => {
      const weight = row[j] * entry[j]
      if (fast) modes.atOnce[r] += weight / rate
      else modes.weights[r].push(weight)
    })
  }
  return modes
}

/**
 * Eigenvalues of a symmetric tridiagonal matrix by the implicit QL method; the rows are turned along with it. Source:
 * Golub & Van Loan, Matrix Computations, 8.3; the rows as in Golub & Welsch 1969.
 */
function diagonaliseInPlace(d: Float64Array, e: Float64Array, rows: readonly Float64Array[]): void {
  const n = d.length
  for (let l = 0; l < n; l++)
    for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
      let m = l
      while (m + 1 < n && Math.abs(e[m]) > Number.EPSILON * (Math.abs(d[m]) + Math.abs(d[m + 1]))) m++
      if (m === l) break
      let g = (d[l + 1] - d[l]) / (2 * e[l])
      let r = Math.hypot(g, 1)
      g = d[m] - d[l] + e[l] / (g + (g >= 0 ? r : -r))
      let [s, c, p] = [1, 1, 0]
      for (let i = m - 1; i >= l; i--) {
        const f = s * e[i]
        const b = c * e[i]
        r = Math.sqrt(f * f + g * g)
        e[i + 1] = r
        if (r === 0) {
          d[i + 1] -= p
          e[m] = 0
          break
        }
        s = f / r
        c = g / r
        g = d[i + 1] - p
        r = (d[i] - g) * s + 2 * c * b
        p = s * r
        d[i + 1] = g + p
        g = c * r - b
        for (const row of rows) {
          const upper = row[i + 1]
          row[i + 1] = s * row[i] + c * upper
          row[i] = c * row[i] - s * upper
        }
      }
      if (r === 0 && m - 1 > l) continue
      d[l] -= p
      e[l] = g
      e[m] = 0
    }
}
