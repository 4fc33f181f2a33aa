import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { seeded } from '@/core/kit/random'
import { BlockCholesky, dissection } from '@/core/solve/mesh/cholesky'

/** A sparse matrix of 2 × 2 blocks over points in space, with its dense twin. */
function anyMatrix(seed: number, n: number) {
  const random = seeded(seed)
  const positions = Float64Array.from({ length: 3 * n }, () => random())
  const neighbours: number[][] = Array.from({ length: n }, () => [])
  const pairs: number[] = []
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++)
      if (j === i + 1 || random() < 3 / n) {
        pairs.push(i, j)
        neighbours[i]?.push(j)
        neighbours[j]?.push(i)
      }
  const blocks = Float64Array.from({ length: 2 * pairs.length }, () => random() - 0.5)
  const diagonal = Float64Array.from({ length: 3 * n }, (_, k) => (k % 3 === 1 ? random() - 0.5 : n + random()))
  const dense = Array.from({ length: 2 * n }, () => new Float64Array(2 * n))
  const put = (row: number, column: number, value: number) => {
    const [a, b] = [dense[row], dense[column]]
    if (a && b) a[column] = b[row] = value
  }
  for (let v = 0; v < n; v++) {
    put(2 * v, 2 * v, diagonal[3 * v] ?? 0)
    put(2 * v, 2 * v + 1, diagonal[3 * v + 1] ?? 0)
    put(2 * v + 1, 2 * v + 1, diagonal[3 * v + 2] ?? 0)
  }
  for (let e = 0; e < pairs.length / 2; e++)
    for (let r = 0; r < 2; r++)
      for (let c = 0; c < 2; c++)
        put(2 * (pairs[2 * e] ?? 0) + r, 2 * (pairs[2 * e + 1] ?? 0) + c, blocks[4 * e + 2 * r + c] ?? 0)
  const order = dissection(positions, neighbours)
  return { order, dense, diagonal, blocks, factor: new BlockCholesky(Int32Array.from(pairs), order), random }
}
const times = (dense: readonly Float64Array[], x: Float64Array) =>
  dense.map((row) => row.reduce((sum, a, i) => sum + a * (x[i] ?? 0), 0))

describe('the sparse factor', () => {
  test('solves what its matrix, written out, multiplies back: one right side, and two at once', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 60 }), (seed, n) => {
        const { dense, diagonal, blocks, factor, random } = anyMatrix(seed, n)
        expect(factor.factor(diagonal, blocks)).toBe(true)
        const right = () => Float64Array.from({ length: 2 * n }, () => random() - 0.5)
        const [a, b] = [right(), right()]
        const [x, y] = factor.solveBoth(a, b)
        for (const [solution, asked] of [
          [x, a],
          [y, b],
          [factor.solve(a), a],
        ] as const)
          times(dense, solution).forEach((value, i) => expect(value).toBeCloseTo(asked[i] ?? 0, 9))
      }),
      { numRuns: 60 },
    )
  })
  test('orders every point once, and says where a matrix is not positive definite', () => {
    const { order, diagonal, blocks, factor } = anyMatrix(5, 40)
    expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: 40 }, (_, i) => i))
    expect(factor.factor(diagonal, blocks)).toBe(true)
    diagonal[3 * 17] = -1
    expect(factor.factor(diagonal, blocks)).toBe(false)
  })
})
