/** A column of the covering program: coefficients by row, and its cost. */
export interface Column {
  rows: ArrayLike<number>
  values: ArrayLike<number>
  cost: number
}

/**
 * Least Σ cost·x with Σ column·x ≥ demand, x ≥ 0, where columns come one by one from `price`, which is given the prices
 * of the rows and answers with a column worth more than it costs, or null when there is none. Revised simplex with an
 * explicit inverse from a diagonal start. Answers the last prices, and the columns taken with how often.
 */
export function coverLp(
  demand: ArrayLike<number>,
  start: { value: number; cost: number }[],
  price: (u: Float64Array) => Column | null,
  rounds: number,
): { price: Float64Array; value: number; optimal: boolean; taken: { column: Column; times: number }[] } {
  const m = start.length
  const inverse = new Float64Array(m * m)
  const x = new Float64Array(m)
  const cost = Float64Array.from(start, (s) => s.cost)
  start.forEach((s, i) => {
    inverse[i * m + i] = 1 / s.value
    x[i] = demand[i] / s.value
  })
  const u = new Float64Array(m)
  const direction = new Float64Array(m)
  const basic: (Column | null)[] = start.map(() => null)
  let optimal = false
  for (let round = 0; round < rounds; round++) {
    u.fill(0)
    for (let r = 0; r < m; r++) {
      const c = cost[r]
      if (c === 0) continue
      const base = r * m
      for (let j = 0; j < m; j++) u[j] = u[j] + c * inverse[base + j]
    }
    let negative = -1
    for (let j = 0; j < m; j++) if (u[j] < (negative < 0 ? -1e-9 : u[negative])) negative = j
    const column = negative >= 0 ? { rows: [negative], values: [-1], cost: 0 } : price(u)
    if (!column) {
      optimal = true
      break
    }
    const { rows, values } = column
    for (let r = 0; r < m; r++) {
      let sum = 0
      const base = r * m
      for (let k = 0; k < rows.length; k++) sum += inverse[base + rows[k]] * values[k]
      direction[r] = sum
    }
    let leave = -1
    let step = Infinity
    for (let r = 0; r < m; r++) {
      const d = direction[r]
      if (d <= 1e-10) continue
      const ratio = x[r] / d
      if (ratio < step - 1e-12 || (ratio < step + 1e-12 && leave >= 0 && d > direction[leave])) {
        step = ratio
        leave = r
      }
    }
    if (leave < 0) break
    const pivot = direction[leave]
    const leaveBase = leave * m
    for (let j = 0; j < m; j++) inverse[leaveBase + j] = inverse[leaveBase + j] / pivot
    for (let r = 0; r < m; r++) {
      const d = direction[r]
      if (r === leave || d === 0) continue
      const base = r * m
      for (let j = 0; j < m; j++) {
        const v = inverse[leaveBase + j]
        if (v !== 0) inverse[base + j] = inverse[base + j] - d * v
      }
      x[r] = Math.max(0, x[r] - step * d)
    }
    x[leave] = step
    cost[leave] = column.cost
    basic[leave] = column
  }
  let value = 0
  for (let r = 0; r < m; r++) value += cost[r] * x[r]
  const taken = basic.flatMap((column, r) => (column && column.cost > 0 ? [{ column, times: x[r] }] : []))
  return { price: u, value, optimal, taken }
}
