import { describe, expect, it } from 'vitest'
import { sideDrops } from '@/core/engines/pieces/side-drops'
import { edgeShare } from '@/core/engines/pieces/pieces'
import { guardsAfter } from '@/core/engines/run-sheet/guards'
import type { LogRow } from '@/core/model/log/schema'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { catalogue, row } from '../fixtures/plans'

const van = DEMO_JOBS.map((j) => Plan.parse(j.make())).find((p) => p.vehicle.kind === 'high_van')
if (!van) throw new Error('no van in the demo')
const at = (plan: Plan, ledger: LogRow[] = []) => reckon(plan, catalogue, ledger)
const r = at(van)
const drops = r.laid.filter((p) => p.covers)
const byPanels: Plan = { ...van, layout: { ...van.layout, drops: { ...van.layout.drops, use: false } } }
const flat = at(byPanels)
const sides = new Map(drops.map((d) => [d.panelId, d.covers ?? []]))

describe('a printed side is its drops, not its panels', () => {
  it('the van is laid as the roll holds it: drops on the sides, panels elsewhere', () => {
    expect(drops.length).toBeGreaterThan(1)
    const onRoll = r.layouts.flatMap((l) => l.pieces.map((p) => p.id)).sort()
    expect(r.laid.map((p) => p.id).sort()).toEqual(onRoll)
    const lays = r.steps.filter((s) => s.code === 'lay').map((s) => s.id)
    expect(lays.sort()).toEqual(r.laid.map((p) => `lay:${p.id}`).sort())
    // Without drops every panel is a step again.
    expect(flat.laid.every((p) => !p.covers)).toBe(true)
    expect(flat.steps.filter((s) => s.code === 'lay')).toHaveLength(flat.pieces.length)
  })

  it('every side of every covered panel lies on the drops once: shares add up to one', () => {
    for (const covers of sides.values())
      for (const id of covers)
        for (const side of ['top', 'bottom', 'left', 'right'] as const) {
          const sum = drops.filter((d) => d.covers?.includes(id)).reduce((s, d) => s + edgeShare(d, id, side), 0)
          expect(sum, `${id} ${side}`).toBeCloseTo(1, 6)
        }
  })

  it('edges are as long together as panel by panel, and their tape is but for more ends', () => {
    const total = (x: typeof r, panelId: string) =>
      x.edges.edges.filter((e) => e.panelId === panelId).reduce((s, e) => s + e.lengthMm, 0)
    for (const covers of sides.values()) for (const id of covers) expect(total(r, id)).toBeCloseTo(total(flat, id), 3)
    expect(r.edges.edges.every((e) => e.lengthMm > 0)).toBe(true)
  })

  it('each corner of each panel on a drop has a working of its own', () => {
    const ids = r.edges.corners.map((c) => c.id)
    expect(new Set(ids).size).toBe(ids.length)
    const onDrops = r.edges.corners.filter((c) => drops.some((d) => d.id === c.pieceId))
    expect(new Set(onDrops.map((c) => c.panelId)).size).toBeGreaterThan(1)
    for (const c of onDrops) expect(r.figures.get(`corner/${c.id}/pull`)?.value).toBe(c.pull)
  })

  it('each seam of drops is read as an overlap, hotter than the film beside it', () => {
    const laps = r.points.filter((p) => p.kind === 'overlap')
    const seams = drops.filter((d) => d.seamMm > 0)
    expect(laps.map((p) => p.pieceId).sort()).toEqual(seams.map((d) => d.id).sort())
    const sheet = van.film.sheets.find((s) => s.id === van.film.mainId)
    for (const p of laps) {
      expect(p.range).toEqual(sheet?.overlapC)
      expect(van.panels.some((x) => x.id === p.panelId)).toBe(true)
      expect(p.name).toMatch(/^Drop \d/)
    }
    expect(Number(r.figures.get('rail/seams')?.value)).toBeCloseTo(
      seams.reduce((s, d) => s + d.seamMm, 0),
      6,
    )
  })

  it('each place is read once: as many as panel by panel, and the laps', () => {
    const places = (x: typeof r) =>
      new Set(x.points.filter((p) => p.kind !== 'overlap').map((p) => `${p.panelId}/${p.kind}/${p.edgeId ?? p.name}`))
    expect([...places(r)].sort()).toEqual([...places(flat)].sort())
    expect(new Set(r.points.map((p) => p.id)).size).toBe(r.points.length)
  })

  it('the drop that lies under is laid first; the side’s minutes are those of its panels, and seams on top', () => {
    const [sideId = '', covers = []] = [...sides][0] ?? []
    const own = r.steps.filter((s) => s.panelId === sideId)
    expect(own.map((s) => s.code).filter((c, i, all) => all.indexOf(c) === i)).toEqual([
      'degrease_panel',
      'lay',
      'seam',
      'trim',
      'post_heat',
    ])
    const numbers = own.filter((s) => s.code === 'lay').map((s) => Number(/-(\d+)$/.exec(s.id)?.[1]))
    const rearFirst = van.layout.drops.airflow === 'front_over_rear'
    expect(numbers).toEqual([...numbers].sort((a, b) => (rearFirst ? b - a : a - b)))
    const sum = (x: typeof r, code: string, of: (id: string | null) => boolean) =>
      x.steps.filter((s) => s.code === code && of(s.panelId)).reduce((s, v) => s + v.minutes, 0)
    const onSide = sum(r, 'lay', (id) => id === sideId)
    const onPanels = sum(flat, 'lay', (id) => covers.includes(id ?? ''))
    expect(Math.abs(onSide - onPanels)).toBeLessThanOrEqual(covers.length + numbers.length)
  })

  it('what was logged panel by panel still counts: steps once all panels were done, readings by their place', () => {
    const [sideId = '', covers = []] = [...sides][0] ?? []
    const done = (id: string) => row({ kind: 'step_done', stepId: `lay:${id}` }, '2026-11-24T10:00:00.000Z')
    const lays = (ledger: LogRow[]) =>
      at(van, ledger)
        .steps.filter((s) => s.panelId === sideId && s.code === 'lay')
        .map((s) => s.state)
    expect(new Set(lays(covers.map(done)))).toEqual(new Set(['done']))
    if (covers.length > 1) expect(new Set(lays(covers.slice(1).map(done)))).toEqual(new Set(['to_do']))
    const point = flat.points.find((p) => covers.includes(p.panelId) && p.kind === 'edge')
    if (!point) throw new Error('no point')
    const reading = {
      kind: 'reading' as const,
      pieceId: point.pieceId,
      pointId: point.id,
      tempC: point.range.min + 1,
      gunAway: true,
    }
    const after = at(van, [row(reading, '2026-11-24T11:00:00.000Z')])
    expect(after.points.filter((p) => p.state === 'done').map((p) => [p.panelId, p.edgeId])).toEqual([
      [point.panelId, point.edgeId],
    ])
  })

  it('finishing the heat of a side with places of its panels unread is asked about', () => {
    const [sideId = ''] = [...sides.keys()]
    const step = r.steps.find((s) => s.id === `post_heat:${sideId}`)
    if (!step) throw new Error('no heat')
    const base = { steps: r.steps, points: r.points, openDefects: 0, recheckDueMs: null, nowMs: 0 }
    const open = r.points.filter((p) => step.covers?.includes(p.panelId)).length
    expect(guardsAfter(step, base)).toEqual([{ guard: 'points_open', stepId: step.id, count: open }])
  })

  it('seams come from the plan of drops: as many as drops less one on each side', () => {
    const film = van.film.sheets.find((s) => s.id === van.film.mainId)
    if (!film) throw new Error('no film')
    const planned = sideDrops(van, film).flatMap((s) => (s.plan.ok ? s.plan.value.seamsMm : []))
    expect(drops.filter((d) => d.seamMm > 0)).toHaveLength(planned.length)
  })
})
