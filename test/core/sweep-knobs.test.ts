import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { EdgeTask, EdgeSweep } from '@/core/solve/heat/edge-task'
import { movedBy, within, type Knob } from '@/core/solve/heat/sweep-knobs'

const task = {
  panel: { lengthM: 0.9 },
  speedMmS: { min: 2, max: 40 },
  holdMaxS: 6,
  gapMaxS: 20,
  reachMm: 60,
} as EdgeTask
const START: EdgeSweep = { speedMmS: 10, passes: 1, holdS: 2, gapS: 0, fromMm: 0, toMm: 900 }
const KNOBS: readonly Knob[] = ['pace', 'hold', 'from', 'to', 'gap']
const Sweeps = fc.record({
  speedMmS: fc.double({ min: 0.1, max: 200, noNaN: true }),
  passes: fc.integer({ min: 1, max: 3 }),
  holdS: fc.double({ min: -5, max: 20, noNaN: true }),
  gapS: fc.double({ min: -5, max: 60, noNaN: true }),
  fromMm: fc.double({ min: -500, max: 900, noNaN: true }),
  toMm: fc.double({ min: 0, max: 1500, noNaN: true }),
}) as fc.Arbitrary<EdgeSweep>

describe('a sweep while it is fitted', () => {
  it('stays within what the task allows, begins before it ends, and a gap is for several passes', () => {
    fc.assert(
      fc.property(Sweeps, (sweep) => {
        const w = within(task, sweep)
        expect(w.speedMmS).toBeGreaterThanOrEqual(2)
        expect(w.speedMmS).toBeLessThanOrEqual(40)
        expect(w.holdS).toBeGreaterThanOrEqual(0)
        expect(w.holdS).toBeLessThanOrEqual(6)
        expect(w.gapS).toBeLessThanOrEqual(w.passes > 1 ? 20 : 0)
        expect(w.fromMm).toBeGreaterThanOrEqual(-60)
        expect(w.toMm).toBeLessThanOrEqual(960)
        expect(w.fromMm).toBeLessThan(w.toMm)
      }),
    )
  })
  it('is in figures that a hand can keep, and what is within them stays as it is', () => {
    fc.assert(
      fc.property(Sweeps, (sweep) => {
        const w = within(task, sweep)
        expect(within(task, w)).toEqual(w)
        expect(w.holdS * 20).toBeCloseTo(Math.round(w.holdS * 20), 9)
        expect(w.fromMm * 2).toBeCloseTo(Math.round(w.fromMm * 2), 9)
      }),
    )
  })
  it.each(KNOBS)('%s turned forth and back is where it was, and turns nothing else', (knob) => {
    const there = movedBy(START, [knob], [3])
    const back = movedBy(there, [knob], [-3])
    for (const key of Object.keys(START) as (keyof EdgeSweep)[])
      expect(back[key], key).toBeCloseTo(Number(START[key]), 9)
    expect(Object.keys(START).filter((k) => there[k as keyof EdgeSweep] !== START[k as keyof EdgeSweep]).length).toBe(1)
  })
  it('no step is wider than twelve', () =>
    expect(movedBy(START, ['hold', 'to'], [50, -50])).toEqual(movedBy(START, ['hold', 'to'], [12, -12])))
})
