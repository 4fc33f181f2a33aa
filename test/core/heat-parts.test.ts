import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { footprintReach, shareAt, type Footprint } from '@/core/solve/heat/footprint'
import { gunAt, gunPath, heatEnd, pathEnd, stepsTo, type Sweep } from '@/core/solve/heat/gun-path'
import { hermite, History, parabola } from '@/core/solve/heat/history'
import { leastSquares } from '@/core/solve/heat/least-squares'
import { lineSummary, peakAt } from '@/core/solve/heat/line-summary'
import { cubicWeights, nodePlace, sideOf } from '@/core/solve/heat/waves'

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })

describe('what a temperature did', () => {
  /** Half a sine over the start: peak, crossings and time above are known in closed form. */
  const sine = (high: number, seconds: number, c: number, steps: number) => {
    const history = new History(20, [c])
    const at = (t: number) => 20 + high * Math.sin((Math.PI * t) / seconds)
    const step = seconds / steps
    for (let i = 0; i < steps; i++)
      history.add(i * step, step, parabola(at(i * step), at((i + 0.5) * step), at((i + 1) * step)))
    return history
  }
  it('half a sine: its peak, when it passes a threshold, and how long it is over it', () => {
    fc.assert(
      fc.property(between(30, 120), between(5, 90), between(0.05, 0.95), (high, seconds, share) => {
        const history = sine(high, seconds, 20 + share * high, 40)
        const first = (seconds / Math.PI) * Math.asin(share)
        expect(history.peakC).toBeCloseTo(20 + high, 2)
        expect(Math.abs(history.peakS - seconds / 2)).toBeLessThan(0.01 * seconds)
        const [crossing] = history.crossings
        expect(Math.abs((crossing?.firstAboveS ?? NaN) - first)).toBeLessThan(2e-3 * seconds)
        expect(Math.abs((crossing?.lastAboveS ?? NaN) - (seconds - first))).toBeLessThan(2e-3 * seconds)
        expect(Math.abs((crossing?.aboveS ?? NaN) - (seconds - 2 * first))).toBeLessThan(4e-3 * seconds)
      }),
    )
  })
  it('a step that rises over a threshold and falls back within itself is seen', () => {
    const history = new History(20, [99.9])
    // 20 at both ends, 100 in the middle: over 99.9 for a share of √(0.1 / 80).
    history.add(0, 10, parabola(20, 100, 20))
    expect(history.peakC).toBeCloseTo(100, 6)
    expect(history.crossings[0]?.aboveS).toBeCloseTo(10 * Math.sqrt(0.1 / 80), 3)
    expect(history.finalC).toBe(20)
  })
  it('never passed is null; warm from the beginning counts from 0', () => {
    const history = new History(60, [50, 200])
    history.add(0, 4, parabola(60, 70, 80))
    expect(history.crossings).toEqual([
      { c: 50, firstAboveS: 0, lastAboveS: 4, aboveS: 4 },
      { c: 200, firstAboveS: null, lastAboveS: null, aboveS: 0 },
    ])
  })
  it('a cubic by its values and slopes at both ends is that cubic', () => {
    fc.assert(
      fc.property(between(-5, 5), between(-5, 5), between(-5, 5), between(-5, 5), between(0.1, 9), (a, b, c, d, s) => {
        const at = (t: number) => a + b * t + c * t * t + d * t ** 3
        const slope = (t: number) => b + 2 * c * t + 3 * d * t * t
        const curve = hermite({ c: at(0), slope: slope(0) }, { c: at(s), slope: slope(s) }, s)
        for (const u of [0, 0.2, 0.5, 0.9, 1]) expect(curve(u)).toBeCloseTo(at(u * s), 6)
      }),
    )
  })
})

describe('where the gun is', () => {
  const Sweeps = fc.record({
    fromMm: between(-40, 100),
    toMm: between(300, 1500),
    speedMmS: between(2, 60),
    passes: fc.integer({ min: 1, max: 4 }),
    returns: fc.constantFrom('alternate' as const, 'same' as const),
    holdS: between(0, 8),
    gapS: between(0, 15),
  })
  it('its time is that of its holds, passes and pauses, stretch after stretch without a hole', () => {
    fc.assert(
      fc.property(Sweeps, between(0, 60), (sweep: Sweep & { speedMmS: number }, coolS) => {
        const path = gunPath(sweep, coolS)
        const { fromMm, toMm, speedMmS, passes, holdS, gapS } = sweep
        const heat = passes * (holdS + (toMm - fromMm) / speedMmS) + (passes - 1) * gapS
        expect(heatEnd(path)).toBeCloseTo(heat, 6)
        expect(pathEnd(path)).toBeCloseTo(heat + coolS, 6)
        let at = 0
        for (const part of path) {
          expect(part.beginS).toBeCloseTo(at, 9)
          at += part.seconds
        }
      }),
    )
  })
  it('to and fro it goes on from where it stopped; in one direction it begins anew', () => {
    fc.assert(
      fc.property(Sweeps, (sweep) => {
        const moves = gunPath(sweep, 5).filter((p) => p.gun && p.gun.speedMS !== 0)
        expect(moves).toHaveLength(sweep.passes)
        for (const [i, part] of moves.entries()) {
          const back = sweep.returns === 'alternate' && i % 2 === 1
          expect(gunAt(part, part.beginS) * 1000).toBeCloseTo(back ? sweep.toMm : sweep.fromMm, 6)
          expect(gunAt(part, part.beginS + part.seconds) * 1000).toBeCloseTo(back ? sweep.fromMm : sweep.toMm, 6)
        }
      }),
    )
  })
  it('steps add up to the time, none is longer than the longest', () => {
    fc.assert(
      fc.property(between(0.01, 200), between(0.01, 0.2), between(0.2, 4), (seconds, first, longest) => {
        const steps = stepsTo(seconds, first, longest)
        expect(steps.reduce((a, b) => a + b, 0)).toBeCloseTo(seconds, 6)
        for (const step of steps) {
          expect(step).toBeGreaterThan(0)
          expect(step).toBeLessThanOrEqual(Math.max(first, longest) + 1e-9)
        }
      }),
    )
  })
})

describe('the gun’s footprint on cells', () => {
  const cell = { along: 0.005, across: 0.004 }
  const total = (f: Footprint, dx: number, dy: number): number => {
    const reach = footprintReach(f) + 0.01
    let sum = 0
    for (let x = -Math.ceil(reach / cell.along); x <= reach / cell.along; x++)
      for (let y = -Math.ceil(reach / cell.across); y <= reach / cell.across; y++)
        sum += shareAt(f, x * cell.along + dx, y * cell.across + dy, cell) * cell.along * cell.across
    return sum
  }
  const offset = between(-0.0025, 0.0025)
  it('a disc covers πr² wherever its middle lies between the cells', () => {
    fc.assert(
      fc.property(between(0.02, 0.05), offset, offset, (radiusM, dx, dy) => {
        expect(total({ shape: 'disc', radiusM }, dx, dy) / (Math.PI * radiusM ** 2)).toBeCloseTo(1, 2)
      }),
      { numRuns: 40 },
    )
  })
  it('one that thins out holds 2πσ²', () => {
    fc.assert(
      fc.property(between(0.015, 0.04), offset, offset, (sigmaM, dx, dy) => {
        expect(total({ shape: 'gaussian', sigmaM }, dx, dy) / (2 * Math.PI * sigmaM ** 2)).toBeCloseTo(1, 4)
      }),
      { numRuns: 40 },
    )
  })
})

describe('read between nodes', () => {
  it('a cubic is read back exactly, up to the rim', () => {
    const side = sideOf(1.2, 17)
    fc.assert(
      fc.property(between(-3, 3), between(-3, 3), between(-3, 3), between(0, 1.2), (a, b, c, at) => {
        const value = (x: number) => 1 + a * x + b * x * x + c * x ** 3
        const weights = cubicWeights(side, at)
        expect(weights.reduce((sum, w) => sum + w.weight, 0)).toBeCloseTo(1, 9)
        const read = weights.reduce((sum, w) => sum + w.weight * value(nodePlace(side, w.node)), 0)
        expect(read).toBeCloseTo(value(at), 6)
      }),
    )
  })
  it('at a mirror it goes on as the field does: what is even there is read exactly', () => {
    const side = sideOf(0.4, 9, true)
    for (const at of [0, 0.005, 0.02, 0.05]) {
      const read = cubicWeights(side, at).reduce((sum, w) => sum + w.weight * (2 - nodePlace(side, w.node) ** 2), 0)
      expect(read).toBeCloseTo(2 - at * at, 9)
    }
  })
  it('an edge whose peaks climb evenly: its ends, and the share of it within a range', () => {
    fc.assert(
      fc.property(between(60, 90), between(1, 60), between(0, 1), between(0, 1), (low, rise, p, q) => {
        const side = sideOf(1, 40)
        const peaks = Float64Array.from({ length: 40 }, (_, i) => low + rise * nodePlace(side, i))
        const [from, to] = [Math.min(p, q), Math.max(p, q)]
        const out = lineSummary(side, peaks, [low + rise * from, low + rise * to])
        expect(out.inWindowFraction).toBeCloseTo(to - from, 2)
        expect([out.minPeakC, out.minAtMm]).toEqual([expect.closeTo(low, 6), 0])
        expect([out.maxPeakC, out.maxAtMm]).toEqual([expect.closeTo(low + rise, 6), 1000])
        expect(peakAt(side, peaks, 0.37)).toBeCloseTo(low + rise * 0.37, 6)
      }),
    )
  })
})

describe('the move that lessens squares most', () => {
  const Table = fc.array(fc.array(between(-2, 2), { minLength: 6, maxLength: 6 }), { minLength: 2, maxLength: 4 })
  const squares = (v: readonly number[]) => v.reduce((sum, x) => sum + x * x, 0)
  const after = (slopes: readonly number[][], off: readonly number[], by: readonly number[]) =>
    off.map((v, k) => v + slopes.reduce((sum, s, i) => sum + (s[k] ?? 0) * (by[i] ?? 0), 0))
  /** Each slope well away from nothing, and from the others. */
  const Apart = Table.map((rows) =>
    rows.map((s, i) => s.map((v, k) => (k === i ? v + (v < 0 ? -1 : 1) * (1 + rows.length) : v))),
  )
  it('undamped it leaves what stands at right angles to every slope (normal equations)', () => {
    fc.assert(
      fc.property(Apart, fc.array(between(-9, 9), { minLength: 6, maxLength: 6 }), (slopes, off) => {
        const left = after(slopes, off, leastSquares(slopes, off, 1e-9))
        // Slopes that are all but one and the same leave no one answer.
        fc.pre(left.every((v) => Math.abs(v) < 1e3))
        expect(squares(left)).toBeLessThanOrEqual(squares(off) + 1e-6)
        for (const s of slopes) expect(s.reduce((sum, v, k) => sum + v * (left[k] ?? 0), 0)).toBeCloseTo(0, 3)
      }),
    )
  })
  it('however much it is damped it never makes the squares larger, and goes less far the more it is', () => {
    fc.assert(
      fc.property(Table, fc.array(between(-9, 9), { minLength: 6, maxLength: 6 }), (slopes, off) => {
        let far = Infinity
        for (const damping of [0.01, 1, 100]) {
          const by = leastSquares(slopes, off, damping)
          expect(squares(after(slopes, off, by))).toBeLessThanOrEqual(squares(off) + 1e-9)
          const length = Math.sqrt(squares(by))
          expect(length).toBeLessThanOrEqual(far + 1e-9)
          far = length
        }
      }),
    )
  })
})
