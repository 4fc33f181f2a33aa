import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { groupedBy } from '@/core/kit/grouped'
import { isSameList, isSameRecord, keptFor, keptWith } from '@/core/kit/kept'
import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import { NO_SOLUTIONS } from '@/core/model/catalogue/solution-tables'
import type { LogRow } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { reckon, type Reckoning } from '@/core/reckon/reckon'
import { DEMO_FILMS } from '@/db/demo/films'
import { catalogue, choiceOf, film, handCar, manyPanels, row } from '../fixtures/plans'

describe('what is kept for a thing', () => {
  it('is made once, and again only where something beside it is another', () => {
    let made = 0
    const kept = keptFor((thing: { n: number }, ...beside: number[]) => {
      made++
      return { sum: beside.reduce((a, b) => a + b, thing.n) }
    })
    const thing = { n: 1 }
    const first = kept(thing, 2, 3)
    expect(first.sum).toBe(6)
    expect(kept(thing, 2, 3)).toBe(first)
    expect(kept(thing, 3, 2)).not.toBe(first)
    expect(kept(thing, 2).sum).toBe(3)
    expect(kept({ n: 1 }, 2).sum).toBe(3)
    expect(made).toBe(4)
  })
  it('many things beside it have names: the order in which they stand does not count', () => {
    let made = 0
    const kept = keptWith((thing: { n: number }, { a, b }: { a: number; b?: number | undefined }) => {
      made++
      return { sum: thing.n + a + (b ?? 0) }
    })
    const thing = { n: 1 }
    const first = kept(thing, { a: 2, b: 3 })
    expect(first.sum).toBe(6)
    expect(kept(thing, { b: 3, a: 2 })).toBe(first)
    expect(kept(thing, { a: 3, b: 2 })).not.toBe(first)
    expect(kept(thing, { a: 3 }).sum).toBe(4)
    expect(kept({ n: 2 }, { a: 3 }).sum).toBe(5)
    expect(made).toBe(4)
  })
  it('tells NaN from nothing, and a list from a longer one', () => {
    expect(isSameList([NaN], [NaN])).toBe(true)
    expect(isSameList([1], [1, undefined])).toBe(false)
    expect(isSameRecord({ a: 1, b: undefined }, { a: 1, c: undefined })).toBe(false)
    expect(isSameRecord({ a: 1, b: 2 }, { b: 2, a: 1 })).toBe(true)
    expect(isSameRecord({ a: {} }, { a: {} })).toBe(false)
  })
  it('groups in the order in which things came', () => {
    const groups = groupedBy(['bonnet', 'door', 'boot', 'bumper', 'dash'], (w) => w.charAt(0))
    expect([...groups]).toEqual([
      ['b', ['bonnet', 'boot', 'bumper']],
      ['d', ['door', 'dash']],
    ])
  })
})

interface Job {
  plan: Plan
  catalogue: Catalogue
  ledger: LogRow[]
}
type Edit = (job: Job, n: number) => Job
const withPlan = (job: Job, plan: Partial<Plan>): Job => ({ ...job, plan: { ...job.plan, ...plan } })
const nthPanel = (job: Job, n: number, change: (p: Plan['panels'][number]) => Partial<Plan['panels'][number]>): Job =>
  withPlan(job, {
    panels: job.plan.panels.map((p, i) => (i === n % job.plan.panels.length ? { ...p, ...change(p) } : p)),
  })
const asMethod = (job: Job, method: Partial<Plan['method']>): Job =>
  withPlan(job, { method: { ...job.plan.method, ...method } })

/** Everything that one could touch in a job, its shop and its bay: each is an edit of its own. */
const EDITS: Record<string, Edit> = {
  width: (job, n) => nthPanel(job, n, (p) => ({ widthMm: p.widthMm + 10 + n })),
  crown: (job, n) => nthPanel(job, n, () => ({ crownMm: 5 + n, crownOverMm: 700 })),
  corner: (job, n) => nthPanel(job, n, () => ({ cornerRadiusMm: 20 + 10 * n })),
  gap: (job, n) => nthPanel(job, n, (p) => ({ edges: p.edges.map((e, i) => (i === 0 ? { ...e, gapMm: 2 + n } : e)) })),
  meets: (job, n) =>
    nthPanel(job, n, (p) => ({
      edges: p.edges.map((e, i) => (i === 1 ? { ...e, meets: 'rubber_seal' as const } : e)),
    })),
  name: (job, n) => nthPanel(job, n, () => ({ name: `Panel named ${n}` })),
  assumed: (job, n) => nthPanel(job, n, () => ({ assumed: n % 2 ? ['widthMm', 'edges.top'] : [] })),
  wrap: (job, n) => nthPanel(job, n, (p) => ({ wrap: !p.wrap })),
  own_film: (job, n) =>
    withPlan(
      nthPanel(job, n, () => ({ filmId: 'mere-mirror' })),
      {
        film: { ...job.plan.film, sheets: [film('fen-satin'), film('mere-mirror')] },
      },
    ),
  new_panel: (job, n) =>
    withPlan(job, {
      panels: [
        ...job.plan.panels,
        newPanel({
          id: `new-${job.plan.panels.length}`,
          name: 'New',
          kind: 'boot_lid',
          side: 'centre',
          widthMm: 900 + n,
          heightMm: 700,
        }),
      ],
    }),
  parts: (job, n) => {
    const panelId = job.plan.panels[n % job.plan.panels.length]?.id ?? ''
    const rest = job.plan.pieces.filter((c) => c.panelId !== panelId)
    const choice = { ...choiceOf(job.plan, panelId), parts: 1 + (n % 3), along: 'width' as const }
    return withPlan(job, { pieces: [...rest, choice] })
  },
  bleed: (job, n) => asMethod(job, { bleedMm: 30 + n }),
  arches: (job, n) => asMethod(job, { wheelArch: n % 2 ? 'flush' : 'turned' }),
  plain_edges: (job, n) => asMethod(job, { plainEdges: n % 2 ? 'pressed' : 'proof' }),
  tension: (job, n) => asMethod(job, { tension: n % 2 ? 'relax_first' : 'triangles' }),
  pace: (job, n) => withPlan(job, { runSheet: { ...job.plan.runSheet, paceFactor: 1 + n / 4 } }),
  minutes: (job, n) => withPlan(job, { runSheet: { ...job.plan.runSheet, minutes: { 'lay:door': 5 + n } } }),
  cutting: (job, n) => withPlan(job, { layout: { ...job.plan.layout, cutting: n % 2 ? 'free' : 'crosscut' } }),
  body_colour: (job, n) =>
    withPlan(job, { vehicle: { ...job.plan.vehicle, colour: { name: 'X', hex: n % 2 ? '#ffffff' : '#101010' } } }),
  film_sheet: (job, n) =>
    withPlan(job, {
      film: {
        ...job.plan.film,
        sheets: job.plan.film.sheets.map((s) => ({ ...s, waitBeforeCutMin: 10 * n, heatShrink: 0.01 * n })),
      },
    }),
  winter: (job, n) => ({ ...job, catalogue: { ...job.catalogue, shop: { ...DEFAULT_SHOP, winter: n % 2 === 0 } } }),
  shops_leave: (job, n) => ({
    ...job,
    catalogue: { ...job.catalogue, shop: { ...DEFAULT_SHOP, edgeLeave: { opening: 12 + n } } },
  }),
  settling: (job, n) => ({
    ...job,
    catalogue: { ...job.catalogue, solutions: n % 2 ? undefined : NO_SOLUTIONS },
  }),
  scan: (job, n) => ({ ...job, catalogue: { ...job.catalogue, scans: { bonnet: `${n}@2026` } } }),
  clock: (job, n) => ({ ...job, catalogue: { ...job.catalogue, now: `2026-12-0${1 + (n % 9)}T09:00` } }),
  reading: (job, n) => ({
    ...job,
    ledger: [
      ...job.ledger,
      row({ kind: 'reading', pointId: 'bonnet:top', tempC: 80 + n, ambientC: null, awayFrom: null } as never),
    ],
  }),
  done: (job, n) => ({
    ...job,
    ledger: [...job.ledger, row({ kind: 'step_done', stepId: n % 2 ? 'lay:door' : 'wash' })],
  }),
}

/** All that a person or a prompt could read of it. */
const told = (r: Reckoning) => ({
  figures: [...r.figures.values()],
  findings: r.findings,
  pieces: r.laid,
  edges: r.edges.edges,
  corners: r.edges.corners,
  tapes: r.edges.tapes,
  points: r.points,
  steps: r.steps,
  stages: r.stages,
  schedule: r.schedule,
  settling: r.settling,
  layouts: r.layouts.map((l) => [l.key, l.usedMm, l.sources, l.rolls.map((roll) => roll.placements)]),
})

describe('a job that stays open', () => {
  it('is reckoned after any edits as a copy of it is from nothing: what is kept of its panels never hides a change', () => {
    const seen = new Set<string>()
    const edits = fc.array(fc.tuple(fc.constantFrom(...Object.keys(EDITS)), fc.integer({ min: 0, max: 7 })), {
      minLength: 1,
      maxLength: 7,
    })
    fc.assert(
      fc.property(edits, (list) => {
        let job: Job = { plan: handCar(), catalogue: { ...catalogue, films: DEMO_FILMS }, ledger: [] }
        let open = reckon(job.plan, job.catalogue, job.ledger)
        for (const [name, n] of list) {
          job = (EDITS[name] as Edit)(job, n)
          seen.add(name)
          open = reckon(job.plan, job.catalogue, job.ledger, open)
        }
        const copy = structuredClone(job)
        expect(told(open)).toEqual(told(reckon(copy.plan, copy.catalogue, copy.ledger)))
      }),
      { numRuns: 150, seed: 30 },
    )
    expect([...seen].sort()).toEqual(Object.keys(EDITS).sort())
  })
  it('makes nothing of the other panels again while one is measured', () => {
    const first = reckon(handCar(), catalogue, [])
    const typed = nthPanel({ plan: first.parts.plan, catalogue, ledger: [] }, 0, () => ({ widthMm: 1401 })).plan
    const after = reckon(typed, catalogue, first.parts.ledger, first)
    for (const id of ['door', 'wing']) {
      expect(after.pieces.find((p) => p.id === id)).toBe(first.pieces.find((p) => p.id === id))
      expect(after.edges.byPiece.get(id)?.edges).toBe(first.edges.byPiece.get(id)?.edges)
      expect(after.points.filter((p) => p.pieceId === id).every((p) => first.points.includes(p))).toBe(true)
    }
    expect(after.pieces.find((p) => p.id === 'bonnet')).not.toBe(first.pieces.find((p) => p.id === 'bonnet'))
    expect(after.parts.films).toBe(first.parts.films)
  })
})

describe('one width typed in a job that is open', () => {
  it('leaves every figure of the other panels as it was, the very same', () => {
    const plan = manyPanels(40)
    const [typed] = plan.panels
    if (!typed) throw new Error('a job without panels')
    const open: Catalogue = { ...catalogue, solutions: NO_SOLUTIONS }
    const before = reckon(plan, open, [])
    const panels = plan.panels.map((p) => (p === typed ? { ...p, widthMm: p.widthMm + 3 } : p))
    const after = reckon({ ...plan, panels }, open, before.parts.ledger, before)
    const others = [...after.figures].filter(
      ([id]) => /^(panel|piece|stretch|corner|heat|tape)\//.test(id) && id.split(/[/.]/)[1] !== typed.id,
    )
    expect(new Set(others.map(([id]) => id.split('/')[0])).size).toBeGreaterThanOrEqual(4)
    expect(others.filter(([id, f]) => before.figures.get(id) !== f).map(([id]) => id)).toEqual([])
    expect(after.figures.get(`panel/${typed.id}/area`)).not.toBe(before.figures.get(`panel/${typed.id}/area`))
    const stepsOf = ({ steps }: Reckoning) => steps.filter((s) => s.panelId !== null && s.panelId !== typed.id)
    expect(isSameList(stepsOf(after), stepsOf(before))).toBe(true)
  })
})
