import { tableRow } from './table'
import { COARSE } from '@/web/pieces/fineness'
import type { TriMesh } from '@/core/solve/mesh'
import { flatPanel } from '@/core/engines/stretch/flat-panel'
import { choiceFor, filmOf } from '@/core/model/plan/piece-choice'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { laidPanel } from '@/core/engines/stretch/sticking-order'
import { waysOutOnMesh } from '@/core/engines/stretch/mesh-ways'
import { panelMesh } from '@/core/engines/stretch/panel-mesh'
import type { Panel } from '@/core/model/vehicle/schema'
import { Plan } from '@/core/model/plan/schema'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { cap, sheet } from '../test/fixtures/meshes'
import { conjugateGradients } from './yardstick'

/** A bumper's end that wraps round where its nose rolls over, and a mirror cap that rolls over on all sides. */
const CORNER: Panel = {
  ...newPanel({ id: 'p', name: 'P', kind: 'front_bumper', side: 'front', widthMm: 600, heightMm: 400 }),
  nose: { at: 'top', radiusMm: 80, angleDeg: 85 },
  wraps: [{ at: 'left', radiusMm: 160, angleDeg: 85 }],
}
const CAP: Panel = {
  ...newPanel({ id: 'p', name: 'P', kind: 'mirror', side: 'left', widthMm: 250, heightMm: 200 }),
  crownMm: 50,
  crownOverMm: 250,
  crownDownMm: 20,
  crownDownOverMm: 200,
  wraps: (['left', 'right', 'top', 'bottom'] as const).map((at) => ({ at, radiusMm: 55, angleDeg: 45 })),
}

const RECESS = {
  id: 'r',
  name: 'R',
  mouthWidthMm: 200,
  mouthHeightMm: 140,
  depthMm: 30,
  wallDeg: 60,
  open: false,
  way: 'feed',
  gapMm: 60,
  bendRadiusMm: null,
  openAt: null,
  xMm: 400,
  yMm: 250,
} as const
const plain = (over: Partial<Panel>, w: number, h: number): Panel => ({
  ...newPanel({ id: 'p', name: 'P', kind: 'bonnet', side: 'centre', widthMm: w, heightMm: h }),
  ...over,
})

/** Shapes of the trade, each against the same solver with many more steps. */
function shapes(): string[] {
  const list: [string, Panel | TriMesh][] = [
    ['bonnet', plain({ crownMm: 35, crownOverMm: 1000, crownDownMm: 20, crownDownOverMm: 800 }, 1300, 1100)],
    ['bumper corner', CORNER],
    ['mirror cap', CAP],
    ['deep recess', plain({ recesses: [RECESS] }, 800, 550)],
    [
      'handle cup',
      plain({ recesses: [{ ...RECESS, mouthWidthMm: 110, mouthHeightMm: 70, depthMm: 18, xMm: 200 }] }, 400, 400),
    ],
    [
      'hole in a crown',
      plain(
        {
          crownMm: 40,
          crownOverMm: 600,
          crownDownMm: 40,
          crownDownOverMm: 600,
          holes: [{ id: 'h', name: 'H', xMm: 400, yMm: 250, widthMm: 150, heightMm: 120 }] as Panel['holes'],
        },
        800,
        550,
      ),
    ],
    ['saddle', sheet(45, 45, (u, v) => [600 * u, 600 * v, 480 * ((u - 0.5) ** 2 - (v - 0.5) ** 2)])],
    [
      'bump',
      sheet(45, 45, (u, v) => [800 * u, 600 * v, 60 * Math.exp(-(((u - 0.5) / 0.15) ** 2 + ((v - 0.5) / 0.2) ** 2))]),
    ],
    [
      'flange',
      sheet(60, 20, (u, v) => [(200 + 30 * v) * Math.cos(2 * u), (200 + 30 * v) * Math.sin(2 * u), -60 * v * v]),
    ],
  ]
  return list.map(([name, shape]) => {
    const made = 'positions' in shape ? { ok: true as const, value: { mesh: shape } } : panelMesh(shape, 4000)
    if (!made.ok) throw new Error(made.error.code)
    const solve = (thorough: boolean) => {
      const out = flatPanel(made.value.mesh, { limit: 0.1, shrink: 0, pull: 'tightest', thorough })
      if (!out.ok) throw new Error(out.error.code)
      return out.value.report
    }
    const [own, best] = [solve(false), solve(true)]
    const off = (a: number, b: number) => `${(100 * (a / b - 1)).toFixed(2)} %`
    return tableRow(
      name,
      own.triangles,
      `${(100 * own.stretch.max).toFixed(2)} %`,
      off(own.stretch.max, Math.min(own.stretch.max, best.stretch.max)),
      `${(100 * own.stretch.mean).toFixed(2)} %`,
      off(own.stretch.mean, best.stretch.mean),
    )
  })
}

function timed(mesh: TriMesh) {
  const began = performance.now()
  const out = flatPanel(mesh, { limit: 0.1, shrink: 0 })
  if (!out.ok) throw new Error(out.error.code)
  return { report: out.value.report, ms: performance.now() - began }
}

/** Caps of a sphere, whose least is known. */
function capRows(yard: number): string[] {
  return [
    [13, 30],
    [13, 60],
    [29, 60],
    [58, 60],
    [116, 60],
  ].map(([rings, degrees]) => {
    const alpha = ((degrees as number) * Math.PI) / 180
    const { report, ms } = timed(cap(rings as number, alpha))
    const least = alpha / Math.sin(alpha) - 1
    return tableRow(
      `cap of ${degrees}°`,
      report.triangles,
      `${(100 * report.stretch.max).toFixed(3)} %`,
      `${(100 * least).toFixed(3)} %`,
      `${(100 * (report.stretch.max / least - 1)).toFixed(2)} %`,
      `${(ms / yard).toFixed(2)} ×`,
    )
  })
}

/** What unrolls without stretch. */
function developableRows(yard: number): string[] {
  const bent = sheet(50, 50, (u, v) => [500 * Math.sin(3 * u), 1000 * v, 500 * Math.cos(3 * u)])
  const loose = sheet(50, 50, (u, v) => [500 * Math.sin(3 * u), 1000 * v, 500 * Math.cos(3 * u)], { jitter: 0.3 })
  return [
    ['cylinder, facets along it', bent],
    ['cylinder, irregular facets', loose],
  ].map(([name, mesh]) => {
    const { report, ms } = timed(mesh as TriMesh)
    return tableRow(
      name as string,
      report.triangles,
      `${(100 * report.stretch.max).toFixed(4)} %`,
      0,
      '–',
      `${(ms / yard).toFixed(2)} ×`,
    )
  })
}

/** First, coarse maps of the demo hatch's panels, ms, the quickest first. */
function firstMaps(): number[] {
  const plan = Plan.parse(DEMO_JOBS[0]?.make())
  const ms = plan.panels.map((panel) => {
    const began = performance.now()
    laidPanel(panel, choiceFor(plan, panel, filmOf(plan, panel)), {
      triangles: COARSE,
      limit: 0.1,
      shrink: 0,
      restShrink: 0.05,
      quick: true,
      pull: 'even',
      order: plan.method.order,
    })
    return performance.now() - began
  })
  return ms.sort((a, b) => a - b)
}

/** Ways out that are found on a mesh alone. */
function wayRows(yard: number): string[] {
  return [
    ['bumper corner', CORNER],
    ['mirror cap', CAP],
  ].map(([name, panel]) => {
    const made = panelMesh(panel as Panel, 700)
    if (!made.ok) throw new Error(made.error.code)
    const began = performance.now()
    const out = waysOutOnMesh(made.value.mesh, { limit: 0.1, shrink: 0 })
    if (!out.ok) throw new Error(out.error.code)
    const ms = performance.now() - began
    const best = (kind: string) => out.value.ways.filter((w) => w.kind === kind)[0]?.stretch
    const text = (v: number | undefined) => (v === undefined ? '–' : `${(100 * v).toFixed(1)} %`)
    return tableRow(
      name as string,
      out.value.whole.report.triangles,
      text(out.value.whole.report.stretch.max),
      out.value.ways.length,
      `${(ms / yard).toFixed(2)} ×`,
      text(best('seam')),
      text(best('slits')),
      text(best('seam_and_slits')),
    )
  })
}

/** Worst stretch against what is known to be the least, and time against the yardstick in the same run. */
export function stretchBench(): string {
  const yard = conjugateGradients(cap(58, 1), 600)
  const first = firstMaps()
  return `## Flat film with the least worst stretch

The yardstick is 600 steps of conjugate gradients on the conformal map of 20,184 triangles in the same run (${yard.toFixed(0)} ms here).

| surface | triangles | worst stretch | least there can be | above it | time against the yardstick |
|---|---|---|---|---|---|
${[...capRows(yard), ...developableRows(yard)].join('\n')}

The least of a spherical cap is α/sin α − 1 (J. Milnor, 1969). A first, coarse map of a taped panel of the demo hatch:
${(first[Math.floor(first.length / 2)] ?? 0).toFixed(0)} ms in the middle of ${first.length} panels,
${(first[first.length - 1] ?? 0).toFixed(0)} ms at worst (the first one pays for compiling). Memory of the whole
bench, 80,000 triangles included: ${Math.round(process.memoryUsage.rss() / 1e6)} MB now,
${Math.round(process.resourceUsage().maxRSS / 1000)} MB at most.

### Against the same solver with many more steps

| shape | triangles | worst stretch | above the least known | mean | off the longer run’s |
|---|---|---|---|---|---|
${shapes().join('\n')}

### Ways out found on the mesh alone

| surface | triangles | whole | ways solved | time, all of them | best seam | best relief cuts | both |
|---|---|---|---|---|---|---|---|
${wayRows(yard).join('\n')}
`
}
