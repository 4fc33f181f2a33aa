import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { heatByContract } from '@/core/engines/heat/heat-contract'
import { INSULATED, type Layer } from '@/core/solve/heat/layers'
import { pointHeat, type PointRun } from '@/core/solve/heat/point'
import { sweepHeat } from '@/core/solve/heat/sweep'
import { FINE, type SweepRun } from '@/core/solve/heat/sweep-model'
import { air, FILM, STEEL, SWEEP } from '../fixtures/heat-cases'
import { movingGaussian, planeWallSeries, semiInfiniteFlux, semiInfiniteInAir } from '../fixtures/heat-forms'

const run = (over: Partial<PointRun>): PointRun => ({
  startC: 20,
  layers: [STEEL],
  phases: [{ seconds: 10, front: air(350, 100) }],
  back: INSULATED,
  radiation: null,
  timesS: [],
  depthsM: [0],
  thresholdsC: [],
  ...over,
})

describe('heat at a point', () => {
  test('a thermocouple junction needs 5.2 s to 199 °C (Incropera & DeWitt, Example 5.1, lumped capacitance)', () => {
    // A sphere of 0.706 mm: volume over surface is a wall of D/6. k 20, c 400, rho 8500, h 400, gas 200 °C, from 25 °C.
    const wall: Layer = { thicknessM: 0.706e-3 / 6, conductivity: 20, heatCapacity: 8500 * 400 }
    const out = pointHeat(
      run({ startC: 25, layers: [wall], phases: [{ seconds: 8, front: air(200, 400) }], thresholdsC: [199] }),
    )
    expect(out.crossings[0]?.firstAboveS).toBeCloseTo(5.17, 1)
  })

  const thick: [string, number, number, number][] = [
    ['plastic', 0.2, 1.9e6, 0.05],
    ['steel', 50, 3.69e6, 1],
  ]
  test.each(thick)('a thick wall of %s in hot air: semi-infinite solid with convection', (_, k, rhoC, thicknessM) => {
    const timesS = [0.5, 2, 10, 60]
    const depthsM = [0, 1e-4, 1e-3, 5e-3]
    const out = pointHeat(
      run({
        layers: [{ thicknessM, conductivity: k, heatCapacity: rhoC }],
        phases: [{ seconds: 60, front: air(350, 100) }],
        timesS,
        depthsM,
      }),
    )
    timesS.forEach((t, i) =>
      depthsM.forEach((d, j) => {
        const exact = semiInfiniteInAir({ k, rhoC, h: 100, airC: 350, startC: 20 }, d, t)
        expect(Math.abs((out.tempsC[i]?.[j] ?? NaN) - exact)).toBeLessThan(0.03)
      }),
    )
  })

  test('a thick wall under an even flux: semi-infinite solid with constant flux', () => {
    const [k, rhoC] = [0.2, 1.9e6]
    const timesS = [1, 5, 30]
    const out = pointHeat(
      run({
        layers: [{ thicknessM: 0.05, conductivity: k, heatCapacity: rhoC }],
        phases: [{ seconds: 30, front: { airC: 0, coefficient: 0, flux: 20_000 } }],
        timesS,
        depthsM: [0, 1e-3],
      }),
    )
    timesS.forEach((t, i) =>
      [0, 1e-3].forEach((d, j) =>
        expect(
          Math.abs((out.tempsC[i]?.[j] ?? NaN) - semiInfiniteFlux({ k, rhoC, flux: 20_000, startC: 20 }, d, t)),
        ).toBeLessThan(0.05),
      ),
    )
  })

  test('a plane wall in air on one side, insulated behind: the series of the textbook', () => {
    const wall = { thicknessM: 3e-3, conductivity: 0.2, heatCapacity: 1.9e6 }
    const out = pointHeat(
      run({ layers: [wall], phases: [{ seconds: 90, front: air(120, 60) }], timesS: [20, 90], depthsM: [0, 3e-3] }),
    )
    for (const [i, t] of [20, 90].entries())
      for (const [j, fromBack] of [1, 0].entries()) {
        const exact = planeWallSeries({ ...wall, h: 60, airC: 120, startC: 20 }, fromBack, t)
        expect(Math.abs((out.tempsC[i]?.[j] ?? NaN) - exact)).toBeLessThan(0.03)
      }
  })

  test('two layers come to the steady state of their resistances', () => {
    const out = pointHeat(
      run({
        layers: [FILM, { thicknessM: 3e-3, conductivity: 0.2, heatCapacity: 1.9e6 }],
        phases: [{ seconds: 4000, front: air(100, 50) }],
        back: air(20, 10),
        timesS: [4000],
        depthsM: [0, 0.1e-3, 3.1e-3],
      }),
    )
    const through = 80 / (1 / 50 + 0.1e-3 / 0.17 + 3e-3 / 0.2 + 1 / 10)
    const steady = [100 - through / 50, 100 - through / 50 - (through * 0.1e-3) / 0.17, 20 + through / 10]
    steady.forEach((c, j) => expect(out.tempsC[0]?.[j]).toBeCloseTo(c, 2))
  })

  test('what comes in is what is stored, with radiation and cooling too', () => {
    const out = pointHeat(
      run({
        layers: [FILM, STEEL],
        phases: [
          { seconds: 12, front: air(350, 100) },
          { seconds: 120, front: air(20, 10) },
        ],
        back: air(18, 5),
        radiation: { emissivity: 0.9, surroundC: 20 },
        timesS: [12],
        thresholdsC: [90, 500],
      }),
    )
    const { front, back, stored } = out.energy
    expect(Math.abs(front + back - stored) / stored).toBeLessThan(1e-3)
    expect(out.peakS).toBeCloseTo(12, 6)
    expect(out.peakC).toBeCloseTo(out.tempsC[0]?.[0] ?? NaN, 6)
    expect(out.crossings[1]).toEqual({ c: 500, firstAboveS: null, lastAboveS: null, aboveS: 0 })
  })

  test('nothing gets hotter than the air or colder than what it was, and more air makes it hotter', () => {
    fc.assert(
      fc.property(
        fc.record({
          airC: fc.double({ min: 60, max: 600, noNaN: true }),
          h: fc.double({ min: 5, max: 300, noNaN: true }),
        }),
        fc.double({ min: 1, max: 40, noNaN: true }),
        ({ airC, h }, seconds) => {
          const at = (coefficient: number) =>
            pointHeat(run({ layers: [FILM, STEEL], phases: [{ seconds, front: air(airC, coefficient) }] }))
          const [less, more] = [at(h), at(h * 1.5)]
          expect(less.peakC).toBeLessThanOrEqual(airC + 1e-6)
          expect(less.finalC).toBeGreaterThanOrEqual(20 - 1e-6)
          expect(more.finalC).toBeGreaterThan(less.finalC)
        },
      ),
      { numRuns: 30 },
    )
  })
})

describe('heat under a moving gun', () => {
  test('a moving spot of flux on an insulated plate: the integral of spreading sources with their mirror images', () => {
    const probes = [
      { xM: 0.3, yM: 0.1, depthM: 0 },
      { xM: 0.45, yM: 0.16, depthM: 0.8e-3 },
    ]
    const timesS = [20, 30, 40, 60, 80]
    const plate = { panel: SWEEP.panel, layer: STEEL, flux: 20_000, sigmaM: 0.03 }
    const source = { fromM: 0.15, toM: 0.45, yM: 0.1, speedMS: 0.009 }
    const out = sweepHeat({
      ...SWEEP,
      layers: [STEEL],
      room: air(20, 0),
      back: INSULATED,
      gun: { airC: 0, coefficient: 0, flux: 20_000, footprint: { shape: 'gaussian', sigmaM: 0.03 } },
      sweep: { ...SWEEP.sweep, fromMm: 150, toMm: 450, speedMmS: 9 },
      coolS: 60,
      probes,
      timesS,
    })
    const off = probes.flatMap((p, i) =>
      timesS.map((t, j) => Math.abs((out.probes[i]?.tempsC[j] ?? NaN) - 20 - movingGaussian(plate, source, p, t))),
    )
    expect(Math.max(...off)).toBeLessThan(0.1)
    expect(off.sort((a, b) => a - b)[Math.floor(off.length / 2)]).toBeLessThan(0.01)
  })

  test('a still gun that covers the whole panel is heat at a point', () => {
    const layers = [FILM, { thicknessM: 3e-3, conductivity: 0.2, heatCapacity: 1.9e6 }]
    const depths = [0, 0.1e-3]
    const sweep = sweepHeat({
      ...SWEEP,
      startC: 5,
      layers,
      gun: { ...SWEEP.gun, footprint: { shape: 'disc', radiusM: 10 } },
      sweep: { ...SWEEP.sweep, fromMm: 300, toMm: 300, speedMmS: null, holdS: 12 },
      coolS: 48,
      timesS: [10, 40],
      probes: depths.map((depthM) => ({ xM: 0.21, yM: 0.13, depthM })),
    })
    const point = pointHeat(
      run({
        startC: 5,
        layers,
        phases: [
          { seconds: 12, front: air(350, 105) },
          { seconds: 48, front: SWEEP.room },
        ],
        back: SWEEP.back,
        timesS: [10, 40],
        depthsM: depths,
      }),
    )
    depths.forEach((_, d) =>
      [0, 1].forEach((t) =>
        expect(Math.abs((sweep.probes[d]?.tempsC[t] ?? NaN) - (point.tempsC[t]?.[d] ?? NaN))).toBeLessThan(0.06),
      ),
    )
    expect(sweep.energy.stored / 0.12).toBeCloseTo(point.energy.stored, -3)
  })

  test('solved as two halves or as a whole, a gun along the middle gives the same', () => {
    const probes = [{ xM: 0.2, yM: 0.13, depthM: 0 }]
    const halves = sweepHeat({ ...SWEEP, probes, timesS: [30] })
    // Off the middle by less than a hair, but by more than what counts as the middle.
    const whole = sweepHeat({ ...SWEEP, probes, timesS: [30], sweep: { ...SWEEP.sweep, yM: 0.1 + 2e-7 } })
    expect(Math.abs((halves.probes[0]?.tempsC[0] ?? NaN) - (whole.probes[0]?.tempsC[0] ?? NaN))).toBeLessThan(0.05)
    expect(Math.abs(halves.energy.gun / whole.energy.gun - 1)).toBeLessThan(2e-3)
  })

  test('the energy of a sweep closes, and more passes store more', () => {
    const passes = [1, 2].map((n) => sweepHeat({ ...SWEEP, sweep: { ...SWEEP.sweep, passes: n, gapS: 3 } }).energy)
    for (const { gun, room, back, stored } of passes) {
      expect(Math.abs(gun + room + back - stored) / stored).toBeLessThan(1e-3)
      expect(room).toBeLessThan(0)
    }
    expect(passes[1]?.stored).toBeGreaterThan(passes[0]?.stored ?? Infinity)
  })

  const guns: [string, Partial<SweepRun>][] = [
    ['a round of air that thins out', {}],
    ['a disc with a rim', { gun: { ...SWEEP.gun, footprint: { shape: 'disc', radiusM: 0.035 } } }],
    ['film that shines', { radiation: { emissivity: 0.9, surroundC: 20 } }],
    ['two passes and a rest', { sweep: { ...SWEEP.sweep, passes: 2, gapS: 6, speedMmS: 14 } }],
    ['air colder than the room', { gun: { ...SWEEP.gun, airC: -20 } }],
  ]
  test.each(guns)('%s: a step is carried out as well as by as many rounds as there may be', (_, over) => {
    const sweep = { ...SWEEP, sweep: { ...SWEEP.sweep, holdS: 2 }, ...over }
    const run = { ...sweep, panel: { lengthM: 0.5, widthM: 0.2 }, probes: [{ xM: 0.2, yM: 0.11, depthM: 0 }] }
    const [asIs, exact] = [FINE, { ...FINE, sameC: 1e-10 }].map((fineness) => sweepHeat(run, fineness))
    const parts = asIs?.peaks.map((c, i) => Math.abs(c - (exact?.peaks[i] ?? NaN)))
    expect(Math.max(...(parts ?? [NaN]))).toBeLessThan(4e-3)
    expect(asIs?.probes[0]?.finalC).toBeCloseTo(exact?.probes[0]?.finalC ?? NaN, 2)
    expect((asIs?.energy.gun ?? NaN) / (exact?.energy.gun ?? NaN)).toBeCloseTo(1, 4)
  })

  test('350 °C air moved 25 mm in 2 to 3 s brings film on steel to about 90 °C (common practice, no source)', () => {
    const peaks = [25 / 2.4, 25 / 3].map(
      (speedMmS) =>
        sweepHeat({
          ...SWEEP,
          sweep: { ...SWEEP.sweep, speedMmS },
          probes: [{ xM: 0.3, yM: 0.1, depthM: 0 }],
        }).probes[0]?.peakC ?? NaN,
    )
    expect(peaks[0]).toBeGreaterThan(83)
    expect(peaks[1]).toBeLessThan(98)
  })

  test('readings climb from pass to pass, and a hold at the start mends the cold begin of a steel edge', () => {
    const at = (over: Partial<SweepRun['sweep']>) => sweepHeat({ ...SWEEP, sweep: { ...SWEEP.sweep, ...over } })
    const climbs = [1, 2, 3].map((passes) => at({ speedMmS: 20, passes, gapS: 2 }).edge.maxPeakC)
    expect(climbs[1]).toBeGreaterThan((climbs[0] ?? NaN) + 5)
    expect(climbs[2]).toBeGreaterThan((climbs[1] ?? NaN) + 3)
    const [bare, held] = [at({}), at({ holdS: 4 })]
    expect(bare.peaks[0]).toBeLessThan(88)
    expect(held.peaks[0]).toBeGreaterThan((bare.peaks[0] ?? NaN) + 4)
    expect(held.edge.inWindowFraction ?? 0).toBeGreaterThan(bare.edge.inWindowFraction ?? 1)
  })
})

describe('heat by its contract', () => {
  const point = {
    format: 'cuirass/heat@1',
    kind: 'point',
    start_c: 18,
    layers: [{ name: 'film', thickness_mm: 0.1, k_w_mk: 0.17, rho_kg_m3: 1350, cp_j_kgk: 1200 }],
    phases: [{ seconds: 12, air_c: 350, h_w_m2k: 100 }],
    times_s: [2, 12],
  }
  const faultOf = (over: object) => {
    const out = heatByContract({ ...point, ...over })
    return out.ok ? null : [out.error.code, out.error.at]
  }
  test('depths are the boundaries of the layers unless they are named', () => {
    const out = heatByContract(point)
    expect(out.ok && out.value).toMatchObject({
      depths_mm: [0, 0.1],
      temps_c: [[expect.any(Number), expect.any(Number)], expect.any(Array)],
    })
  })
  test.each([
    ['a moment after the end', { times_s: [13] }, ['outside_run', 'times_s[0]']],
    ['a depth behind the wall', { depths_mm: [0.2] }, ['outside_run', 'depths_mm[0]']],
    [
      'a layer of no thickness',
      { layers: [{ ...point.layers[0], thickness_mm: 0 }] },
      ['too_small', 'layers[0].thickness_mm'],
    ],
    ['a time before the begin', { times_s: [-1] }, ['too_small', 'times_s[0]']],
    [
      'air without its coefficient',
      { phases: [{ seconds: 3, air_c: 300 }] },
      ['air_without_coefficient', 'phases[0].h_w_m2k'],
    ],
    ['no layer', { layers: [] }, ['too_small', 'layers']],
    ['a key that is not known', { colour: 'red' }, ['unknown_key', 'colour']],
  ])('%s is bad input, named', (_, over, fault) => expect(faultOf(over)).toEqual(fault))

  test('a gun that moves needs a speed; a probe lies on the panel', () => {
    const sweep = {
      ...point,
      kind: 'sweep',
      phases: undefined,
      panel: { length_mm: 200, width_mm: 100 },
      room: { air_c: 20, h_w_m2k: 10 },
      gun: { air_c: 350, h_w_m2k: 105, footprint: { shape: 'disc', radius_mm: 20 } },
      sweep: { y_mm: 50, from_mm: 0, to_mm: 200 },
      times_s: [],
    }
    const { phases: _, ...whole } = sweep
    const at = (over: object) => {
      const out = heatByContract({ ...whole, ...over })
      return out.ok ? 'fine' : `${out.error.code} ${out.error.at}`
    }
    expect(at({})).toBe('no_speed sweep.speed_mm_s')
    const moving = { ...sweep.sweep, speed_mm_s: 20 }
    expect(at({ sweep: moving, probes: [{ x_mm: 300, y_mm: 0 }] })).toBe('off_panel probes[0].x_mm')
    expect(at({ sweep: moving, window_c: [100, 90] })).toBe('min_over_max window_c')
    expect(at({ sweep: moving })).toBe('fine')
  })
})
