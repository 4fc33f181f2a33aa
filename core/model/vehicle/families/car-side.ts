import type { Panel } from '../schema'
import { Lines, GAP_MM, lastColumn, rearLid, archRise } from './car-lines'
import { shape, type Features, type Run, crownOn } from './shape'
import { sideDoor, type Door } from './side-door'

/** Everything between the wing and the rear end, front to back, on the left side. */
export function columns(l: Lines): Panel[] {
  const two = l.g('doors') >= 3 && !l.van && l.style !== 'roadster'
  const h = l.belt - l.sill
  const rearEnd = l.end - l.rearWrap
  const doorSpan = l.doorTo - l.doorFrom
  const [a, b, c] = l.van
    ? [l.doorFrom, l.doorFrom + Math.min(1150, doorSpan * 0.42), l.doorTo]
    : two
      ? [l.doorFrom, l.doorFrom + doorSpan * 0.53, l.doorTo]
      : [l.doorFrom, l.doorTo - Math.max(0, doorSpan - 1350), l.doorTo]
  const door = (own: Door) => sideDoor(l, own)
  if (l.van) return vanColumns(l, a, b)
  const last = `${lastColumn(l)}-left`
  const front = { id: 'front-door-left', name: 'Front door left', from: a, to: b, before: 'wing-left' }
  const rear = { id: 'rear-door-left', name: 'Rear door left', from: b, to: c, before: front.id }
  const doors = two
    ? [door({ ...front, next: rear.id, withPillar: true }), door({ ...rear, next: last, withPillar: false })]
    : [door({ ...front, next: last, withPillar: l.style !== 'roadster' })]
  const from = two ? c : b
  const kind = l.style === 'pickup' ? 'bed_side' : 'quarter'
  const name = l.style === 'pickup' ? 'Bed side left' : 'Quarter left'
  return [
    ...doors,
    tail({
      l,
      id: last,
      name,
      from,
      to: rearEnd,
      height: h,
      before: two ? 'rear-door-left' : 'front-door-left',
      beforeHeight: l.doorHeight,
      kind,
    }),
  ]
}

export function vanSide({
  l,
  id,
  name,
  w,
  height,
  before,
  after,
}: {
  l: Lines
  id: string
  name: string
  w: number
  height: number
  before: string
  after: string
}): Panel {
  const door = height - l.sillHeight - l.doorHeight
  return shape({
    id,
    name,
    kind: 'van_side',
    side: 'left',
    start: [0, 0],
    runs: [
      { at: 'top', to: [w, 0], meets: 'drip_rail', neighbour: 'roof', gapMm: 20 },
      { at: 'right', to: [w, height - l.sillHeight], meets: 'fixed_gap', neighbour: after, gapMm: GAP_MM },
      { at: 'bottom', to: [0, height - l.sillHeight], meets: 'opening', neighbour: 'sill-left', gapMm: GAP_MM },
      { at: 'left', to: [0, door], meets: 'opening', neighbour: before, gapMm: GAP_MM },
      { at: 'left', to: [0, 0], meets: 'window_trim' },
    ],
    features: vanFeatures(l, w, height),
  })
}

export function vanFeatures(l: Lines, w: number, height: number): Features {
  const upper = height - l.sillHeight - l.doorHeight
  const pane = l.style === 'minibus' || w < 700 || upper < 420
  return {
    ...crownOn(w, height, 6, 10),
    surface: { material: 'steel', thicknessMm: 0.9 },
    recesses: pane
      ? []
      : [
          {
            id: 'panel',
            name: 'Side recess',
            mouthWidthMm: w * 0.6,
            mouthHeightMm: upper * 0.55,
            depthMm: 28,
            wallDeg: 45,
            open: false,
            way: 'bridge',
            gapMm: 60,
            bendRadiusMm: 12,
            openAt: null,
            xMm: w / 2,
            yMm: upper * 0.5,
          },
        ],
    holes:
      l.style === 'minibus' && upper > 300 && w > 500
        ? [{ id: 'window', name: 'Window', widthMm: w * 0.8, heightMm: upper * 0.7, xMm: w / 2, yMm: upper * 0.5 }]
        : [],
  }
}

/** The last column over the rear wheel: a quarter, a bed side or a van's aft side. */
export function tail({
  l,
  id,
  name,
  from,
  to,
  height,
  before,
  beforeHeight,
  kind,
}: {
  l: Lines
  id: string
  name: string
  from: number
  to: number
  height: number
  before: string
  beforeHeight: number
  kind: Panel['kind']
}): Panel {
  const w = to - from
  const axle = l.rearAxle - from
  const facing = l.van ? height - l.sillHeight : beforeHeight
  const bootRun = rearLid(l) === 'boot-lid' ? Math.min(l.boot, w - 40) : 0
  const roofed = l.van
    ? { meets: 'drip_rail' as const, neighbour: 'roof', gapMm: 20 }
    : kind === 'bed_side'
      ? { meets: 'rubber_seal' as const }
      : { meets: 'window_trim' as const, neighbour: l.style === 'roadster' ? undefined : 'roof', gapMm: l.window }
  const lamp = height - l.bumperHeight
  return shape({
    id,
    name,
    kind,
    side: 'left',
    start: [0, 0],
    runs: [
      { at: 'top', to: [w - bootRun, 0], ...roofed },
      ...(bootRun > 0
        ? [{ at: 'top', to: [w, 0], meets: 'fixed_gap', neighbour: 'boot-lid', gapMm: GAP_MM } as Run]
        : []),
      { at: 'right', to: [w, lamp], meets: 'lamp' },
      { at: 'right', to: [w, height], meets: 'fixed_gap', neighbour: 'rear-bumper', gapMm: GAP_MM },
      { at: 'bottom', to: [axle + l.arch, height], meets: 'free' },
      { at: 'bottom', to: [axle - l.arch, height], meets: 'wheel_arch', riseMm: -archRise(l, l.belt - l.sill) },
      { at: 'bottom', to: [0, height], meets: 'free' },
      { at: 'left', to: [0, facing], meets: 'fixed_gap', neighbour: 'sill-left' },
      { at: 'left', to: [0, 0], meets: 'fixed_gap', neighbour: before, gapMm: GAP_MM },
    ],
    features: l.van ? vanFeatures(l, w, height) : crownOn(w, height, 18, 24),
  })
}

export function sill(l: Lines, mid: readonly Panel[]): Panel {
  const w = mid.slice(0, -1).reduce((s, p) => s + p.widthMm, 0)
  let x = 0
  return shape({
    id: 'sill-left',
    name: 'Sill left',
    kind: 'sill',
    side: 'left',
    start: [0, 0],
    runs: [
      ...mid
        .slice(0, -1)
        .map((p): Run => ({ at: 'top', to: [(x += p.widthMm), 0], meets: 'opening', neighbour: p.id, gapMm: GAP_MM })),
      { at: 'right', to: [w, l.sillHeight], meets: 'fixed_gap', neighbour: mid.at(-1)?.id },
      { at: 'bottom', to: [0, l.sillHeight], meets: 'bumper_underside' },
      { at: 'left', to: [0, 0], meets: 'fixed_gap', neighbour: 'wing-left' },
    ],
    features: { ...crownOn(w, l.sillHeight, 2, 60) },
  })
}

/** A van: one door, then the load space in two parts, the seam before the rear wheel. */
function vanColumns(l: Lines, a: number, b: number): Panel[] {
  const rearEnd = l.end - l.rearWrap
  const top = l.g('height') - l.sill - 60
  const s = Math.max(b + 300, l.rearAxle - l.arch - 60)
  return [
    sideDoor(l, {
      id: 'front-door-left',
      name: 'Front door left',
      from: a,
      to: b,
      next: 'side-fore-left',
      before: 'wing-left',
      withPillar: false,
    }),
    vanSide({
      l,
      id: 'side-fore-left',
      name: 'Side, fore left',
      w: s - b,
      height: top,
      before: 'front-door-left',
      after: 'side-aft-left',
    }),
    tail({
      l,
      id: 'side-aft-left',
      name: 'Side, aft left',
      from: s,
      to: rearEnd,
      height: top,
      before: 'side-fore-left',
      beforeHeight: top,
      kind: 'van_side',
    }),
  ]
}
