import { heatPlanByContract } from '../core/engines/heat/heat-plan-contract'
import { INSULATED } from '../core/solve/heat/layers'
import { pointHeat } from '../core/solve/heat/point'
import { sweepHeat } from '../core/solve/heat/sweep'
import type { SweepRun } from '../core/solve/heat/sweep-model'
import { air, FILM, STEEL, SWEEP } from '../test/fixtures/heat-cases'
import { movingGaussian, semiInfiniteInAir } from '../test/fixtures/heat-forms'

const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN
const timed = (times: number, work: () => void): number => {
  const all = Array.from({ length: times }, () => {
    const from = performance.now()
    work()
    return performance.now() - from
  })
  return median(all)
}

const EDGE: SweepRun = {
  ...SWEEP,
  panel: { lengthM: 1, widthM: 0.2 },
  sweep: { ...SWEEP.sweep, fromMm: -30, toMm: 1030, holdS: 3 },
}

function pointErrors(): number[] {
  const wall = { thicknessM: 0.05, conductivity: 0.2, heatCapacity: 1.9e6 }
  const timesS = [0.5, 1, 2, 5, 10, 30, 60]
  const depthsM = [0, 1e-4, 1e-3, 3e-3]
  const out = pointHeat({
    startC: 20,
    layers: [wall],
    phases: [{ seconds: 60, front: air(350, 100) }],
    back: INSULATED,
    radiation: null,
    timesS,
    depthsM,
    thresholdsC: [],
  })
  const solid = { k: 0.2, rhoC: 1.9e6, h: 100, airC: 350, startC: 20 }
  return timesS.flatMap((t, i) =>
    depthsM.map((d, j) => Math.abs((out.tempsC[i]?.[j] ?? NaN) - semiInfiniteInAir(solid, d, t))),
  )
}

function sweepErrors(): number[] {
  const probes = [0.1, 0.13, 0.16].map((yM) => ({ xM: 0.3, yM, depthM: 0 }))
  const timesS = [20, 30, 40, 60, 80]
  const plate = { panel: { lengthM: 0.6, widthM: 0.2 }, layer: STEEL, flux: 20_000, sigmaM: 0.03 }
  const out = sweepHeat({
    ...SWEEP,
    layers: [STEEL],
    panel: plate.panel,
    room: air(20, 0),
    back: INSULATED,
    gun: { airC: 0, coefficient: 0, flux: 20_000, footprint: { shape: 'gaussian', sigmaM: 0.03 } },
    sweep: { ...SWEEP.sweep, fromMm: 150, toMm: 450, speedMmS: 9, holdS: 0 },
    coolS: 60,
    probes,
    timesS,
  })
  const source = { fromM: 0.15, toM: 0.45, yM: 0.1, speedMS: 0.009 }
  return probes.flatMap((p, i) =>
    timesS.map((t, j) => Math.abs((out.probes[i]?.tempsC[j] ?? NaN) - 20 - movingGaussian(plate, source, p, t))),
  )
}

const WALLS = {
  'steel 0.8 mm': { thickness_mm: 0.8, k_w_mk: 50, rho_kg_m3: 7850, cp_j_kgk: 470 },
  'aluminium 1.1 mm': { thickness_mm: 1.1, k_w_mk: 200, rho_kg_m3: 2700, cp_j_kgk: 900 },
  'plastic 3 mm': { thickness_mm: 3, k_w_mk: 0.2, rho_kg_m3: 1000, cp_j_kgk: 1900 },
}
const FILMS = {
  'cast, 90–100 °C': { band: { min: 90, max: 100 }, limit: 110, gun: { air_c: 350, h_w_m2k: 105, sigma_mm: 30 } },
  'chrome, 80–90 °C': { band: { min: 80, max: 90 }, limit: 95, gun: { air_c: 250, h_w_m2k: 90, sigma_mm: 40 } },
}

function planRow(wall: keyof typeof WALLS, film: keyof typeof FILMS): string {
  const { band, limit, gun } = FILMS[film]
  const { sigma_mm, ...air } = gun
  const from = performance.now()
  const out = heatPlanByContract({
    format: 'cuirass/heat-plan@1',
    start_c: 20,
    layers: [{ thickness_mm: 0.1, k_w_mk: 0.17, rho_kg_m3: 1350, cp_j_kgk: 1200 }, WALLS[wall]],
    edge: { length_mm: 1000, panel_width_mm: 200, y_mm: 100 },
    room: { air_c: 20, h_w_m2k: 10 },
    back: { air_c: 20, h_w_m2k: 5 },
    guns: [{ id: 'gun', ...air, footprint: { shape: 'gaussian', sigma_mm } }],
    band_c: band,
    limit_c: limit,
    speed_mm_s: { min: 2, max: 60 },
  })
  const took = ((performance.now() - from) / 1000).toFixed(1)
  if (!out.ok || !('plan' in out.value)) return `| ${wall} | ${film} | none | | | | ${took} s |`
  const plan = out.value.plan as {
    sweep: { hold_s: number; speed_mm_s: number }
    in_band: number
    peak_c: { min: number; max: number }
    seconds: number
  }
  const peaks = `${plan.peak_c.min.toFixed(1)}–${plan.peak_c.max.toFixed(1)} °C`
  const moved = `${plan.sweep.hold_s} s, ${plan.sweep.speed_mm_s} mm/s`
  const inBand = `${(100 * plan.in_band).toFixed(1)} %`
  return `| ${[wall, film, moved, inBand, peaks, `${plan.seconds.toFixed(0)} s`, `${took} s`].join(' | ')} |`
}

/** How near the closed forms heat comes, how long it takes, and what the plans of an edge of 1 m are like. */
export function heatBench(): string {
  const [point, sweep] = [pointErrors(), sweepErrors()]
  const steel = sweepHeat(EDGE)
  const { gun, room, back, stored } = steel.energy
  const minute = () =>
    pointHeat({
      startC: 18,
      layers: [FILM, STEEL],
      phases: [{ seconds: 60, front: air(350, 100) }],
      back: air(18, 5),
      radiation: { emissivity: 0.9, surroundC: 20 },
      timesS: [],
      depthsM: [0],
      thresholdsC: [90],
    })
  minute()
  const rows = (Object.keys(WALLS) as (keyof typeof WALLS)[]).flatMap((wall) =>
    (Object.keys(FILMS) as (keyof typeof FILMS)[]).map((film) => planRow(wall, film)),
  )
  const off = (list: readonly number[]) =>
    `${list.length} values: at most ${Math.max(...list).toFixed(3)} °C off, median ${median(list).toFixed(4)}`
  const closes = (100 * Math.abs((gun + room + back) / stored - 1)).toFixed(4)
  const takes = (times: number, work: () => void) => `${timed(times, work).toFixed(0)} ms`
  return `## Heat

Against closed forms, at a point (semi-infinite solid in air), ${off(point)};
under a moving spot on an insulated plate, ${off(sweep)}. Energy of a sweep of 1 m closes within ${closes} %.
A minute at a point takes ${takes(9, minute)}, a sweep of an edge of 1 m on steel ${takes(3, () => void sweepHeat(EDGE))}.

Plans for an edge of 1 m (the first one pays for the compiler):

| wall | film | hold, pace | in the band | peaks | takes at the car | found in |
| --- | --- | --- | --- | --- | --- | --- |
${rows.join('\n')}
`
}
