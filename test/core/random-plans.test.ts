import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { EDGE_RULES, GRIP_MM } from '@/core/model/edge/edge-data'
import { timeBudget } from '@/core/kit/budget'
import { civilToMinutes } from '@/core/kit/civil'
import { pathText, readJson } from '@/core/kit/json-guard'
import { seeded, textHash } from '@/core/kit/random'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { mergePlans } from '@/core/model/plan/merge'
import { readPlan, writePlan } from '@/core/model/plan/parse'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { EDGE_MEETS, PANEL_KINDS, SIDES } from '@/core/model/vehicle/kinds'
import type { Panel } from '@/core/model/vehicle/schema'
import { DEMO_FILMS } from '@/db/demo/films'
import { catalogue, handCar } from '../fixtures/plans'

/** Any panel that a person could type, sensible or not, as long as the schema takes it. */
const anyPanel = fc
  .record({
    kind: fc.constantFrom(...PANEL_KINDS),
    side: fc.constantFrom(...SIDES),
    width: fc.integer({ min: 1, max: 4000 }),
    height: fc.integer({ min: 1, max: 4000 }),
    crown: fc.integer({ min: 0, max: 300 }),
    radius: fc.option(fc.integer({ min: 0, max: 300 })),
    meets: fc.array(fc.constantFrom(...EDGE_MEETS), { minLength: 4, maxLength: 4 }),
    depth: fc.option(fc.integer({ min: 1, max: 200 })),
    way: fc.constantFrom('bridge', 'feed', 'inlay'),
    wrap: fc.boolean(),
    parts: fc.integer({ min: 1, max: 4 }),
    along: fc.constantFrom('width', 'height'),
    preStretch: fc.constantFrom(0, 0.25),
  })
  .map((r) => r)

const anyPlan = fc
  .record({
    panels: fc.array(anyPanel, { maxLength: 7 }),
    film: fc.constantFrom(...DEMO_FILMS),
    tension: fc.constantFrom('relax_first', 'triangles'),
    bleed: fc.integer({ min: 5, max: 120 }),
    start: fc.boolean(),
  })
  .map(({ panels, film, tension, bleed, start }): Plan =>
    Plan.parse({
      ...handCar(),
      film: { mainId: film.id, sheets: [film] },
      method: { ...handCar().method, tension, bleedMm: bleed },
      runSheet: { ...handCar().runSheet, startAt: start ? '2026-11-20T10:00' : null },
      panels: panels.map((p, i): Panel => {
        const base = newPanel({
          id: `p${i}`,
          name: `Panel ${i}`,
          kind: p.kind,
          side: p.side,
          widthMm: p.width,
          heightMm: p.height,
        })
        const recess = {
          id: 'r',
          name: 'R',
          mouthWidthMm: Math.ceil(p.width / 2),
          mouthHeightMm: Math.ceil(p.height / 2),
          depthMm: p.depth ?? 1,
          wallDeg: 60,
          open: true,
          way: p.way as 'bridge',
          gapMm: 50,
          bendRadiusMm: null,
          openAt: null,
          xMm: null,
          yMm: null,
        }
        return {
          ...base,
          crownMm: p.crown,
          crownOverMm: p.crown > 0 ? Math.max(600, p.crown * 2) : 0,
          cornerRadiusMm: p.radius,
          wrap: p.wrap,
          edges: base.edges.map((e, k) => ({ ...e, meets: p.meets[k] ?? 'free' })),
          recesses: p.depth === null ? [] : [recess],
        }
      }),
      pieces: panels.map((p, i) => ({
        panelId: `p${i}`,
        parts: p.parts,
        along: p.along as 'width',
        preStretch: p.preStretch,
        bleedMm: null,
      })),
    }),
  )

describe('any plan at all', () => {
  it('is reckoned without a hole: no NaN, every piece placed once or listed, nothing shorter than its bound', () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        const r = reckon(plan, catalogue, [])
        for (const f of r.figures.values()) {
          if (typeof f.value === 'number') expect(Number.isFinite(f.value), f.id).toBe(true)
          for (const i of f.inputs)
            if (typeof i.value === 'number') expect(Number.isFinite(i.value), `${f.id} ${i.key}`).toBe(true)
        }
        for (const l of r.layouts) {
          const placed = l.rolls.flatMap((x) => x.placements.map((p) => p.pieceId))
          expect([...placed, ...l.unplaced.map((u) => u.piece.id)].sort()).toEqual(l.pieces.map((p) => p.id).sort())
          if (l.rolls.length <= 1 && l.unplaced.length === 0) expect(l.usedMm).toBeGreaterThanOrEqual(l.boundMm - 1e-6)
          for (const roll of l.rolls)
            for (const p of roll.placements) {
              expect(p.xMm + p.widthMm).toBeLessThanOrEqual(roll.widthMm + 1e-6)
              const piece = l.pieces.find((x) => x.id === p.pieceId)
              expect([p.widthMm, p.lengthMm]).toEqual(
                p.turnDeg === 90 ? [piece?.alongMm, piece?.acrossMm] : [piece?.acrossMm, piece?.alongMm],
              )
            }
        }
        for (const s of r.steps) expect(s.minutes).toBeGreaterThanOrEqual(0)
        const ready = r.figures.get('rail/ready_at')?.value
        if (typeof ready === 'string')
          expect(civilToMinutes(ready)).toBeGreaterThan(civilToMinutes('2026-11-20T10:00') ?? 0)
      }),
      { numRuns: 120 },
    )
  })
  it('film always covers: pieces together reach over the panel by bleed or wrap-under and grip on every side', () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        const { pieces } = reckon(plan, catalogue, [])
        for (const panel of plan.panels.filter((p) => p.wrap)) {
          // An inlay lies under the others and covers its recess alone.
          const own = pieces.filter((p) => p.panelId === panel.id && !p.inlay)
          // Sheets that lap stop short of edges in the flow, and cover the rest.
          if (own.some((p) => p.reach)) {
            const covered = own.reduce((sum, p) => sum + p.cutWidthMm * p.cutHeightMm, 0)
            expect(covered).toBeGreaterThanOrEqual((panel.widthMm - 26) * (panel.heightMm - 26) - 1e-6)
            continue
          }
          const need = (at: string) =>
            Math.max(
              plan.method.bleedMm,
              ...panel.edges.filter((e) => e.at === at).map((e) => EDGE_RULES[e.meets].wrapUnderMm + GRIP_MM),
            )
          const along = own[0]?.along
          // A piece that is pre-stretched is cut smaller by as much; on the panel it lies at its stretched size.
          const laid = 1 + (plan.pieces.find((c) => c.panelId === panel.id)?.preStretch ?? 0)
          const sum = (size: 'cutWidthMm' | 'cutHeightMm', axis: 'width' | 'height') =>
            laid * (along === axis ? own.reduce((s, p) => s + p[size], 0) : Math.min(...own.map((p) => p[size])))
          expect(sum('cutWidthMm', 'width')).toBeGreaterThanOrEqual(panel.widthMm + need('left') + need('right') - 1e-6)
          expect(sum('cutHeightMm', 'height')).toBeGreaterThanOrEqual(
            panel.heightMm + need('top') + need('bottom') - 1e-6,
          )
        }
      }),
      { numRuns: 120 },
    )
  })
  it('goes out and comes in as itself, and the same twice gives the same', () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        const back = readPlan(writePlan(plan))
        expect(back.ok && back.value).toEqual(plan)
        expect([...reckon(plan, catalogue, []).figures.values()]).toEqual([
          ...reckon(plan, catalogue, []).figures.values(),
        ])
      }),
      { numRuns: 30 },
    )
  })
  it('merging is right by its laws: with itself nothing changes, and sides that touch different panels commute', () => {
    fc.assert(
      fc.property(
        anyPlan.filter((p) => p.panels.length >= 2),
        fc.integer({ min: 1, max: 900 }),
        fc.integer({ min: 1, max: 900 }),
        (base, a, b) => {
          const set = (plan: Plan, index: number, note: string): Plan => ({
            ...plan,
            panels: plan.panels.map((p, i) => (i === index ? { ...p, note } : p)),
          })
          const [mine, theirs] = [set(base, 0, `a${a}`), set(base, 1, `b${b}`)]
          const [x, y] = [mergePlans(base, mine, theirs), mergePlans(base, theirs, mine)]
          expect(x.clean && x.plan).toEqual(set(mine, 1, `b${b}`))
          expect(y.clean && y.plan.panels).toEqual(x.clean && x.plan.panels)
          expect(mergePlans(base, base, base)).toMatchObject({ clean: true, theirParts: [] })
        },
      ),
      { numRuns: 40 },
    )
  })
})

describe('kit', () => {
  it('seeded numbers repeat, differ by seed and fill ten bins evenly (chi-square under 27.9 for 9 degrees at 0.1 %)', () => {
    const take = (seed: number, n: number) => {
      const r = seeded(seed)
      return Array.from({ length: n }, r)
    }
    expect(take(7, 50)).toEqual(take(7, 50))
    expect(take(7, 50)).not.toEqual(take(8, 50))
    const bins = Array<number>(10).fill(0)
    for (const x of take(3, 20_000)) bins[Math.floor(x * 10)] = (bins[Math.floor(x * 10)] ?? 0) + 1
    expect(bins.reduce((s, n) => s + (n - 2000) ** 2 / 2000, 0)).toBeLessThan(27.9)
  })
  it('texts that differ have marks that differ', () =>
    fc.assert(fc.property(fc.string(), fc.string(), (a, b) => (a === b) === (textHash(a) === textHash(b)))))
  it('a time budget is spent when its clock says so', () => {
    let now = 0
    const budget = timeBudget(() => now, 2)
    expect(budget.spent?.()).toBe(false)
    now = 1999
    expect(budget.spent?.()).toBe(false)
    now = 2000
    expect(budget.spent?.()).toBe(true)
  })
  it('reads whatever JSON the platform reads, and never more', () => {
    fc.assert(
      fc.property(fc.json({ maxDepth: 5 }), (text) => {
        const r = readJson(text)
        expect(r.ok && r.value).toEqual(JSON.parse(text))
      }),
    )
    fc.assert(
      fc.property(fc.string(), (text) => {
        let platform = true
        try {
          JSON.parse(text)
        } catch {
          platform = false
        }
        return readJson(text).ok === platform || text.trim() === ''
      }),
    )
  })
  it('names a place as people write it', () => expect(pathText(['pieces', 3, 'width_mm'])).toBe('pieces[3].width_mm'))
})
