import { describe, expect, it } from 'vitest'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { reckon } from '@/core/reckon/reckon'
import { rollMarks } from '@/web/charts/roll-marks'
import { chooseFilm } from '@/web/film/choose'
import { figureName } from '@/web/words/figure-names'
import { placeOf } from '@/web/words/places'
import { stretchBand } from '@/web/pieces/bands'
import { addPanel, removePanel, setSize } from '@/web/tape/edit-panel'
import { film, handCar, withPanel } from '../fixtures/plans'

describe('the roll’s drawing', () => {
  const layout = reckon(handCar(), EMPTY_CATALOGUE, []).layouts[0]
  const roll = layout?.rolls[0]
  if (!layout || !roll) throw new Error('no layout')
  const m = rollMarks(layout, roll, 0.2)
  it('is true to scale both ways', () => {
    expect(m.height).toBeCloseTo(1520 * 0.2, 9)
    const bonnet = m.pieces.find((p) => p.id === 'bonnet')
    expect([bonnet?.width, bonnet?.height].map((v) => Math.round((v ?? 0) / 0.2))).toEqual([1020, 1480])
    expect(m.pieces.reduce((s, p) => s + p.width * p.height, 0) / 0.04).toBeCloseTo(
      1480 * 1020 + 1150 * 780 + 880 * 740,
      3,
    )
  })
  it('has the liner’s 100 mm grid and the cuts in order', () => {
    expect((m.grid.x[1] ?? 0) - (m.grid.x[0] ?? 0)).toBeCloseTo(20, 9)
    const across = m.cuts.filter((c) => c.stage === 1)
    expect(m.cuts.map((c) => c.number)).toEqual(m.cuts.map((_, i) => i + 1))
    expect([...across].sort((a, b) => a.x1 - b.x1)).toEqual(across)
    expect((across.at(-1)?.x1 ?? 0) / 0.2).toBeCloseTo(2170, 6)
  })
  it('points each arrow where the panel’s top lies', () => {
    // The bonnet lies as it stands: its front edge along the roll. The door is turned by 90°, so its top points along
    // it too, towards the end.
    const arrows = Object.fromEntries(m.pieces.map((p) => [p.id, p.arrow]))
    const turned = Object.fromEntries(roll.placements.map((p) => [p.pieceId, p.turnDeg]))
    expect(arrows.bonnet).toBe(turned.bonnet === 0 ? 'right' : 'up')
    expect(arrows.door).toBe(turned.door === 0 ? 'up' : 'left')
  })
})

it('stretch falls into five ordered bands of the film’s own limits', () => {
  const f = film('fen-satin')
  expect([0, 0.02, 0.06, 0.12, 0.16].map((v) => stretchBand(v, f).step)).toEqual([1, 2, 3, 4, 5])
})

describe('the measuring sheet’s edits', () => {
  it('a taped size is no longer assumed; edges that were as long grow with it, others stay', () => {
    const plan = addPanel(handCar(), 'Rear door left')
    const panel = plan.panels.at(-1)
    if (!panel) throw new Error('no panel')
    expect(panel).toMatchObject({ id: 'rear-door-left', kind: 'door', side: 'left', assumed: ['widthMm', 'heightMm'] })
    const cut = { ...panel, edges: panel.edges.map((e) => (e.at === 'bottom' ? { ...e, lengthMm: 900 } : e)) }
    const sized = setSize(cut, 'widthMm', 1200)
    expect(sized.assumed).toEqual(['heightMm'])
    expect(Object.fromEntries(sized.edges.map((e) => [e.at, e.lengthMm]))).toEqual({
      top: 1200,
      right: 600,
      bottom: 900,
      left: 600,
    })
  })
  it('the same name twice gets an id of its own', () =>
    expect(addPanel(addPanel(handCar(), 'Roof'), 'Roof').panels.map((p) => p.id)).toEqual([
      'bonnet',
      'door',
      'wing',
      'roof',
      'roof-2',
    ]))
  it('a panel taken out leaves no thread behind', () => {
    const plan = withPanel(
      {
        ...handCar(),
        pieces: [
          {
            panelId: 'wing',
            parts: 2,
            along: 'width',
            preStretch: 0,
            bleedMm: null,
            seamsAtMm: [],
            slits: [],
            flat: null,
          },
        ],
        walkaround: {
          ...handCar().walkaround,
          damage: [
            {
              id: 'd',
              panelId: 'wing',
              kind: 'chip',
              note: '',
              sizeMm: null,
              xMm: null,
              yMm: null,
              photoIds: [],
              waived: null,
            },
          ],
        },
      },
      'door',
      (p) => ({ edges: p.edges.map((e) => ({ ...e, neighbour: 'wing' })) }),
    )
    const out = removePanel(plan, 'wing')
    expect(JSON.stringify(out)).not.toContain('"wing"')
    expect(out.walkaround.damage).toHaveLength(1)
  })
})

it('a chosen film’s sheet joins the plan, and the one nobody uses leaves it', () => {
  const plan = chooseFilm(handCar(), film('dusk-shift'))
  expect([plan.film.mainId, plan.film.sheets.map((s) => s.id)]).toEqual(['dusk-shift', ['dusk-shift']])
  const two = chooseFilm(
    withPanel(handCar(), 'door', () => ({ filmId: 'fen-satin' })),
    film('dusk-shift'),
  )
  expect(two.film.sheets.map((s) => s.id)).toEqual(['fen-satin', 'dusk-shift'])
})

it('every figure of a job has a name, and every input a place', () => {
  const plan = handCar()
  for (const f of reckon(plan, EMPTY_CATALOGUE, []).figures.values()) {
    expect(figureName(f.id, plan), f.id).not.toMatch(/undefined|\//)
    for (const i of f.inputs)
      if (!i.at.startsWith('figure:')) expect(placeOf(i.at, plan, 'job').label.length, i.at).toBeGreaterThan(2)
  }
  expect(placeOf('film/fen-satin/stretchLimit', plan, 'job')).toEqual({
    label: 'Fen satin green, stretch limit',
    href: '/jobs/job/film',
  })
  expect(placeOf('data/contrast', plan, 'job').href).toBeNull()
})
