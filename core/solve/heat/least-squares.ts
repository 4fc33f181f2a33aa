/** Damping of a number that moves nothing: without it, its steps would be boundless. */
const STIFF = 4

/** The move that lessens the squares most, damped by `damping` (normal equations, Gauss with pivots). */
export function leastSquares(slopes: readonly number[][], off: readonly number[], damping: number): number[] {
  const n = slopes.length
  const a = slopes.map((s, i) => [
    ...slopes.map(
      (t, j) =>
        s.reduce((sum, v, k) => sum + v * t[k], 0) +
        (i === j ? damping * (STIFF + s.reduce((sum, v) => sum + v * v, 0)) : 0),
    ),
    -s.reduce((sum, v, k) => sum + v * off[k], 0),
  ])
  for (let c = 0; c < n; c++) {
    const pivot = a.reduce((best, row, r) => (r >= c && Math.abs(row[c]) > Math.abs(a[best][c]) ? r : best), c)
    const swap = a[c]
    a[c] = a[pivot]
    a[pivot] = swap
    for (let r = 0; r < n; r++)
      if (r !== c) {
        const f = a[r][c] / a[c][c]
        for (let k = c; k <= n; k++) a[r][k] -= f * a[c][k]
      }
  }
  return a.map((row, i) => row[n] / row[i])
}
