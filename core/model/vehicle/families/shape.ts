import { nth } from '../../../kit/known'
import { arcLengthMm } from '../../../kit/plane'
import { newPanel, UNDECIDED } from '../new-panel'
import { mirrorPanel } from '../mirror'
import { outlineOf } from '../outline'
import { WIDEST_GAP_MM } from '../kinds'
import type { Edge, Panel, Recess } from '../schema'

/** One run of an outline as a family draws it: where it ends and what lies along it. */
export interface Run {
  at: Edge['at']
  to: [number, number]
  meets: Edge['meets']
  neighbour?: string | undefined
  gapMm?: number
  riseMm?: number
  radiusMm?: number
}

/** What a style says of how far away the next panel is: a gap, or a span over a window or a wheel. */
const between = (mm: number | undefined): Pick<Edge, 'gapMm' | 'spanMm'> =>
  mm !== undefined && mm > WIDEST_GAP_MM ? { gapMm: null, spanMm: mm } : { gapMm: mm ?? null, spanMm: null }

export type Features = Partial<
  Omit<Panel, 'id' | 'name' | 'kind' | 'side' | 'edges' | 'widthMm' | 'heightMm' | 'assumed'>
>

/** A panel from a clockwise outline (x right, y down, mm). Everything about it is assumed until it is taped. */
export function shape({
  id,
  name,
  kind,
  side,
  start,
  runs,
  features = {},
}: Pick<Panel, 'id' | 'name' | 'kind' | 'side'> & {
  start: [number, number]
  runs: readonly Run[]
  features?: Features
}): Panel {
  const from = (i: number): [number, number] => (i === 0 ? start : nth(runs, i - 1).to)
  const heading = (i: number): number => {
    const [a, b] = [from(i), nth(runs, i).to]
    return Math.atan2(b[1] - a[1], b[0] - a[0])
  }
  const seen: Record<string, number> = {}
  const edges = runs.map((run, i): Edge => {
    const [a, b] = [from(i), run.to]
    const n = (seen[run.at] = (seen[run.at] ?? 0) + 1)
    const turn = heading((i + 1) % runs.length) - heading(i)
    const wrapped = (((turn % (2 * Math.PI)) + 3 * Math.PI) % (2 * Math.PI)) - Math.PI
    return {
      id: n === 1 ? run.at : `${run.at}-${n}`,
      at: run.at,
      lengthMm: arcLengthMm(Math.hypot(b[0] - a[0], b[1] - a[1]), run.riseMm ?? 0),
      meets: run.meets,
      neighbour: run.neighbour ?? null,
      riseMm: run.riseMm ?? 0,
      ...between(run.gapMm),
      cornerDeg: 180 - (wrapped * 180) / Math.PI,
      cornerRadiusMm: run.radiusMm ?? null,
      grab: 'usual',
      ...UNDECIDED,
    }
  })
  const bare: Panel = { ...newPanel({ id, name, kind, side, widthMm: 1, heightMm: 1 }), edges, ...features }
  const outline = outlineOf(bare)
  const panel = { ...bare, widthMm: outline.widthMm, heightMm: outline.heightMm }
  return { ...panel, assumed: everyFigure(panel) }
}

/** A plain four-sided panel; `meets` and `neighbours` stand top, right, bottom, left. */
export function rect({
  id,
  name,
  kind,
  side,
  widthMm,
  heightMm,
  meets,
  neighbours = [],
  features = {},
}: {
  id: string
  name: string
  kind: Panel['kind']
  side: Panel['side']
  widthMm: number
  heightMm: number
  meets: [Edge['meets'], Edge['meets'], Edge['meets'], Edge['meets']]
  neighbours?: [string?, string?, string?, string?]
  features?: Features & { gaps?: [number?, number?, number?, number?]; insetMm?: number }
}): Panel {
  const { gaps = [], insetMm = 0, ...rest } = features
  const corner: [number, number][] = [
    [widthMm - insetMm, 0],
    [widthMm, heightMm],
    [0, heightMm],
    [insetMm, 0],
  ]
  const runs = (['top', 'right', 'bottom', 'left'] as const).map((at, i): Run => ({
    at,
    to: nth(corner, i),
    meets: nth(meets, i),
    neighbour: neighbours[i],
    ...(gaps[i] === undefined ? {} : { gapMm: gaps[i] }),
  }))
  return shape({ id, name, kind, side, start: [insetMm, 0], runs, features: rest })
}

/** Every figure of a panel, by the names that `assumed` uses. */
export const everyFigure = (p: Panel): string[] => [
  'widthMm',
  'heightMm',
  'crownMm',
  ...(p.crownDownMm === null ? [] : ['crownDownMm']),
  ...(p.cornerRadiusMm === null ? [] : ['cornerRadiusMm']),
  ...p.edges.map((e) => `edges.${e.id}`),
  ...p.recesses.map((r) => `recesses.${r.id}`),
  ...p.bodyLines.map((l) => `bodyLines.${l.id}`),
  ...p.raised.map((r) => `raised.${r.id}`),
  ...(p.nose ? ['nose'] : []),
  ...(p.wraps.length > 0 ? ['wraps'] : []),
]

/** Left panels and their mirrors; panels of the middle stay single. */
export const bothSides = (left: readonly Panel[]): Panel[] => left.flatMap((p) => [p, mirrorPanel(p)])

export const cup = (xMm: number, yMm: number): Recess => ({
  id: 'cup',
  name: 'Handle cup',
  mouthWidthMm: 130,
  mouthHeightMm: 70,
  depthMm: 22,
  wallDeg: 45,
  open: true,
  way: 'feed',
  gapMm: 60,
  bendRadiusMm: 8,
  openAt: 'top',
  xMm,
  yMm,
})
export const plateRecess = (xMm: number, yMm: number): Recess => ({
  id: 'plate',
  name: 'Plate recess',
  mouthWidthMm: 540,
  mouthHeightMm: 140,
  depthMm: 22,
  wallDeg: 45,
  open: false,
  way: 'bridge',
  gapMm: 80,
  bendRadiusMm: 10,
  openAt: null,
  xMm,
  yMm,
})
export const crown = (mm: number, overMm: number, downMm: number, downOverMm: number): Features => ({
  crownMm: mm,
  crownOverMm: overMm,
  crownDownMm: downMm,
  crownDownOverMm: downOverMm,
})

/** A crown that fits on the panel: the straightedge is never longer than the panel is. */
export const crownOn = (widthMm: number, heightMm: number, perMetre: number, downPerMetre: number): Features => {
  const [over, down] = [Math.min(1000, Math.floor(widthMm)), Math.min(1000, Math.floor(heightMm))]
  // Rise goes with the square of the chord on one arc.
  return crown(perMetre * (over / 1000) ** 2, over, downPerMetre * (down / 1000) ** 2, down)
}
