import { describe, expect, it } from 'vitest'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { Plan } from '@/core/model/plan/schema'
import { applyChange } from '@/core/model/plan/plan-change'
import { NO_SOLUTIONS } from '@/core/model/catalogue/solution-tables'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { reckon } from '@/core/reckon/reckon'
import { panelMesh } from '@/core/engines/stretch/panel-mesh'
import { onPanel, type ScanSurface } from '@/core/solve/mesh/scan'
import { scanMark, stretchKey } from '@/core/model/catalogue/stretch-key'
import type { SolvedStretch } from '@/core/model/catalogue/solved-stretch'
import { mapInPlan, waysOutFor } from '@/core/engines/stretch/ways'
import { filmOf } from '@/core/model/plan/piece-choice'
import type { Panel } from '@/core/model/vehicle/schema'
import { DEMO_JOBS } from '@/db/demo/jobs'

const ID = 'corner'
/** A corner bent sharply both ways, as it is; and the same panel as a hurried tape has it: flat. */
const CORNER: Panel = {
  ...newPanel({ id: ID, name: 'Corner', kind: 'front_bumper', side: 'centre', widthMm: 600, heightMm: 400 }),
  nose: { at: 'top', radiusMm: 80, angleDeg: 85 },
  wraps: [{ at: 'left', radiusMm: 160, angleDeg: 85 }],
}
const FLAT: Panel = { ...CORNER, nose: null, wraps: [] }
const planOf = (panel: Panel): Plan => Plan.parse({ ...(DEMO_JOBS[0]?.make() as object), panels: [panel], pieces: [] })
function scanOf(panel: Panel): ScanSurface {
  const made = panelMesh(panel, 900)
  if (!made.ok) throw new Error(made.error.code)
  return onPanel(made.value.mesh)
}
const worst = (plan: Plan, scan: ScanSurface | null): number => {
  const made = mapInPlan(plan, ID, { triangles: 900, scan })
  if (!made?.ok) throw new Error('no map')
  return made.value.feel.worst
}

describe('a scanned panel in the plan', () => {
  it('is laid on its scan, whatever the tape says: as the taped panel of the same shape is', () => {
    const scan = scanOf(CORNER)
    expect(worst(planOf(FLAT), null)).toBeLessThan(0.001)
    expect(worst(planOf(FLAT), scan)).toBeGreaterThan(0.05)
    expect(worst(planOf(FLAT), scan) / worst(planOf(CORNER), null)).toBeCloseTo(1, 1)
  })
  it('ways out are solved on the scan, and a way taken parts the scan’s film', () => {
    const scan = scanOf(CORNER)
    const plan = planOf(FLAT)
    const found = waysOutFor(plan, ID, { scan })
    if (!found.ok) throw new Error(found.error.code)
    const seam = found.value.ways.find((w) => w.code === 'seam')
    if (!seam) throw new Error('no seam')
    expect(seam.worst).toBeLessThan(worst(plan, scan) - 0.002)
    expect(worst(applyChange(plan, seam.change), scan)).toBeCloseTo(seam.worst, 3)
    // On the tape's flat surface there is nothing to better.
    const taped = waysOutFor(plan, ID)
    expect(taped.ok && taped.value.ways.filter((w) => w.code === 'seam')).toEqual([])
  })
  it('what was solved holds for its scan alone: another scan, or none, takes the closed forms until it is solved', () => {
    const plan = planOf(FLAT)
    const [panel] = plan.panels
    const film = panel && filmOf(plan, panel)
    if (!panel || !film) throw new Error('no film')
    const mark = scanMark({ triangles: 900, at: '2026-11-20T08:00:00.000Z' })
    const value: SolvedStretch = {
      worst: 0.31,
      toPostHeatMm2: 9,
      overMm2: 9,
      wrinklesMm2: 0,
      areaMm2: 20,
      triangles: 900,
      spot: null,
      toPostHeat: [],
    }
    const solved = { [stretchKey(plan, panel, film, mark)]: value }
    const of = (scans: Record<string, string>) =>
      reckon(plan, { ...EMPTY_CATALOGUE, solutions: { ...NO_SOLUTIONS, stretch: solved }, scans }, []).figures.get(
        `stretch/${ID}/worst`,
      )
    expect(of({ [ID]: mark })?.value).toBe(0.31)
    expect(of({ [ID]: mark })?.formula).toContain('solved_on_scan')
    const wrinkled = { ...value, worst: 0.01, wrinklesMm2: 5000 }
    const { findings, figures } = reckon(
      plan,
      {
        ...EMPTY_CATALOGUE,
        solutions: { ...NO_SOLUTIONS, stretch: { [stretchKey(plan, panel, film)]: wrinkled } },
      },
      [],
    )
    expect(findings.find((f) => f.code === 'stretch_wrinkles')?.figureId).toBe(`stretch/${ID}/wrinkles`)
    expect(figures.get(`stretch/${ID}/wrinkles`)).toMatchObject({ value: 5000, unit: 'mm2' })
    expect(of({})?.value).toBe(0)
    expect(of({ [ID]: scanMark({ triangles: 900, at: '2026-11-21T08:00:00.000Z' }) })?.value).toBe(0)
  })
})
