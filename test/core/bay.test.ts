import { describe, expect, it } from 'vitest'
import { checkPlaces } from '@/core/engines/heat/check-places'
import { defectsOf } from '@/core/engines/heat/defects'
import { paceAt, paceSeconds, usualPace, type Pace } from '@/core/engines/heat/pace'
import { suspicionOf } from '@/core/engines/heat/suspicion'
import { beganBy, cardsOf, currentCard, nextPart, whoIsAt } from '@/core/engines/run-sheet/cards'
import { guardsAfter, guardsBefore } from '@/core/engines/run-sheet/guards'
import { layingCard } from '@/core/engines/run-sheet/laying-card'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { polygonAreaMm2 } from '@/core/kit/plane'
import { cutPieces } from '@/core/model/log/cut-pieces'
import { DEFECT_KINDS } from '@/core/model/log/kinds'
import type { LogPayload, LogRow } from '@/core/model/log/schema'
import { troubleOf } from '@/core/model/log/trouble-data'
import { readingTable } from '@/core/stages/bay/reading-table'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_FILMS } from '@/db/demo/films'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { FIRST, NOT } from '@/web/words/trouble'
import { catalogue, row } from '../fixtures/plans'

const hatch = Plan.parse(DEMO_JOBS[0]?.make())
const of = (ledger: LogRow[] = [], plan = hatch) => reckon(plan, catalogue, ledger)
const done = (stepId: string, at = '2026-11-24T10:00:00.000Z') => row({ kind: 'step_done', stepId }, at)
const film = (id: string) => DEMO_FILMS.find((f) => f.id === id) ?? DEMO_FILMS[0]!
const at = (text: string) => Date.parse(text)

describe('cards', () => {
  it('one panel is one card with its parts in order; all else is a card of its own; no step is lost', () => {
    const steps = plannedSteps(of().steps)
    const cards = cardsOf(steps)
    expect(cards.flatMap((c) => c.parts.map((s) => s.id)).sort()).toEqual(steps.map((s) => s.id).sort())
    expect(cards.find((c) => c.id === 'bonnet')?.parts.map((s) => s.code)).toEqual([
      'degrease_panel',
      'lay',
      'trim',
      'post_heat',
    ])
    expect(cards.length).toBeLessThan(steps.length / 2)
  })
  it('what was begun last comes first; the next part is the one that is not done', () => {
    const begun = (stepId: string, when: string) => row({ kind: 'step_started', stepId }, when)
    const ledger = [
      begun('lay:roof', '2026-11-24T10:00:00.000Z'),
      begun('degrease:bonnet', '2026-11-24T11:00:00.000Z'),
      done('degrease:bonnet'),
    ]
    const current = currentCard(cardsOf(plannedSteps(of(ledger).steps)))
    expect(current?.id).toBe('bonnet')
    expect(current && nextPart(current)?.id).toBe('lay:bonnet')
    expect(currentCard(cardsOf(plannedSteps(of().steps)))?.id).toBe('wash')
  })
})

describe('several people on one job', () => {
  const began = (stepId: string, when: string, by: string): LogRow => ({
    ...row({ kind: 'step_started', stepId }, when),
    by,
  })
  const cardFor = (me: string, ledger: LogRow[]) =>
    currentCard(cardsOf(plannedSteps(of(ledger).steps)), { me, beganBy: beganBy(ledger) })
  it('each sees what is their own first, then what nobody is at, and what others are at last', () => {
    const ledger = [
      began('lay:roof', '2026-11-24T10:00:00.000Z', 'Imre'),
      began('lay:bonnet', '2026-11-24T11:00:00.000Z', 'Tamsin'),
    ]
    expect(cardFor('Imre', ledger)?.id).toBe('roof')
    expect(cardFor('Tamsin', ledger)?.id).toBe('bonnet')
    expect(cardFor('Jory', ledger)?.id).toBe('wash')
    // Nothing left that is free: what others are at is better than an empty screen.
    const steps = plannedSteps(of(ledger).steps)
    const rest = steps.filter((s) => !['roof', 'bonnet'].includes(s.panelId ?? '')).map((s) => done(s.id))
    expect(['roof', 'bonnet']).toContain(cardFor('Jory', [...rest, ...ledger])?.id)
  })
  it('what was taken over is whose who began last', () => {
    const ledger = [
      began('degrease:bonnet', '2026-11-24T10:00:00.000Z', 'Imre'),
      done('degrease:bonnet'),
      began('lay:bonnet', '2026-11-24T11:00:00.000Z', 'Tamsin'),
    ]
    const card = cardsOf(plannedSteps(of(ledger).steps)).find((c) => c.id === 'bonnet')
    expect(card && whoIsAt(card, { me: '', beganBy: beganBy(ledger) })).toBe('Tamsin')
  })
})

describe('guards', () => {
  const context = (ledger: LogRow[], now: string) => {
    const r = of(ledger)
    const due = r.recheckDueAt
    return {
      steps: r.steps,
      points: r.points,
      openDefects: 0,
      recheckDueMs: due ? at(`${due}Z`) : null,
      nowMs: at(now),
    }
  }
  const step = (ledger: LogRow[], id: string) => of(ledger).steps.find((s) => s.id === id)!
  it('a wait that still runs is said with what is left of it', () => {
    const ledger = [done('bring_in')]
    const c = context(ledger, '2026-11-24T12:00:00Z')
    expect(guardsBefore(step(ledger, 'hardware_off'), c)).toEqual([
      { guard: 'inside_wait', stepId: 'hardware_off', count: 600 },
    ])
    expect(guardsBefore(step(ledger, 'hardware_off'), { ...c, nowMs: at('2026-11-24T22:00:00Z') })).toEqual([])
  })
  it('a panel whose places were not read, and a car with anything open, are asked about', () => {
    const c = context([], '2026-11-24T12:00:00Z')
    const open = c.points.filter((p) => p.panelId === 'bonnet').length
    expect(guardsAfter(step([], 'post_heat:bonnet'), c)).toEqual([
      { guard: 'points_open', stepId: 'post_heat:bonnet', count: open },
    ])
    expect(guardsAfter(step([], 'hand_over'), c).map((g) => g.guard)).toEqual(['steps_open', 'points_open'])
    const all = c.steps.map((s) => ({ ...s, state: 'done' as const }))
    const read = c.points.map((p) => ({ ...p, state: 'done' as const }))
    expect(guardsAfter(step([], 'hand_over'), { ...c, steps: all, points: read })).toEqual([])
    expect(guardsAfter(step([], 'hand_over'), { ...c, steps: all, points: read, openDefects: 1 })).toHaveLength(1)
  })
  it('a recheck before its day is early by so much', () => {
    const ledger = [done('rest', '2026-11-24T16:00:00.000Z')]
    const c = context(ledger, '2026-11-25T08:00:00Z')
    expect(guardsBefore(step(ledger, 'recheck'), c)).toEqual([
      { guard: 'early_recheck', stepId: 'recheck', count: 480 },
    ])
  })
})

describe('the pacer', () => {
  const pace: Pace = { lengthMm: 900, holdS: 5, mmS: 10, passes: 2, gapS: 14, beforeMm: 20, pastMm: 40, solved: true }
  it('holds, runs past the end, waits with the gun away, comes back the other way, and is away', () => {
    // One pass: 5 s, then (20 + 900 + 40) mm at 10 mm/s.
    expect(paceSeconds(pace)).toBe(2 * (5 + 96) + 14)
    expect(paceAt(pace, 2)).toMatchObject({ phase: 'hold', pass: 1, along: -20 / 900 })
    expect(paceAt(pace, 5 + 47)).toMatchObject({ phase: 'move', along: 450 / 900 })
    expect(paceAt(pace, 101 + 4)).toEqual({ phase: 'gap', pass: 1, leftS: 10 })
    expect(paceAt(pace, 115 + 5 + 10)).toMatchObject({ phase: 'move', pass: 2, along: (940 - 100) / 900 })
    expect(paceAt(pace, paceSeconds(pace))).toEqual({ phase: 'away' })
  })
  it('plastic gets as hot at about twice to two and a half times the pace of steel', () => {
    const mmS = (material: 'steel' | 'plastic') => usualPace({ surface: { material, thicknessMm: null } }, 1000).mmS
    expect(mmS('plastic') / mmS('steel')).toBeGreaterThanOrEqual(2)
    expect(mmS('plastic') / mmS('steel')).toBeLessThanOrEqual(2.5)
  })
})

describe('readings that are asked about', () => {
  const sound = { tempC: 92, gunAway: true, secondsAway: 6, before: null, film: film('fen-satin'), dulled: false }
  it.each([
    ['a sound one', {}, null],
    ['in the air stream', { gunAway: false }, 'gun_still_there'],
    ['a second after the gun', { secondsAway: 1 }, 'too_soon'],
    ['900 °C', { tempC: 900 }, 'out_of_this_world'],
    ['−40 °C', { tempC: -40 }, 'out_of_this_world'],
    ['a jump of 60 K in two seconds', { before: { tempC: 32, seconds: 2 } }, 'jump'],
    ['the same in ten', { before: { tempC: 32, seconds: 10 } }, null],
    ['a mirror without tape', { film: film('mere-mirror') }, 'mirror_reflects'],
    ['a mirror on tape', { film: film('mere-mirror'), dulled: true }, null],
  ])('%s', (_, over, want) => expect(suspicionOf({ ...sound, ...over })).toBe(want))
})

describe('trouble', () => {
  it('every kind has a first answer in words, by the film’s adhesive where that decides', () => {
    for (const kind of DEFECT_KINDS)
      for (const airRelease of ['channels', 'none'] as const) {
        const { first, not } = troubleOf(kind, { airRelease })
        expect(FIRST[first], kind).toBeTruthy()
        if (not) expect(NOT[not], kind).toBeTruthy()
      }
    expect(troubleOf('bubble', { airRelease: 'channels' }).first).toBe('press_with_finger')
    expect(troubleOf('bubble', { airRelease: 'none' }).first).toBe('prick_at_rim')
    expect(troubleOf('cut_in_paint', undefined)).toMatchObject({ lead: true, not: 'film_over_it' })
  })
  it('a piece that is redone is off the vehicle: cut anew, read anew, and its film is laid out again', () => {
    const { pieces, points } = of()
    const bonnet = pieces.find((p) => p.panelId === 'bonnet')!
    const point = points.find((p) => p.pieceId === bonnet.id)!
    const size = { id: bonnet.id, acrossMm: bonnet.acrossMm, alongMm: bonnet.alongMm }
    const stockId = catalogue.stock.find((s) => s.filmId === 'fen-satin')!.id
    const found = row({ kind: 'defect', panelId: 'bonnet', defect: 'torn', note: '' })
    const before = [
      row({ kind: 'film_used', stockId, lengthMm: 1500, pieces: [size] }),
      row({ kind: 'reading', pieceId: bonnet.id, pointId: point.id, tempC: 90, gunAway: true }),
      found,
    ]
    const redone = row({
      kind: 'defect_closed',
      defectId: found.id,
      how: 'redone',
      outcome: 'redone',
      pieceIds: [bonnet.id],
    })
    expect(cutPieces(before).map((p) => p.id)).toEqual([bonnet.id])
    expect(cutPieces([...before, redone])).toEqual([])
    const state = (ledger: LogRow[]) => of(ledger).points.find((p) => p.id === point.id)?.state
    expect([state(before), state([...before, redone])]).toEqual(['done', 'due'])
    const used = (ledger: LogRow[]) => Number(of(ledger).figures.get('rail/film_used')?.value)
    expect(used([...before, redone])).toBeGreaterThan(used(before))
    expect(defectsOf([...before, redone], points)[0]?.closed).toMatchObject({ outcome: 'redone' })
  })
})

describe('readings as a table', () => {
  it('one row a reading in the ledger’s order, one for each place that was never read, nothing that a sheet would run', () => {
    const { points } = of()
    const [first, second] = points
    if (!first || !second) throw new Error('no points')
    const read = (pointId: string, tempC: number) =>
      row({ kind: 'reading', pieceId: first.pieceId, pointId, tempC, gunAway: tempC > 80 })
    const ledger = [read(second.id, 71), read(first.id, 92), read(second.id, 90)]
    const [head, ...rows] = readingTable(of(ledger).points, ledger, (id) => `=${id}`)
    const at = (name: string) => head?.indexOf(name) ?? -1
    expect(rows.slice(0, 3).map((r) => [r[at('point')], r[at('temp_c')], r[at('gun_away')]])).toEqual([
      [second.id, '71', 'no'],
      [first.id, '92', 'yes'],
      [second.id, '90', 'yes'],
    ])
    expect(rows).toHaveLength(3 + points.length - 2)
    expect(rows.every((r) => r.length === head?.length && !r[at('panel')]?.startsWith('='))).toBe(true)
  })
})

describe('places to look at', () => {
  const places = (ledger: LogRow[], over: Partial<Parameters<typeof checkPlaces>[0]> = {}) => {
    const r = of(ledger)
    return checkPlaces({
      panels: hatch.panels.filter((p) => p.wrap),
      edges: r.edges.edges,
      corners: r.edges.corners,
      points: r.points,
      stretch: r.stretch,
      defects: defectsOf(ledger, r.points),
      seams: [],
      ledger,
      ...over,
    })
  }
  it('this vehicle’s own: recesses, undersides, mirrors, stretched and unread places, what was mended', () => {
    const found = row({ kind: 'defect', panelId: 'roof', defect: 'bubble', note: '' })
    const list = places([found])
    const why = (id: string) => list.find((p) => p.id === id)?.why
    expect(why('roof/mended')).toEqual(['had_defect'])
    expect(why('mirror-left')).toContain('mirror')
    expect(list.some((p) => p.why.includes('underside'))).toBe(true)
    expect(list.some((p) => p.why.includes('not_read'))).toBe(true)
    expect(new Set(list.map((p) => p.id)).size).toBe(list.length)
    const held: LogPayload = {
      kind: 'place_checked',
      round: 'recheck',
      placeId: 'mirror-left',
      panelId: 'mirror-left',
      result: 'pressed',
    }
    expect(places([row(held)]).find((p) => p.id === 'mirror-left')).toMatchObject({
      check: null,
      recheck: { result: 'pressed' },
    })
  })
})

describe('the laying card', () => {
  const card = (panelId: string, plan = hatch) => {
    const r = of([], plan)
    const panel = plan.panels.find((p) => p.id === panelId)!
    return layingCard({
      plan,
      panel,
      film: film(plan.film.mainId ?? ''),
      corners: r.edges.corners,
    })
  }
  it('the hinge parts the panel in halves of equal area, and lies within it', () => {
    for (const panel of hatch.panels.filter((p) => p.wrap && p.kind !== 'wing')) {
      const { hinge, path } = card(panel.id)
      const upright = Math.abs(hinge.from.x - hinge.to.x) < 1e-6
      const axis = upright ? 'x' : 'y'
      const side = path.flatMap((a, i) => {
        const b = path[(i + 1) % path.length]!
        const cut = hinge.from[axis]
        const cross = (a[axis] - cut) * (b[axis] - cut) < 0
        const t = (cut - a[axis]) / (b[axis] - a[axis])
        const hit = { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t }
        return [...(a[axis] <= cut ? [a] : []), ...(cross ? [hit] : [])]
      })
      const share = Math.abs(polygonAreaMm2(side)) / Math.abs(polygonAreaMm2(path))
      expect(share, panel.id).toBeGreaterThan(0.49)
      expect(share, panel.id).toBeLessThan(0.51)
    }
  })
  it('bumpers begin in the middle, handles stand upright, and the flatter line is taken where one is', () => {
    expect(card('front-bumper').hinge.why).toBe('middle')
    const curved = {
      ...hatch,
      panels: hatch.panels.map((p) => (p.id === 'roof' ? { ...p, crownDownMm: 0, crownDownOverMm: 1000 } : p)),
    }
    expect(card('roof', curved).hinge).toMatchObject({ why: 'flattest' })
    expect(card('roof', curved).hinge.from.x).toBeCloseTo(card('roof', curved).hinge.to.x, 6)
    expect(card('bonnet').corners.every((c) => c.method === 'cold_hook')).toBe(true)
    expect(card('bonnet').zones.map((z) => z.number)).toEqual(card('bonnet').zones.map((_, i) => i + 1))
    expect(card('bonnet').never).not.toContain('never_pull')
  })
})
