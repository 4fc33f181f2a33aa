import { spawnSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { expect, it } from 'vitest'

const bin = fileURLToPath(new URL('../../cli/bin/cuirass.mjs', import.meta.url))
const run = (command: string, input: object) =>
  spawnSync(process.execPath, [bin, command, '-'], { input: JSON.stringify(input), encoding: 'utf8' })
const LAYERS = [{ thickness_mm: 0.8, k_w_mk: 50, rho_kg_m3: 7850, cp_j_kgk: 470 }]

it('heat: a lumped sheet warms as Newton has it, and its energies add up', () => {
  const r = run('heat', {
    format: 'cuirass/heat@1',
    kind: 'point',
    start_c: 20,
    layers: LAYERS,
    phases: [{ seconds: 30, air_c: 120, h_w_m2k: 50 }],
    times_s: [30],
    thresholds_c: [60],
  })
  expect(r.status).toBe(0)
  const out = JSON.parse(r.stdout) as {
    format: string
    temps_c: number[][]
    energy_j_m2: { front: number; back: number; stored: number }
  }
  expect(out.format).toBe('cuirass/heat-result@1')
  const lumped = 120 - 100 * Math.exp((-50 * 30) / (7850 * 470 * 0.0008))
  expect(out.temps_c[0]?.[0]).toBeCloseTo(lumped, 1)
  expect(out.energy_j_m2.front + out.energy_j_m2.back).toBeCloseTo(out.energy_j_m2.stored, 0)
})

it('schedule: a plan by the contract, with its bound', () => {
  const r = run('schedule', {
    format: 'cuirass/schedule@1',
    crew: 1,
    start: '2031-03-03T08:00',
    tasks: [
      { id: 'a', minutes: 30 },
      { id: 'b', minutes: 20, after: [{ id: 'a', min_wait_minutes: 10 }] },
    ],
  })
  expect(r.status).toBe(0)
  expect(JSON.parse(r.stdout)).toEqual({
    format: 'cuirass/schedule-plan@1',
    start: '2031-03-03T08:00',
    finish: '2031-03-03T09:00',
    lower_bound: '2031-03-03T09:00',
    optimal: true,
    tasks: [
      { id: 'a', start: '2031-03-03T08:00', finish: '2031-03-03T08:30' },
      { id: 'b', start: '2031-03-03T08:40', finish: '2031-03-03T09:00' },
    ],
    critical: ['a', 'b'],
  })
})

it('sound input without an answer: exit 3, its own code, one line, and the tasks at fault', () => {
  const r = run('schedule', {
    format: 'cuirass/schedule@1',
    crew: 1,
    start: '2031-03-03T08:00',
    tasks: [{ id: 'roof', minutes: 30, crew: 2 }],
  })
  expect(r.status).toBe(3)
  expect(JSON.parse(r.stdout)).toMatchObject({ format: 'cuirass/error@1', code: 'crew_too_small', tasks: ['roof'] })
  expect(r.stderr.trim().split('\n')).toHaveLength(1)
  const plan = run('heat-plan', {
    format: 'cuirass/heat-plan@1',
    start_c: 20,
    layers: LAYERS,
    edge: { length_mm: 500, panel_width_mm: 200, y_mm: 100 },
    room: { air_c: 20, h_w_m2k: 10 },
    guns: [{ id: 'g', air_c: 60, h_w_m2k: 100, footprint: { shape: 'gaussian', sigma_mm: 30 } }],
    band_c: { min: 90, max: 100 },
    limit_c: 110,
    speed_mm_s: { min: 2, max: 60 },
  })
  expect(plan.status).toBe(3)
  expect(JSON.parse(plan.stdout)).toMatchObject({ code: 'cannot_reach' })
})
