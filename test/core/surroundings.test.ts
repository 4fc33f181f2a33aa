import { describe, expect, test } from 'vitest'
import { skinOf } from '@/core/engines/skin/skin'
import { surroundingsOf } from '@/core/engines/skin/surroundings'
import { within } from '@/core/kit/plane'
import { DEMO_JOBS } from '@/db/demo/jobs'

const hatch = DEMO_JOBS[0]?.make()

describe('glass and lamps between the panels', () => {
  test('a windscreen is drawn once between bonnet and roof, and lies on neither', () => {
    const panels = (hatch?.panels ?? []).filter((p) => p.id === 'bonnet' || p.id === 'roof')
    const skin = skinOf(panels)
    const glass = surroundingsOf(skin).filter((s) => s.kind === 'glass')
    const screen = glass.find((g) => g.id === 'bonnet/bottom' || g.id.startsWith('bonnet/'))
    expect(glass.filter((g) => g.id.startsWith('roof/') && g.path === screen?.path)).toEqual([])
    expect(screen?.path).toHaveLength(4)
    for (const p of screen?.path ?? [])
      for (const panel of skin.panels) expect(within(panel.path, p.x, p.y), panel.id).toBe(false)
    // Twice named, once drawn: the roof's own front edge names the bonnet too.
    expect(glass.filter((g) => g.id.startsWith('roof/top')).length).toBe(0)
  })
  test('every demo vehicle: none covers the middle of a panel, and a lamp is no deeper than it is long', () => {
    let lamps = 0
    for (const job of DEMO_JOBS) {
      const skin = skinOf(job.make().panels)
      for (const s of surroundingsOf(skin)) {
        for (const panel of skin.panels) {
          const middle = { x: (panel.box.left + panel.box.right) / 2, y: (panel.box.top + panel.box.bottom) / 2 }
          if (panel.on === null) expect(within(s.path, middle.x, middle.y), `${s.id} on ${panel.id}`).toBe(false)
        }
        if (s.kind !== 'lamp') continue
        lamps++
        const [x, y] = [s.path.map((p) => p.x), s.path.map((p) => p.y)]
        const size = [Math.max(...x) - Math.min(...x), Math.max(...y) - Math.min(...y)].sort((a, b) => a - b)
        expect(size[0] ?? 0).toBeLessThanOrEqual((size[1] ?? 0) + 0.01)
      }
    }
    expect(lamps).toBeGreaterThan(4)
  })
  test('a panel that meets neither has neither', () => {
    const roof = hatch?.panels.find((p) => p.id === 'roof')
    if (!roof) throw new Error('no roof')
    const plain = { ...roof, edges: roof.edges.map((e) => ({ ...e, meets: 'opening' as const, neighbour: null })) }
    expect(surroundingsOf(skinOf([plain]))).toEqual([])
  })
})
