import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { soundPlan } from '@/core/model/plan/hold-back'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { Plan } from '@/core/model/plan/schema'
import { ownChanges, type RevisionMark } from '@/core/model/plan/undo'
import { film, handCar, withPanel } from '../fixtures/plans'

const places = (typed: Plan, saved = handCar()) => soundPlan(typed, saved).held.map((h) => `${h.place} ${h.fault.code}`)

describe('what of a typed plan may be saved', () => {
  it('all of a sound one', () => {
    const typed = withPanel(handCar(), 'door', () => ({ widthMm: 1111 }))
    expect(soundPlan(typed, handCar())).toEqual({ plan: typed, held: [] })
  })
  it('everything but the figure at fault, which is named by panel and field', () => {
    const typed = withPanel(
      withPanel(handCar(), 'bonnet', () => ({ crownMm: 1010, crownOverMm: 1000, widthMm: 1400 })),
      'wing',
      () => ({ heightMm: 650 }),
    )
    const { plan, held } = soundPlan(typed, handCar())
    expect(held.map((h) => [h.place, h.fault.code])).toEqual([['panels/bonnet/crownMm', 'crown_deeper_than_half']])
    expect(plan.panels).toMatchObject([{ crownMm: 22, widthMm: 1400 }, {}, { heightMm: 650 }])
  })
  it('several faults are held back each by itself', () => {
    const typed = withPanel(
      withPanel(handCar(), 'bonnet', () => ({ widthMm: -3 })),
      'door',
      () => ({ note: 'x'.repeat(3000), heightMm: 700 }),
    )
    expect(places(typed).sort()).toEqual(['panels/bonnet/widthMm too_small', 'panels/door/note too_big'])
    expect(soundPlan(typed, handCar()).plan.panels[1]).toMatchObject({ note: '', heightMm: 700 })
  })
  it('something new with a fault is held back whole, with what speaks of it', () => {
    const typed = {
      ...handCar(),
      panels: [
        ...handCar().panels,
        {
          ...newPanel({ id: 'roof', name: 'Roof', kind: 'roof', side: 'centre', widthMm: 900, heightMm: 600 }),
          widthMm: 0,
        },
      ],
    }
    const { plan, held } = soundPlan(typed, handCar())
    expect(held).toHaveLength(1)
    expect(plan).toEqual(handCar())
  })
  it('a film that is named and not there falls back to the one that is', () => {
    const typed = { ...handCar(), film: { mainId: 'nowhere', sheets: handCar().film.sheets }, name: 'Renamed' }
    const { plan, held } = soundPlan(typed, handCar())
    expect(held.map((h) => h.place)).toEqual(['film/mainId'])
    expect([plan.film.mainId, plan.name]).toEqual(['fen-satin', 'Renamed'])
  })
  it('always something that the schema takes, whatever was typed, and sound figures beside it stay', () => {
    const junk = fc.oneof(
      fc.double(),
      fc.integer(),
      fc.string(),
      fc.constant(null),
      fc.constant(undefined),
      fc.constant([]),
      fc.object(),
    )
    const field = fc.constantFrom(
      'widthMm',
      'crownMm',
      'crownOverMm',
      'edges',
      'recesses',
      'surface',
      'name',
      'id',
      'kind',
    )
    fc.assert(
      fc.property(fc.constantFrom('bonnet', 'door'), field, junk, (id, key, value) => {
        const typed = withPanel(
          withPanel(handCar(), id, () => ({ [key]: value })),
          'wing',
          () => ({ heightMm: 651 }),
        )
        const { plan } = soundPlan(typed, handCar())
        expect(Plan.safeParse(plan).success).toBe(true)
        expect(plan.panels.find((p) => p.id === 'wing')?.heightMm).toBe(651)
      }),
      { numRuns: 300 },
    )
  })
})

describe('ids within a list', () => {
  it.each([
    [
      'sheets',
      (p: Plan) => ({ ...p, film: { ...p.film, sheets: [film('fen-satin'), film('fen-satin')] } }),
      'film.sheets.1.id',
    ],
    [
      'pieces',
      (p: Plan) => ({
        ...p,
        pieces: [1, 2].map((parts) => ({
          panelId: 'door',
          parts,
          along: 'height' as const,
          preStretch: 0,
          bleedMm: null,
          seamsAtMm: [],
          slits: [],
          flat: null,
        })),
      }),
      'pieces.1.id',
    ],
    [
      'damage',
      (p: Plan) => ({
        ...p,
        walkaround: {
          ...p.walkaround,
          damage: ['a', 'b'].map((note) => ({
            id: 'd',
            panelId: null,
            kind: 'dent' as const,
            note,
            sizeMm: null,
            xMm: null,
            yMm: null,
            photoIds: [],
            waived: null,
          })),
        },
      }),
      'walkaround.damage.1.id',
    ],
    [
      'edges',
      (p: Plan) => withPanel(p, 'door', (d) => ({ edges: [...d.edges, ...d.edges.slice(0, 1)] })),
      'panels.1.edges.4.id',
    ],
  ] as const)('are there once: %s', (_, change, at) => {
    const out = Plan.safeParse(change(handCar()))
    expect(out.error?.issues.map((i) => [i.path.join('.'), i.message])).toEqual([[at, 'duplicate_id']])
  })
})

describe('which of one’s own changes undo and redo take', () => {
  const mark = (number: number, undoes: number | null = null): RevisionMark => ({ number, undoes })
  it('never the job’s beginning', () => expect(ownChanges([mark(1)])).toEqual({ undo: null, redo: null }))
  it('walks back, and forward again', () => {
    const own = [mark(1), mark(2), mark(5)]
    expect(ownChanges(own)).toEqual({ undo: 5, redo: null })
    own.push(mark(6, 5))
    expect(ownChanges(own)).toEqual({ undo: 2, redo: 6 })
    own.push(mark(7, 2))
    expect(ownChanges(own)).toEqual({ undo: null, redo: 7 })
    own.push(mark(8, 7))
    expect(ownChanges(own)).toEqual({ undo: 8, redo: 6 })
    own.push(mark(9))
    expect(ownChanges(own)).toEqual({ undo: 9, redo: null })
  })
})
