import { describe, expect, it } from 'vitest'
import { paceSeconds, solvedPace } from '@/core/engines/heat/pace'
import { solvedHeat } from '@/core/engines/heat/edge-heat'
import { heatPicture, type PictureAsk } from '@/core/engines/heat/heat-picture'
import { panelHeat } from '@/core/engines/heat/panel-heat'
import { OTHER_SOURCES } from '@/core/model/heat/heat-data'
import { heatLimits, heatMapMarks } from '@/web/charts/heat-map-marks'

const film = { thicknessUm: 100, postHeatC: { min: 90, max: 100 }, heatLimitC: 110 }
/** A gun that shows 350 °C, 105 W/m²K over a footprint of 30 mm. */
const gun = { airC: 350, coefficient: 105, flux: 0, sigmaMm: 30 }
/** Held 4.7 s, then 9.4 mm/s (25 mm in 2.7 s): brings 0.8 mm steel to 91-98 °C. Common practice, no source. */
const held = { beforeMm: 0, pastMm: 20, paceMmS: 9.4, passes: 1, holdS: 4.7, gapS: 0 }
const ask = (over: Partial<PictureAsk> = {}): PictureAsk => ({
  surface: { material: 'steel', thicknessMm: 0.8 },
  film,
  films: 1,
  startC: 20,
  source: gun,
  sweep: held,
  lengthMm: 500,
  ...over,
})
const middle = (p: ReturnType<typeof heatPicture>, row = 0) =>
  p.grid.peakC[row * p.grid.xMm.length + Math.floor(p.grid.xMm.length / 2)] ?? NaN

describe('what a pass does to the panel', () => {
  const steel = heatPicture(ask())

  it('25 mm in 2.7 s after a hold brings film on sheet steel to 91 to 98 °C', () => {
    expect(steel.peakC.min).toBeGreaterThan(87)
    expect(steel.peakC.max).toBeLessThan(101)
    expect(middle(steel)).toBeGreaterThan(89)
    expect(middle(steel)).toBeLessThan(95)
  }, 60_000)

  it('it is the plan’s own edge: the plan for that gun, drawn, lies where the plan says', () => {
    const guns = [{ id: 'g', name: 'Gun', displayC: 350, airC: 350, coefficient: 105, sigmaMm: 30 }]
    const plan = solvedHeat({ panel: { surface: ask().surface }, film, guns })
    if (plan?.kind !== 'plan') throw new Error(plan?.code)
    const drawn = heatPicture(ask({ sweep: plan, lengthMm: 1000 }))
    expect(Math.abs(drawn.peakC.max - plan.peakC.max)).toBeLessThan(1)
    expect(Math.abs(drawn.peakC.min - plan.peakC.min)).toBeLessThan(2)
    expect(drawn.seconds).toBeCloseTo(paceSeconds(solvedPace(plan, 1000)), 6)
  }, 60_000)

  it('away from the gun’s line it only gets cooler, and the curve rises and falls once', () => {
    const byRow = steel.grid.yMm.map((_, r) => middle(steel, r))
    byRow.slice(1).forEach((c, r) => expect(c).toBeLessThan(byRow[r] ?? -Infinity))
    const { filmC, tS } = steel.curve
    const top = filmC.indexOf(Math.max(...filmC))
    expect(top).toBeGreaterThan(3)
    expect(filmC.slice(0, top).every((c, i) => i === 0 || c >= (filmC[i - 1] ?? 0) - 0.2)).toBe(true)
    expect(filmC.slice(top).every((c, i) => i === 0 || c <= (filmC[top + i - 1] ?? 0) + 0.2)).toBe(true)
    expect(tS.every((t, i) => i === 0 || t > (tS[i - 1] ?? Infinity))).toBe(true)
    expect(steel.coolS.lift ?? Infinity).toBeGreaterThan(steel.coolS.touch ?? Infinity)
  })

  it('at steel’s pace plastic gets far hotter; a cold car stays cooler by what it lacks; a lap is a little hotter outside', () => {
    const at = (over: Partial<PictureAsk>) => middle(heatPicture(ask(over)))
    expect(at({ surface: { material: 'plastic', thicknessMm: 3 } })).toBeGreaterThan(middle(steel) + 25)
    // The equation is linear in all temperatures but the gun’s: 15 K colder at the start is at most 15 K less at the peak.
    const cold = at({ startC: 5 })
    expect(middle(steel) - cold).toBeGreaterThan(4)
    expect(middle(steel) - cold).toBeLessThan(15)
    expect(at({ films: 2 })).toBeGreaterThan(middle(steel))
  }, 120_000)

  it('steam never gets over its own 100 °C; a heater goes on as long as it shines', () => {
    const steam = heatPicture(ask({ source: OTHER_SOURCES.steamer, sweep: { ...held, paceMmS: 2, holdS: 20 } }))
    expect(steam.peakC.max).toBeLessThan(100)
    const heater = (holdS: number) =>
      heatPicture(ask({ source: OTHER_SOURCES.infra_red, sweep: { ...held, holdS } })).peakC.max
    expect(heater(12)).toBeGreaterThan(heater(4) + 5)
  }, 120_000)

  it('half the pace is hotter, and takes longer; an edge longer than what is looked at goes on at the pace', () => {
    const slow = heatPicture(ask({ sweep: { ...held, paceMmS: 4.7 } }))
    expect(middle(slow)).toBeGreaterThan(middle(steel) + 10)
    expect(heatPicture(ask({ lengthMm: 1600 })).seconds - heatPicture(ask({ lengthMm: 600 })).seconds).toBeCloseTo(
      1000 / 9.4,
      6,
    )
  }, 120_000)

  it('the map’s bands lie one within the other, under the limits in their order', () => {
    const limits = heatLimits(40, film)
    expect(limits).toEqual([40, 90, 100, 110])
    const marks = heatMapMarks(steel, limits, 520)
    expect(marks.bands.map((b) => b.limitC)).toEqual(limits)
    expect(marks.bands[0]?.d.length).toBeGreaterThan(20)
    // Nothing of it got past the film’s limit.
    expect(marks.bands[3]?.d).toBe('')
    expect(marks.lineY).toBeCloseTo(marks.height / 2, 6)
  })
})

describe('a whole panel after its passes', () => {
  const square = [
    { x: 0, y: 0 },
    { x: 800, y: 0 },
    { x: 800, y: 400 },
    { x: 0, y: 400 },
  ]
  const profile = { distanceMm: [0, 50, 100], peakC: [95, 55, 22] }
  const at = (h: ReturnType<typeof panelHeat>, x: number, y: number) =>
    h.peakC[Math.floor((y / 400) * h.rows) * h.columns + Math.floor((x / 800) * h.columns)] ?? NaN

  it('is hot along the heated edges and as it was in its middle; straight between what was solved', () => {
    const heat = panelHeat(
      square,
      [
        [
          { x: 0, y: 0 },
          { x: 800, y: 0 },
        ],
      ],
      profile,
      20,
    )
    expect(at(heat, 400, 3)).toBeGreaterThan(85)
    expect(at(heat, 400, 200)).toBe(20)
    expect(at(heat, 400, 398)).toBe(20)
    const mid = at(heat, 400, 57)
    expect(mid).toBeGreaterThan(46)
    expect(mid).toBeLessThan(60)
  })

  it('two edges that meet are as hot as the nearer one makes it; none heated leaves it as it was', () => {
    const top = [
      { x: 0, y: 0 },
      { x: 800, y: 0 },
    ]
    const left = [
      { x: 0, y: 0 },
      { x: 0, y: 400 },
    ]
    const both = panelHeat(square, [top, left], profile, 20)
    const one = panelHeat(square, [left], profile, 20)
    expect(both.peakC.every((c, i) => c >= (one.peakC[i] ?? 0))).toBe(true)
    expect(panelHeat(square, [], profile, 20).peakC.every((c) => c === 20)).toBe(true)
  })
})
