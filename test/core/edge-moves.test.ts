import { describe, expect, it } from 'vitest'
import { edgeMoves } from '@/core/engines/edge/edge-moves'
import { Plan } from '@/core/model/plan/schema'
import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import type { ShopSettings } from '@/core/model/shop/shop'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { catalogue } from '../fixtures/plans'

const plans = DEMO_JOBS.map((j) => Plan.parse(j.make()))
const [hatch] = plans as [Plan, ...Plan[]]
const rules = (over: Partial<ShopSettings> = {}): ShopSettings => ({ ...DEFAULT_SHOP, ...over })
const usual = rules()

describe('which edges other rules move', () => {
  it('the same rules move nothing, on any job', () => {
    for (const plan of plans) expect(edgeMoves(plan, usual, usual)).toEqual([])
  })

  it('what it says is what a reckoning by each set of rules says, edge by edge', () => {
    const deeper = rules({ winter: true, edgeLeave: { opening: 14 } })
    for (const plan of plans) {
      const of = (shop: ShopSettings) => reckon(plan, { ...catalogue, shop }, []).edges.edges
      const [before, after] = [of(usual), of(deeper)]
      const differ = after.filter((e, i) => e.leaveMm !== before[i]?.leaveMm || e.cut !== before[i]?.cut)
      const moves = edgeMoves(plan, usual, deeper)
      expect(moves.map((m) => [m.at, m.to.leaveMm])).toEqual(differ.map((e) => [e.at, e.leaveMm]))
    }
    expect(edgeMoves(hatch, usual, deeper).length).toBeGreaterThan(4)
  })

  it('an edge chosen by hand stays; the others of its kind move', () => {
    const deeper = rules({ edgeLeave: { opening: 14 } })
    const moved = edgeMoves(hatch, usual, deeper)
    const [panel] = hatch.panels.filter((p) => p.edges.some((e) => e.meets === 'opening'))
    const edge = panel?.edges.find((e) => e.meets === 'opening')
    if (!panel || !edge) throw new Error('no opening')
    const byHand: Plan = {
      ...hatch,
      panels: hatch.panels.map((p) =>
        p.id === panel.id ? { ...p, edges: p.edges.map((e) => (e.id === edge.id ? { ...e, leaveMm: 9 } : e)) } : p,
      ),
    }
    const left = edgeMoves(byHand, usual, deeper)
    expect(left).toHaveLength(moved.length - 1)
    expect(left.every((m) => m.to.leaveMm !== 9)).toBe(true)
  })

  it('another cut side names both', () => {
    const [row] = reckon(hatch, catalogue, []).edges.edges.filter((e) => e.meets === 'fixed_gap')
    const rule = row?.why[0] ?? ''
    const flush = rules({ edgeCut: { [rule]: 'flush' } })
    const moves = edgeMoves(hatch, usual, flush)
    expect(moves.length).toBeGreaterThan(0)
    for (const m of moves) {
      expect(m.to.cut).toBe('flush')
      expect(m.from.cut).not.toBe('flush')
      expect(m.meets).toBe('fixed_gap')
    }
  })
})
