import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { StepTable, type WaveModes } from '@/core/solve/heat/propagator'
import { nodePlace, sideOf, WaveField, waveShare, type Side, type Window } from '@/core/solve/heat/waves'

const whole = (side: Side): Window => ({ from: 0, to: side.cells })
/** cos(mπ(i + ½)/n), straight from the definition. */
const wave = (side: Side, m: number, i: number): number => Math.cos((m * Math.PI * (i + 0.5)) / side.cells)

/** Values at the nodes of a window, wave by wave and node by node. */
function slowValues(x: Side, y: Side, waves: Float64Array, wx: Window, wy: Window): number[] {
  const out: number[] = []
  for (let k = wy.from; k < wy.to; k++)
    for (let i = wx.from; i < wx.to; i++) {
      let sum = 0
      for (let n = 0; n < y.cells; n++)
        for (let m = 0; m < x.cells; m++) sum += (waves[n * x.cells + m] ?? 0) * wave(x, m, i) * wave(y, n, k)
      out.push(sum)
    }
  return out
}

/** Waves of a field that is nothing outside a window. */
function slowWaves(x: Side, y: Side, values: Float64Array, wx: Window, wy: Window): number[] {
  const out: number[] = []
  const wide = wx.to - wx.from
  for (let n = 0; n < y.cells; n++)
    for (let m = 0; m < x.cells; m++) {
      let sum = 0
      for (let k = wy.from; k < wy.to; k++)
        for (let i = wx.from; i < wx.to; i++)
          sum += (values[(k - wy.from) * wide + i - wx.from] ?? 0) * wave(x, m, i) * wave(y, n, k)
      out.push(sum * waveShare(x, m) * waveShare(y, n))
    }
  return out
}

const randomList = (length: number, seed: number): Float64Array => {
  const random = seeded(seed)
  return Float64Array.from({ length }, () => 2 * random() - 1)
}
const near = (fast: Float64Array, slow: readonly number[]): void => {
  expect(fast).toHaveLength(slow.length)
  for (const [i, v] of slow.entries()) expect(fast[i]).toBeCloseTo(v, 9)
}

describe('a field as waves and as values', () => {
  const cells = fc.integer({ min: 1, max: 13 })
  const share = fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }))
  const windowIn = (side: Side, [a, b]: [number, number]): Window => {
    const [from, to] = [Math.floor(Math.min(a, b) * side.cells), Math.ceil(Math.max(a, b) * side.cells)]
    return { from, to: Math.max(from, to) }
  }

  it('is what its definition says, whatever the sizes and windows (sums in fours, and what is left of them)', () => {
    fc.assert(
      fc.property(cells, cells, share, share, fc.integer({ min: 1, max: 1e6 }), (nx, ny, inX, inY, seed) => {
        const [x, y] = [sideOf(1, nx), sideOf(0.3, ny)]
        const [wx, wy] = [windowIn(x, inX), windowIn(y, inY)]
        const size = (wx.to - wx.from) * (wy.to - wy.from)
        const field = new WaveField(x, y)
        const waves = randomList(nx * ny, seed)
        const values = new Float64Array(size)
        field.valuesInto(values, waves, wx, wy)
        near(values, slowValues(x, y, waves, wx, wy))
        const own = randomList(size, seed + 1)
        const back = new Float64Array(nx * ny)
        field.wavesInto(back, own, wx, wy)
        near(back, slowWaves(x, y, own, wx, wy))
      }),
      { numRuns: 60 },
    )
  })
  it('goes to waves and back over the whole of it without loss', () => {
    const [x, y] = [sideOf(1, 11), sideOf(0.4, 6)]
    const field = new WaveField(x, y)
    const values = randomList(66, 7)
    const [waves, again] = [new Float64Array(66), new Float64Array(66)]
    field.wavesInto(waves, values, whole(x), whole(y))
    field.valuesInto(again, waves, whole(x), whole(y))
    near(again, [...values])
    // The level wave is the mean.
    expect(waves[0]).toBeCloseTo(values.reduce((s, v) => s + v, 0) / 66, 12)
  })
  it('a cosine is one wave', () => {
    const side = sideOf(2, 9)
    const one = sideOf(1, 1)
    const values = Float64Array.from({ length: 9 }, (_, i) => Math.cos((3 * Math.PI * nodePlace(side, i)) / 2))
    const waves = new Float64Array(9)
    new WaveField(side, one).wavesInto(waves, values, whole(side), whole(one))
    for (const [m, v] of waves.entries()) expect(v).toBeCloseTo(m === 3 ? 1 : 0, 12)
  })
})

describe('a step of a mode that decays at some rate', () => {
  /** One wave with one mode for each rate, read as it is. */
  const modesOf = (rates: number[]): WaveModes => ({
    mesh: { depths: [0] } as never,
    exchange: { front: 0, back: 0 },
    waves: 1,
    offsets: Int32Array.from([0, rates.length]),
    rates: Float64Array.from(rates),
    weights: [Float64Array.from(rates, () => 1)],
    atOnce: [new Float64Array(1)],
  })
  /** ∫ f(s) e^(−r(T−s)) ds over the step, by Gauss's rule on many parts. */
  function integral(f: (share: number) => number, rate: number, seconds: number): number {
    const parts = 4000
    let sum = 0
    for (let i = 0; i < parts; i++)
      for (const offset of [-1, 1]) {
        const share = (i + 0.5 + offset / (2 * Math.sqrt(3))) / parts
        sum += (f(share) * Math.exp(-rate * seconds * (1 - share)) * seconds) / (2 * parts)
      }
    return sum
  }
  const RATES = [0, 1e-9, 1e-4, 0.01, 0.3, 0.999, 1, 1.001, 2.5, 40]

  it.each([
    ['even', [1, 1, 1], () => 1],
    ['rising', [0, 0.5, 1], (s: number) => s],
    ['up and down', [0, 1, 0], (s: number) => 4 * s * (1 - s)],
  ] as const)('keeps and gains what the integral says, for a flux that is %s', (_, [begin, middle, end], flux) => {
    for (const seconds of [0.06, 1, 7]) {
      const { keeps, gains } = new StepTable(seconds, modesOf(RATES))
      for (const [j, rate] of RATES.entries()) {
        expect(keeps[j]).toBeCloseTo(Math.exp(-rate * seconds), 12)
        const gained = begin * (gains[0]?.[j] ?? NaN) + middle * (gains[1]?.[j] ?? NaN) + end * (gains[2]?.[j] ?? NaN)
        expect(gained, `rate ${rate}, ${seconds} s`).toBeCloseTo(integral(flux, rate, seconds), 7)
      }
    }
  })
  it('two half steps are one', () => {
    const [whole, half] = [new StepTable(3, modesOf(RATES)), new StepTable(1.5, modesOf(RATES))]
    for (const [j] of RATES.entries()) expect((half.keeps[j] ?? 0) ** 2).toBeCloseTo(whole.keeps[j] ?? NaN, 12)
  })
})
