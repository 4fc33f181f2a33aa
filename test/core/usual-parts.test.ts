import { describe, expect, it } from 'vitest'
import { newPlan } from '@/core/model/plan/new-plan'
import { usualParts } from '@/core/model/plan/piece-choice'
import { applyChange } from '@/core/model/plan/plan-change'
import { Plan } from '@/core/model/plan/schema'
import { guessPanel } from '@/core/model/vehicle/name-guess'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { familyPanels, usualKeys } from '@/core/model/vehicle/families'
import type { Panel } from '@/core/model/vehicle/schema'
import { reckon } from '@/core/reckon/reckon'
import { variantsOf } from '@/core/engines/stretch/variants'
import { skinOf } from '@/core/engines/skin/skin'
import { catalogue, choiceOf, film } from '../fixtures/plans'

const [CHROME, CAST] = [film('mere-mirror'), film('fen-satin')]
const HATCH = familyPanels('city_car', usualKeys('city_car'))
const ROOF = HATCH.find((p) => p.kind === 'roof') as Panel
const HANDLE = HATCH.find((p) => p.kind === 'handle') as Panel
const BARE = newPanel({
  id: 'aerial',
  name: 'Roof aerial',
  kind: 'aerial',
  side: 'centre',
  widthMm: 150,
  heightMm: 170,
})
const AERIAL: Panel = { ...BARE, edges: BARE.edges.map((e, i) => (i === 0 ? { ...e, neighbour: ROOF.id } : e)) }

const planOf = (panels: Panel[], sheet: typeof CHROME): Plan =>
  Plan.parse({
    ...newPlan('Accents', 'A-1', { name: 'Small car', kind: 'city_car', colour: { name: 'Grey', hex: '#777777' } }),
    film: { mainId: sheet.id, sheets: [CHROME, CAST] },
    panels: panels.map((p) => ({ ...p, filmId: null })),
  })
const piecesOf = (plan: Plan, panelId: string) =>
  reckon(plan, catalogue, []).pieces.filter((p) => p.panelId === panelId)

describe('parts that hands lay (common practice: chrome handles in two or three, a roof aerial in two)', () => {
  it('a chrome handle is cut in two, a long one in three, each along it; in a cast film in one', () => {
    expect(usualParts({ kind: 'handle', widthMm: 220, heightMm: 42 }, CHROME)).toEqual({ parts: 2, along: 'width' })
    expect(usualParts({ kind: 'handle', widthMm: 42, heightMm: 300 }, CHROME)).toEqual({ parts: 3, along: 'height' })
    expect(usualParts({ kind: 'handle', widthMm: 300, heightMm: 42 }, CAST).parts).toBe(1)
    expect(usualParts({ kind: 'handle', widthMm: 300, heightMm: 42 }, undefined).parts).toBe(1)
    expect(usualParts({ kind: 'mirror', widthMm: 250, heightMm: 200 }, CHROME).parts).toBe(1)
  })
  it('the halves of a chrome handle reach over their seam by a hand, and the later one by the lap too', () => {
    const plan = planOf([HANDLE], CHROME)
    const [front, rear] = piecesOf(plan, HANDLE.id)
    const whole = piecesOf(planOf([HANDLE], CAST), HANDLE.id)
    expect(whole).toHaveLength(1)
    expect(piecesOf(plan, HANDLE.id)).toHaveLength(2)
    // Half of the handle, its bleed at the outer end, 45 mm of grip at the seam; one of the two also the film's lap.
    const half = HANDLE.widthMm / 2 + plan.method.bleedMm + 45
    const widths = [front?.cutWidthMm ?? 0, rear?.cutWidthMm ?? 0].sort((a, b) => a - b)
    expect(widths[0]).toBeCloseTo(half, 6)
    expect(widths[1]).toBeCloseTo(half + CHROME.longLapMm, 6)
    expect(rear?.seamMm).toBe(HANDLE.heightMm)
  })
  it('its parts are laid, taped and heated as parts: a step and a seam for each', () => {
    const { steps, edges } = reckon(planOf([HANDLE], CHROME), catalogue, [])
    const laid = steps.filter((s) => s.id.startsWith('lay:')).map((s) => s.id)
    expect(laid.sort()).toEqual([`lay:${HANDLE.id}.1`, `lay:${HANDLE.id}.2`])
    const seams = edges.tapes.filter((t) => t.edgeId === null && t.kind === 'wire')
    expect(seams.map((t) => t.pieceId)).toEqual([`${HANDLE.id}.2`])
    expect(seams[0]?.lengthMm).toBeGreaterThan(HANDLE.heightMm)
  })
  it('films that take it in other parts are compared by maps of their own', () => {
    const films = [CHROME, CAST]
    const marks = (panel: Panel) =>
      films.map(
        (f) =>
          new Set(
            variantsOf(planOf([panel], CHROME), panel, films).flatMap((v) => (v.film.id === f.id ? [v.map] : [])),
          ),
      )
    const [chrome, cast] = marks({ ...HANDLE, filmId: null })
    expect([...(chrome ?? [])].some((m) => cast?.has(m))).toBe(false)
    const [roofChrome, roofCast] = marks({ ...ROOF, filmId: null })
    expect([...(roofChrome ?? [])].some((m) => roofCast?.has(m))).toBe(true)
  })
  it('who chooses one piece is told, with the usual parts as a way out, and nothing is told once it is taken', () => {
    const plan = applyChange(planOf([HANDLE], CHROME), { kind: 'piece', panelId: HANDLE.id, set: { parts: 1 } })
    expect(piecesOf(plan, HANDLE.id)).toHaveLength(1)
    const told = reckon(plan, catalogue, []).findings.find((f) => f.code === 'fewer_parts_than_usual')
    expect(told?.facts).toMatchObject({ parts: 1, usual: 2 })
    const way = told?.waysOut[0]
    if (!way) throw new Error('no way out')
    const taken = applyChange(plan, way.change)
    expect(reckon(taken, catalogue, []).findings.some((f) => f.code === 'fewer_parts_than_usual')).toBe(false)
    expect(piecesOf(taken, HANDLE.id)).toHaveLength(2)
  })
  it('another choice for a panel leaves its usual parts as they are', () => {
    const plan = applyChange(planOf([HANDLE], CHROME), { kind: 'piece', panelId: HANDLE.id, set: { bleedMm: 30 } })
    expect(choiceOf(plan, HANDLE.id)).toMatchObject({ parts: 2, along: 'width', bleedMm: 30 })
  })
  it('a choice for a panel that is not there changes nothing', () => {
    const plan = planOf([HANDLE], CHROME)
    expect(applyChange(plan, { kind: 'piece', panelId: 'gone', set: { parts: 3 } })).toBe(plan)
  })
  it('a roof aerial lies in two halves with the seam on its ridge, whatever the film', () => {
    for (const sheet of [CHROME, CAST]) {
      const pieces = piecesOf(planOf([ROOF, AERIAL], sheet), 'aerial')
      expect(pieces).toHaveLength(2)
      expect(pieces.every((p) => p.along === 'width')).toBe(true)
      expect(pieces[1]?.seamMm).toBe(AERIAL.heightMm)
    }
  })
  it('an aerial is known by its name and drawn on its roof, at the rear', () => {
    expect(guessPanel('Roof aerial').kind).toBe('aerial')
    expect(guessPanel('Antenna').kind).toBe('aerial')
    const skin = skinOf([ROOF, AERIAL])
    const [roof, aerial] = [skin.panels[0], skin.panels[1]]
    if (!roof || !aerial) throw new Error('not drawn')
    expect(aerial.on).toBe(ROOF.id)
    expect(aerial.box.left).toBeGreaterThan((roof.box.left + roof.box.right) / 2)
    expect(aerial.box.right).toBeLessThanOrEqual(roof.box.right + 1)
  })
})
