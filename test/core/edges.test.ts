import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { choose } from '@/core/engines/edge/corner-plan'
import { pointWindow } from '@/core/engines/heat/point-window'
import { CUT_RULES, FILM_CLASSES, GAP_CLASSES } from '@/core/model/edge/cut-rules'
import { EDGE_RULES } from '@/core/model/edge/edge-data'
import { edgeCut, filmClass, gapClass, rulesFor } from '@/core/model/edge/edge-leave'
import { SCHOOLS } from '@/core/model/method/method-data'
import { readPlan, writePlan } from '@/core/model/plan/parse'
import { Plan } from '@/core/model/plan/schema'
import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import { EDGE_MEETS } from '@/core/model/vehicle/kinds'
import { reckoningJson } from '@/core/reckon/output'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_FILMS } from '@/db/demo/films'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { catalogue, choiceOf } from '../fixtures/plans'

const film = (id: string) => {
  const found = DEMO_FILMS.find((f) => f.id === id)
  if (!found) throw new Error(id)
  return found
}
const cast = film('fen-satin')
const chrome = DEMO_FILMS.find((f) => f.kind === 'hybrid_chrome') ?? cast
const calendered = film('quay-orange')
const demo = DEMO_JOBS.map(({ make }) => Plan.parse(make()))
const [hatch] = demo as [Plan, ...Plan[]]
const of = (plan: Plan) => reckon(plan, catalogue, []).edges

describe('the table that says where an edge is cut', () => {
  test('is complete and free of contradictions: every combination hits exactly one row, and every row is hit', () => {
    const hit = new Set<string>()
    const opens = ['panel', 'neighbour', 'none'] as const
    const cases = EDGE_MEETS.flatMap((meets) =>
      GAP_CLASSES.flatMap((gap) =>
        FILM_CLASSES.flatMap((film) =>
          SCHOOLS.wheelArch.flatMap((arch) =>
            SCHOOLS.seals.flatMap((seals) =>
              SCHOOLS.coverage.flatMap((wish) =>
                opens.flatMap((opened) =>
                  (['sound', 'brittle'] as const).map((seal) => ({
                    meets,
                    gap,
                    film,
                    arch,
                    seals,
                    wish,
                    opens: opened,
                    seal,
                  })),
                ),
              ),
            ),
          ),
        ),
      ),
    )
    expect(cases).toHaveLength(11 * 3 * 3 * 3 * 2 * 3 * 3 * 2)
    for (const c of cases) {
      const rows = rulesFor(c)
      expect([c, rows.map((r) => r.id)]).toEqual([c, [expect.any(String)]])
      hit.add(rows[0]?.id ?? '')
    }
    expect([...hit].sort()).toEqual(CUT_RULES.map((r) => r.id).sort())
  })

  test('films and gaps have one class each', () => {
    expect([cast, chrome, calendered].map(filmClass)).toEqual(['formable', 'mirror', 'stiff'])
    expect([0, 2.5, 4, 40, 500].map(gapClass)).toEqual(['narrow', 'narrow', 'open', 'open', 'span'])
  })
})

describe('edges of the demo jobs', () => {
  test('each edge of each piece is decided once, with a reason, and never tucked deeper than film is left', () => {
    const withFilm = demo.filter((plan) => plan.film.mainId !== null && plan.panels.length > 0)
    expect(withFilm.length).toBeGreaterThan(2)
    for (const plan of withFilm) {
      const { edges } = of(plan)
      expect(edges.length).toBeGreaterThan(10)
      const ids = edges.map((e) => `${e.pieceId} ${e.panelId} ${e.edgeId}`)
      expect(new Set(ids).size).toBe(ids.length)
      for (const e of edges) {
        expect(e.why.length).toBeGreaterThan(0)
        expect(e.tuckMm).toBeLessThanOrEqual(e.leaveMm)
        if (e.cut !== 'seal_middle') expect(e.leaveMm).toBeGreaterThanOrEqual(EDGE_RULES[e.meets].wrapUnderMm)
        if (EDGE_RULES[e.meets].heatPoint) expect(e.heat).toBe('point')
      }
    }
  })

  test('the front of a bonnet goes deeper than its back and its sides', () => {
    const bonnet = of(hatch).edges.filter((e) => e.panelId === 'bonnet')
    const [front, ...others] = [...bonnet].sort((a, b) => b.leaveMm - a.leaveMm)
    expect(front).toMatchObject({ at: 'top', cut: 'own_underside' })
    expect(front?.why).toContain('front_deeper')
    expect(others.every((e) => e.leaveMm < (front?.leaveMm ?? 0))).toBe(true)
  })

  test('an edge that changes moves its own fields and no other edge’s', () => {
    const changed: Plan = {
      ...hatch,
      panels: hatch.panels.map((p) =>
        p.id === 'bonnet'
          ? { ...p, edges: p.edges.map((e, i) => (i === 0 ? { ...e, meets: 'lamp' as const } : e)) }
          : p,
      ),
    }
    const [before, after] = [hatch, changed].map((plan) => of(plan).edges)
    const moved = (after ?? []).filter((e, i) => JSON.stringify(e) !== JSON.stringify(before?.[i]))
    expect(moved.map((e) => [e.panelId, e.at])).toEqual([['bonnet', 'top']])
  })

  test('a bumper’s underside is sealed below; a mirror film is cut on wire only', () => {
    const { edges } = of(hatch)
    const under = edges.filter((e) => e.meets === 'bumper_underside')
    expect(under.length).toBeGreaterThan(0)
    expect(under.every((e) => e.tapes.some((t) => t.kind === 'sealing' && t.lengthMm === e.lengthMm))).toBe(true)
    const mirror: Plan = {
      ...hatch,
      film: { ...hatch.film, mainId: chrome.id, sheets: [chrome] },
      panels: hatch.panels.map((p) => ({ ...p, filmId: null })),
    }
    expect(of(mirror).edges.some((e) => e.tapes.some((t) => t.kind === 'filament'))).toBe(false)
    expect(of(mirror).edges.some((e) => e.tapes.some((t) => t.kind === 'wire'))).toBe(true)
  })

  test('the working of each tape adds up, also where two films lie on one vehicle', () => {
    const halves: Plan = {
      ...hatch,
      film: { ...hatch.film, sheets: [...hatch.film.sheets.filter((s) => s.id !== chrome.id), chrome] },
      panels: hatch.panels.map((p) => (p.id === 'bonnet' ? { ...p, filmId: chrome.id } : p)),
      pieces: ['roof', 'bonnet'].map((id) => ({ ...choiceOf(hatch, id), parts: 2, along: 'width' as const })),
    }
    const { figures } = reckon(halves, catalogue, [])
    for (const kind of ['filament', 'wire', 'masking', 'sealing']) {
      const f = figures.get(`supply/${kind}`)
      const sum = f?.inputs.reduce((total, i) => total + Number(i.value), 0)
      expect([kind, sum]).toEqual([kind, expect.closeTo(Number(f?.value), 6)])
    }
    expect(figures.get('supply/wire')?.inputs.some((i) => i.key === 'bonnet.2_seam')).toBe(true)
    expect(figures.get('supply/filament')?.inputs.some((i) => i.key === 'roof.2_seam')).toBe(true)
  })

  test('a seam that is 1.2 m longer takes 1.2 m more filament and nothing else', () => {
    const split = (heightMm: number): Plan => ({
      ...hatch,
      panels: hatch.panels.map((p) => (p.id === 'roof' ? { ...p, heightMm } : p)),
      pieces: [
        ...hatch.pieces.filter((c) => c.panelId !== 'roof'),
        { ...choiceOf(hatch, 'roof'), parts: 2, along: 'width' as const },
      ],
    })
    const roof = hatch.panels.find((p) => p.id === 'roof')
    const filament = (plan: Plan) => reckon(plan, catalogue, []).figures.get('supply/filament')?.value
    const [short, long] = [roof?.heightMm ?? 0, (roof?.heightMm ?? 0) + 1200].map((h) => filament(split(h)))
    expect(Number(long) - Number(short)).toBeCloseTo(1200, 6)
  })
})

describe('what is said of one edge', () => {
  const panel = hatch.panels.find((p) => p.id === 'bonnet') ?? hatch.panels[0]
  const setting = { method: hatch.method, strongContrast: false, winter: false }
  const edge = (over: object) => ({ ...panel?.edges[1], meets: 'opening', ...over }) as Plan['panels'][0]['edges'][0]
  const cut = (over: object, method: object = {}, winter = false) =>
    edgeCut(edge(over), { kind: 'door' }, cast, { ...setting, winter, method: { ...hatch.method, ...method } })

  test('seals by their fit: tight 3, normal 10, loose 19 mm; an old one is cut at, not lifted', () => {
    const seal = (tightness: string | null, gapMm: number | null = null) =>
      cut({ meets: 'rubber_seal', tightness, gapMm }).tuckMm
    expect([seal('tight'), seal('normal'), seal('loose'), seal(null, 4), seal(null, 20)]).toEqual([3, 10, 19, 3, 19])
    expect(cut({ meets: 'rubber_seal', tightness: 'brittle' })).toMatchObject({ cut: 'flush', leaveMm: 0 })
    expect(cut({ meets: 'glass', spanMm: 520 }).tuckMm).toBe(10)
  })

  test('what is grabbed often goes deeper, an underside never past 10 mm', () => {
    expect([cut({ grab: 'usual' }), cut({ grab: 'high' })].map((c) => c.leaveMm)).toEqual([10, 15])
    expect(['low', 'usual', 'high'].map((grab) => cut({ meets: 'bumper_underside', grab }).leaveMm)).toEqual([6, 8, 10])
  })

  test('schools and wishes: arches, seals, closed lids, flush; somebody’s own choice wins over them', () => {
    expect(cut({ meets: 'wheel_arch' })).toMatchObject({ cut: 'own_underside', leaveMm: 25 })
    expect(cut({ meets: 'wheel_arch' }, { wheelArch: 'shrunk' })).toMatchObject({ cut: 'flush', leaveMm: 0 })
    expect(cut({ meets: 'window_trim' }, { seals: 'cut_in_gap' }).cut).toBe('far_side')
    expect(cut({}, { coverage: 'quick' }).cut).toBe('closed_gap')
    expect(cut({}, { coverage: 'flush' })).toMatchObject({ cut: 'flush', leaveMm: 0, tuckMm: 0 })
    expect(cut({ cutAs: 'far_side', leaveMm: 4 }, { coverage: 'flush' })).toMatchObject({ cut: 'far_side', leaveMm: 4 })
    expect(cut({ meets: 'fixed_gap', opens: 'neighbour' }).cut).toBe('own_underside')
  })

  test('a shop’s own figure and cut side hold for every edge of that kind, and for no other', () => {
    const own = { leave: { opening: 12 }, cut: { opened_panel: 'closed_gap' as const } }
    const by = (over: object, with_ = own) => edgeCut(edge(over), { kind: 'door' }, cast, { ...setting, own: with_ })
    expect(by({})).toMatchObject({ cut: 'closed_gap', leaveMm: 12, why: expect.arrayContaining(['shops_own']) })
    expect(by({ meets: 'free' })).toEqual(cut({ meets: 'free' }))
    expect(by({ cutAs: 'far_side', leaveMm: 4 })).toMatchObject({ cut: 'far_side', leaveMm: 4 })
    const leave = (edgeLeave: object) =>
      reckon(hatch, { ...catalogue, shop: { ...DEFAULT_SHOP, edgeLeave } }, []).edges.edges
    const [usual, own20] = [leave({}), leave({ lamp: 20 })]
    const moved = own20.filter((e, i) => JSON.stringify(e) !== JSON.stringify(usual[i]))
    expect(moved.length).toBeGreaterThan(0)
    expect(moved.every((e) => e.meets === 'lamp')).toBe(true)
  })

  test('a gap of 300 mm is a span: refused as a gap, read as one from an older file', () => {
    const file = (format: string, gapMm: number) => {
      const plan = JSON.parse(writePlan(hatch)) as Plan
      plan.format = format as Plan['format']
      plan.panels[0]!.edges[0]!.gapMm = gapMm
      return readPlan(JSON.stringify(plan))
    }
    const now = file('cuirass/job@3', 300)
    expect(now).toMatchObject({ ok: false, error: { at: 'panels[0].edges[0].gapMm' } })
    const older = file('cuirass/job@2', 300)
    expect(older.ok && older.value.panels[0]?.edges[0]).toMatchObject({ gapMm: null, spanMm: 300 })
  })

  test('a flange wider than half its panel is refused, and says where', () => {
    const wide = {
      ...hatch,
      panels: hatch.panels.map((p) =>
        p.kind === 'handle' ? { ...p, edges: p.edges.map((e) => ({ ...e, leaveMm: 110 })) } : p,
      ),
    }
    expect(Plan.safeParse(wide).error?.issues[0]).toMatchObject({ message: 'flange_wider_than_panel' })
  })
})

describe('parts of a panel', () => {
  const split = (along: 'width' | 'height', over: object = {}): Plan => ({
    ...hatch,
    pieces: [{ ...choiceOf(hatch, 'roof'), parts: 2, along, ...over }],
  })
  const size = (plan: Plan, id: string, side: 'cutHeightMm' | 'cutWidthMm') =>
    reckon(plan, catalogue, []).pieces.find((p) => p.id === id)?.[side] ?? NaN

  test('each is cut past the seam by a hand’s grip, the one laid over also by its lap', () => {
    const roof = hatch.panels.find((p) => p.id === 'roof')
    const [upper, lower] = ['roof.1', 'roof.2'].map((id) => size(split('height'), id, 'cutHeightMm'))
    const half = (roof?.heightMm ?? 0) / 2
    expect(upper).toBeCloseTo(half + 50 + 45 + 3, 6)
    expect(lower).toBeCloseTo(half + 50 + 45, 6)
  })

  test('a shift film laps 13 mm in the middle of a panel and 3 mm on its body line', () => {
    const shift = film('dusk-shift')
    const onShift = (plan: Plan): Plan => ({
      ...plan,
      film: { mainId: shift.id, sheets: [shift] },
      panels: plan.panels.map((p) => ({ ...p, filmId: null })),
    })
    const roof = hatch.panels.find((p) => p.id === 'roof')
    const at = Math.round((roof?.heightMm ?? 0) / 3)
    const line = { id: 'l', name: 'Line', along: 'width' as const, atMm: at, radiusMm: 5, seam: true, foldDeg: 0 }
    const plain = onShift(split('height', { seamsAtMm: [at] }))
    const lined = { ...plain, panels: plain.panels.map((p) => (p.id === 'roof' ? { ...p, bodyLines: [line] } : p)) }
    expect(size(plain, 'roof.1', 'cutHeightMm') - size(lined, 'roof.1', 'cutHeightMm')).toBeCloseTo(10, 6)
    expect(size(plain, 'roof.2', 'cutHeightMm')).toBeCloseTo(size(lined, 'roof.2', 'cutHeightMm'), 6)
  })
})

describe('corners', () => {
  test('the demo bonnet, 60 mm and cast, is a cold hook: squeeze 9.5 %, pull about 3 %, no cut on top', () => {
    const corners = of(hatch).corners.filter((c) => c.panelId === 'bonnet')
    expect(corners.length).toBeGreaterThan(0)
    for (const c of corners) {
      expect(c.method).toBe('cold_hook')
      // 2w/(r + w) with w = 3 mm and r = 60 mm; (1 + squeeze)(1 − 6 %) − 1.
      expect(c.squeeze).toBeCloseTo(6 / 63, 9)
      expect(c.pull).toBeCloseTo((1 + 6 / 63) * 0.94 - 1, 9)
    }
  })

  test('mirror and stiff film are never pulled: a relief underneath, or a seam', () => {
    const roadster = demo.find((p) => p.film.sheets.some((s) => s.kind === 'hybrid_chrome' && s.id === p.film.mainId))
    const corners = roadster ? of(roadster).corners : []
    expect(corners.length).toBeGreaterThan(0)
    for (const c of corners) expect(['relief', 'seam', 'shrunk']).toContain(c.method)
    expect(corners.some((c) => c.method === 'relief')).toBe(true)
  })

  test('each method where the practice has it', () => {
    const at = (over: Partial<Parameters<typeof choose>[0]>) =>
      choose({ film: cast, squeeze: 0.095, pull: 0.03, limit: 0.15, radiusMm: 60, hidden: true, ...over }).method
    expect(at({ squeeze: 0.05, pull: 0 })).toBe('shrunk')
    expect(at({})).toBe('cold_hook')
    expect(at({ radiusMm: 5 })).toBe('shaped')
    expect(at({ film: { ...cast, thicknessUm: 200 } })).toBe('shaped')
    expect(at({ pull: 0.4 })).toBe('relief')
    expect(at({ pull: 0.4, hidden: false })).toBe('seam')
    expect(at({ film: calendered, hidden: false })).toBe('seam')
    expect(at({ film: chrome })).toBe('relief')
  })

  test('a film that shrinks more never asks for more than one that shrinks less', () => {
    const effort = ['shrunk', 'cold_hook', 'shaped', 'relief', 'seam']
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 300, noNaN: true }),
        fc.double({ min: 0, max: 0.25, noNaN: true }),
        (radiusMm, shrink) => {
          const squeeze = 6 / (radiusMm + 3)
          const of = (heatShrink: number) =>
            effort.indexOf(
              choose({
                film: { ...cast, heatShrink },
                squeeze,
                pull: Math.max(0, (1 + squeeze) * (1 - heatShrink) - 1),
                limit: 0.15,
                radiusMm: Math.max(8, radiusMm),
                hidden: true,
              }).method,
            )
          expect(of(shrink + 0.05)).toBeLessThanOrEqual(of(shrink))
        },
      ),
    )
  })
})

describe('what a prompt is given', () => {
  const json = reckoningJson(reckon(hatch, catalogue, []))
  test('edges, corners, consumables, points and steps with the keys of the contract', () => {
    expect(Object.keys(json.edges[0] ?? {}).sort()).toEqual(
      'piece panel edge meets length_mm leave_mm cut blade_deg tuck_mm stroke_mm warm_before_cut before_cut_wait_min order heat tapes why'
        .split(' ')
        .sort(),
    )
    expect(Object.keys(json.corners[0] ?? {}).sort()).toEqual(
      'piece panel between radius_mm angle_deg leave_mm method squeeze shrinks pull limit why'.split(' ').sort(),
    )
    for (const c of json.consumables) expect(Object.keys(c)).toHaveLength(3)
    expect(json.points.length).toBeGreaterThan(0)
    expect(json.points.filter((p) => p.kind === 'edge').every((p) => (p.length_mm ?? 0) > 0)).toBe(true)
    expect(json.steps.length).toBeGreaterThan(20)
  })

  test('what is counted has its working, and the working gives what the list says', () => {
    const { figures, edges } = reckon(hatch, catalogue, [])
    for (const c of edges.consumables) {
      const value = 'lengthMm' in c ? c.lengthMm : 'areaMm2' in c ? c.areaMm2 : c.count
      expect(figures.get(`supply/${c.kind}`)?.value, c.kind).toBeCloseTo(value, 6)
    }
    const blades = figures.get('supply/blades')
    const of = (key: string) => Number(blades?.inputs.find((i) => i.key === key)?.value)
    expect(blades?.value).toBe(Math.max(of('covered'), Math.ceil(of('edges') / of('each'))))
    const felts = figures.get('supply/felts')
    const area = felts?.inputs.reduce((a, i) => (i.key === 'liner' ? Number(i.value) : a), 0) ?? 0
    expect(felts?.value).toBe(Math.ceil(area / 10e6))
  })

  test('tape in the figures is tape in the list', () => {
    const figures = reckon(hatch, catalogue, []).figures
    for (const c of json.consumables)
      if ('length_mm' in c) expect(figures.get(`supply/${c.kind}`)?.value).toBeCloseTo(c.length_mm, 6)
  })

  test('every corner that is not a seam is a point of its own, and every edge that its plan wants read', () => {
    const { points, edges } = reckon(hatch, catalogue, [])
    const of = (kind: string) => points.filter((p) => p.kind === kind)
    expect(of('corner')).toHaveLength(edges.corners.filter((c) => c.method !== 'seam').length)
    expect(of('edge')).toHaveLength(edges.edges.filter((e) => e.heat === 'point').length)
    const pressed = { ...hatch, method: { ...hatch.method, plainEdges: 'pressed' as const } }
    const left = reckon(pressed, catalogue, []).points.filter((p) => p.kind === 'edge')
    expect(left.length).toBeGreaterThan(0)
    expect(left.length).toBeLessThan(of('edge').length)
  })

  test('a point waits until its piece is laid, is due in the film’s window, and expires after it', () => {
    const point = { ...(reckon(hatch, catalogue, []).points[0] ?? ({} as never)) }
    const shift = { postHeatFromMin: 30, postHeatUntilMin: 1440 }
    const laid = [
      {
        id: 'a',
        at: '2031-03-03T10:00:00Z',
        by: 'x',
        payload: { kind: 'step_done' as const, stepId: `lay:${point.panelId}` },
      },
    ]
    const state = (now: string, ledger = laid) => pointWindow(point, shift, ledger, now).state
    expect(state('2031-03-03T10:00', [])).toBe('waiting')
    expect(state('2031-03-03T10:10')).toBe('waiting')
    expect(state('2031-03-03T10:30')).toBe('due')
    expect(state('2031-03-04T10:01')).toBe('expired')
    expect(pointWindow(point, shift, laid, '2031-03-03T10:00')).toMatchObject({
      from: '2031-03-03T10:30:00Z',
      until: '2031-03-04T10:00:00Z',
    })
  })
})

describe('corners are told by their own decision, and by no other rule', () => {
  const jobs = DEMO_JOBS.map((job) => ({ id: job.id, r: reckon(job.make(), catalogue, []) }))
  test('the hatch’s bonnet (60 mm, cast) hooks cold: nothing tells it to be cut', () => {
    const { r } = jobs[0] ?? { r: null }
    const bonnet = r?.edges.corners.filter((c) => c.panelId === 'bonnet') ?? []
    expect(bonnet.map((c) => c.method)).toEqual(bonnet.map(() => 'cold_hook'))
    expect(bonnet.length).toBeGreaterThan(0)
    const told = r?.findings.filter((f) => f.panelId === 'bonnet').map((f) => f.code) ?? []
    expect(told.filter((code) => /relief|seam/.test(code))).toEqual([])
  })
  test('where corners are cut or parted, one finding a panel says how many, against the limit beside the worst', () => {
    let seen = 0
    for (const { r } of jobs) {
      for (const [code, method] of [
        ['corner_relief', 'relief'],
        ['corner_seam', 'seam'],
      ] as const) {
        const own = r.edges.corners.filter((c) => c.method === method)
        const told = r.findings.filter((f) => f.code === code)
        expect(told.length).toBe(new Set(own.map((c) => c.panelId)).size)
        for (const f of told) {
          const there = own.filter((c) => c.panelId === f.panelId)
          expect(f.facts).toMatchObject({ count: there.length, value: Math.max(...there.map((c) => c.pull)) })
          expect(r.figures.get(f.figureId ?? '')?.value).toBe(Math.max(...there.map((c) => c.pull)))
          seen++
        }
      }
    }
    expect(seen).toBeGreaterThan(0)
  })
})
