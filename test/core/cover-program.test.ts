import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { coverLp, type Column } from '@/core/solve/pack/bound/cover-lp'

interface Program {
  demand: number[]
  columns: Column[]
}
/** Columns that cover one row each, to begin with: dear, so that they are taken only where nothing else covers. */
const DEAR = 1000
const solve = ({ demand, columns }: Program) =>
  coverLp(
    demand,
    demand.map(() => ({ value: 1, cost: DEAR })),
    (u) => {
      const worth = (c: Column) => Array.from(c.rows).reduce((s, r, k) => s + (u[r] ?? 0) * (c.values[k] ?? 0), 0)
      const best = [...columns].sort((a, b) => worth(b) - b.cost - (worth(a) - a.cost))[0]
      return best && worth(best) > best.cost + 1e-7 ? best : null
    },
    500,
  )
/** x with a·x = b for a square system; null where it has none. */
function gauss(a: readonly number[][], b: readonly number[]): number[] | null {
  const rows = a.map((row, i) => [...row, b[i] ?? 0])
  const n = rows.length
  for (let k = 0; k < n; k++) {
    const pivot = rows
      .slice(k)
      .reduce((best, row, i) => (Math.abs(row[k] ?? 0) > Math.abs(rows[best]?.[k] ?? 0) ? k + i : best), k)
    const top = rows[pivot]
    if (!top || Math.abs(top[k] ?? 0) < 1e-9) return null
    rows[pivot] = rows[k] ?? top
    rows[k] = top
    for (const [i, row] of rows.entries()) {
      if (i === k) continue
      const by = (row[k] ?? 0) / (top[k] ?? 1)
      row.forEach((v, j) => (row[j] = v - by * (top[j] ?? 0)))
    }
  }
  return rows.map((row, k) => (row[n] ?? 0) / (row[k] ?? 1))
}
const choose = <T>(list: readonly T[], n: number): T[][] =>
  n === 0 ? [[]] : list.flatMap((x, i) => choose(list.slice(i + 1), n - 1).map((rest) => [x, ...rest]))

/** The slow twin: every corner of the program, by every choice of as many columns (slack among them) as rows. */
function byCorners({ demand, columns }: Program): number {
  const m = demand.length
  const dense = [
    ...columns.map((c) => ({ cost: c.cost, at: demand.map((_, r) => c.values[Array.from(c.rows).indexOf(r)] ?? 0) })),
    ...demand.map((_, r) => ({ cost: DEAR, at: demand.map((_, k) => Number(k === r)) })),
    ...demand.map((_, r) => ({ cost: 0, at: demand.map((_, k) => -Number(k === r)) })),
  ]
  return choose(dense, m).reduce((least, basis) => {
    const x = gauss(
      demand.map((_, r) => basis.map((c) => c.at[r] ?? 0)),
      demand,
    )
    if (!x || x.some((v) => v < -1e-7)) return least
    return Math.min(
      least,
      basis.reduce((s, c, k) => s + c.cost * (x[k] ?? 0), 0),
    )
  }, Infinity)
}
const Programs = fc.integer({ min: 1, max: 3 }).chain((m) =>
  fc.record({
    demand: fc.array(fc.integer({ min: 1, max: 9 }), { minLength: m, maxLength: m }),
    columns: fc.array(
      fc.record({ cost: fc.integer({ min: 1, max: 20 }), at: fc.array(fc.nat(4), { minLength: m, maxLength: m }) }),
      { minLength: 1, maxLength: 6 },
    ),
  }),
)
const program = ({ demand, columns }: { demand: number[]; columns: { cost: number; at: number[] }[] }): Program => ({
  demand,
  columns: columns.map(({ cost, at }) => ({ cost, rows: at.map((_, r) => r), values: at })),
})

describe('the covering program behind the bound of a roll', () => {
  it('comes to the least of all its corners', () => {
    fc.assert(
      fc.property(Programs, (raw) => {
        const p = program(raw)
        const out = solve(p)
        expect(out.optimal).toBe(true)
        expect(out.value).toBeCloseTo(byCorners(p), 5)
      }),
      { numRuns: 150 },
    )
  })
  it('its prices prove it: no column is worth more than it costs, and the demand at these prices costs as much', () => {
    fc.assert(
      fc.property(Programs, (raw) => {
        const p = program(raw)
        const { price, value } = solve(p)
        for (const u of price) expect(u).toBeGreaterThanOrEqual(-1e-7)
        for (const c of p.columns)
          expect(
            Array.from(c.rows).reduce((s, r, k) => s + (price[r] ?? 0) * (c.values[k] ?? 0), 0),
          ).toBeLessThanOrEqual(c.cost + 1e-6)
        expect(p.demand.reduce((s, d, r) => s + d * (price[r] ?? 0), 0)).toBeCloseTo(value, 5)
      }),
      { numRuns: 150 },
    )
  })
  it('what is taken covers what is asked for, and costs what is said', () => {
    const p = program({
      demand: [4, 6],
      columns: [
        { cost: 3, at: [2, 1] },
        { cost: 2, at: [0, 2] },
      ],
    })
    const { taken, value } = solve(p)
    const covered = [0, 1].map((r) => taken.reduce((s, t) => s + t.times * (t.column.values[r] ?? 0), 0))
    covered.forEach((c, r) => expect(c).toBeGreaterThanOrEqual((p.demand[r] ?? 0) - 1e-9))
    // Two of the first cover the first row and two of the second; the other four ask for two of the second.
    expect(value).toBeCloseTo(2 * 3 + 2 * 2, 9)
    expect(taken.reduce((s, t) => s + t.times * t.column.cost, 0)).toBeCloseTo(value, 9)
  })
  it('stopped before its end it says so', () => {
    const p = program({
      demand: [5, 5],
      columns: [
        { cost: 1, at: [1, 0] },
        { cost: 1, at: [0, 1] },
      ],
    })
    const out = coverLp(
      p.demand,
      p.demand.map(() => ({ value: 1, cost: DEAR })),
      () => p.columns[0] ?? null,
      1,
    )
    expect(out.optimal).toBe(false)
  })
})
