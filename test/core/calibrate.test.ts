import { describe, expect, it } from 'vitest'
import { calibrateGun, trialTemp, TrialReading } from '@/core/engines/heat/calibrate-gun'

const trial = (paceMmS: number, material: 'steel' | 'plastic' = 'steel') => ({
  material,
  thicknessMm: null,
  paceMmS,
  afterS: 4,
})
const gun = { airC: 315, coefficient: 128, sigmaMm: 30 }
const read = (t: ReturnType<typeof trial>, off = 0) => ({ ...t, tempC: trialTemp(t, gun) + off })

describe('a gun measured by trial sweeps', () => {
  it('a slower pace reads hotter, and plastic hotter than steel at the same pace', () => {
    expect(trialTemp(trial(6), gun)).toBeGreaterThan(trialTemp(trial(12), gun))
    expect(trialTemp(trial(12, 'plastic'), gun)).toBeGreaterThan(trialTemp(trial(12), gun))
  })
  it('gives back what the readings were made with, from a display that says something else', () => {
    const readings = [read(trial(6)), read(trial(12)), read(trial(25, 'plastic'))]
    const out = calibrateGun(350, 30, readings)
    if (!out.ok) throw new Error(out.error.code)
    expect(out.value.residualC).toBeLessThan(1.5)
    // Air and heat transfer trade off in a sweep: their product, which heats, is what readings tell.
    const strength = (airC: number, h: number) => (airC - 20) * h
    expect(strength(out.value.airC, out.value.coefficient) / strength(gun.airC, gun.coefficient)).toBeCloseTo(1, 1)
    readings.forEach((r, i) => expect(Math.abs((out.value.predictedC[i] ?? 0) - r.tempC)).toBeLessThan(3))
  })
  it('readings with a thermometer’s noise still predict a pace that was not tried within 4 K', () => {
    const out = calibrateGun(350, 30, [read(trial(6), 1.5), read(trial(14), -1.5)])
    if (!out.ok) throw new Error(out.error.code)
    const fitted = { airC: out.value.airC, coefficient: out.value.coefficient, sigmaMm: 30 }
    expect(Math.abs(trialTemp(trial(9), fitted) - trialTemp(trial(9), gun))).toBeLessThan(4)
  })
  it('one reading is too few; readings that contradict each other are said not to fit', () => {
    expect(calibrateGun(350, 30, [read(trial(6))])).toMatchObject({ ok: false, error: { code: 'too_few_readings' } })
    const wild = calibrateGun(350, 30, [
      { ...read(trial(6)), tempC: 40 },
      { ...read(trial(20)), tempC: 150 },
    ])
    expect(wild).toMatchObject({ ok: false, error: { code: 'does_not_fit' } })
  })
  it('a pace of nothing and a reading of 900 °C are refused by name', () => {
    for (const [field, value] of [
      ['paceMmS', 0],
      ['tempC', 900],
      ['thicknessMm', 0],
      ['afterS', -1],
    ] as const)
      expect(TrialReading.safeParse({ ...read(trial(6)), [field]: value }).error?.issues[0]?.path).toEqual([field])
  })
})
