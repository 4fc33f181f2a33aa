import type { Panel, Vehicle } from '../schema'
import { bothSides, crownOn, cup, plateRecess, rect, shape, type Run } from './shape'
import type { Keys } from './styles'

type CarStyle = Extract<
  Vehicle['kind'],
  'city_car' | 'saloon' | 'estate' | 'roadster' | 'suv' | 'pickup' | 'small_van' | 'high_van' | 'minibus'
>
const VANS: readonly CarStyle[] = ['small_van', 'high_van', 'minibus']
const GAP_MM = 4
/** Runs shorter than this are not told apart from their neighbour's length. */
const LEAST_RUN_MM = 12
/** Radius round which a bumper's ends turn, mm. Assumed. */
const END_RADIUS_MM = 180
/** A mirror cap is a shell: it rolls over on all sides. Assumed. */
const MIRROR_ROLL = { radiusMm: 55, angleDeg: 45 }
/** A van's tall mirror rolls over more gently. Assumed. */
const TALL_MIRROR_ROLL = { radiusMm: 100, angleDeg: 30 }
const clamp = (v: number, low: number, high: number): number => Math.max(low, Math.min(high, v))

/** The few lines in a body's side and plan that all its panels hang on, from the key lengths; all mm. */
function lines(style: CarStyle, k: Keys) {
  const g = (key: string): number => k[key] ?? 0
  const arch = g('wheel') * 0.56
  const wheelbase = Math.min(g('wheelbase'), g('length') - 4 * arch - 160)
  const front = Math.min((g('length') - wheelbase) * 0.45, 1150)
  const frontAxle = clamp(front, arch + 110, g('length') - wheelbase - arch - 110)
  const rearAxle = frontAxle + wheelbase
  const wrap = clamp(frontAxle - arch - 40, 60, 190)
  const rearWrap = clamp(g('length') - rearAxle - arch - 40, 60, 190)
  const sillHeight = clamp((g('belt') - g('sill')) * 0.2, 80, 180)
  const doorHeight = g('belt') - g('sill') - sillHeight
  const doorFrom = frontAxle + arch + 90
  const doorTo = rearAxle - arch - 60
  const bumperHeight = (g('belt') - g('sill')) * 0.55
  const window = Math.max(120, (g('height') - g('belt')) * 0.9)
  return {
    g,
    style,
    arch,
    frontAxle,
    rearAxle,
    wrap,
    rearWrap,
    sillHeight,
    doorHeight,
    doorFrom,
    doorTo,
    bumperHeight,
    window,
    van: VANS.includes(style),
    end: g('length'),
    sill: g('sill'),
    belt: g('belt'),
    frontWidth: g('width') * 0.8,
    screenWidth: g('width') * 0.9,
    drop: (g('belt') - g('sill')) * 0.14,
    bonnet: g('bonnet'),
    roof: g('roof'),
    roofWidth: g('roofWidth'),
    boot: g('boot'),
  }
}
type Lines = ReturnType<typeof lines>

/** Panels of a car, pick-up or van with all their neighbours, in walking order from the front left. */
export function carPanels(style: CarStyle, keys: Keys): Panel[] {
  const l = lines(style, keys)
  const mid = columns(l)
  return [
    frontBumper(l),
    bonnet(l),
    ...bothSides([wing(l), ...mid, sill(l, mid)]),
    roof(l, mid),
    ...rear(l),
    rearBumper(l),
    ...bothSides([...pillars(l), ...small(l)]),
    ...(style === 'city_car' || style === 'suv' ? [spoiler(l)] : []),
  ]
}

/**
 * How a length is shared with a neighbour: the shared run and what is left over, told apart only where it is worth
 * it.
 */
function share(own: number, other: number): { shared: number; rest: number } {
  const shared = Math.min(own, other)
  return own - shared < LEAST_RUN_MM ? { shared: own, rest: 0 } : { shared, rest: own - shared }
}

const wingTop = (l: Lines): number => Math.hypot(l.doorFrom - l.wrap, l.drop)
const bonnetSide = (l: Lines): number => Math.hypot(l.bonnet, (l.screenWidth - l.frontWidth) / 2)

function bonnet(l: Lines): Panel {
  const inset = (l.screenWidth - l.frontWidth) / 2
  const { shared, rest } = share(bonnetSide(l), wingTop(l))
  // From the windscreen forward: first the wing, then what stands free of it in front.
  const at = (t: number): [number, number] => [l.screenWidth - inset * (1 - t), l.bonnet * t]
  const split = rest / (shared + rest)
  const right: Run[] = [
    ...(rest > 0 ? [{ at: 'right', to: at(split), meets: 'lamp' } as Run] : []),
    { at: 'right', to: [l.screenWidth, l.bonnet], meets: 'opening', neighbour: 'wing-right' },
  ]
  const mirror = ([x, y]: [number, number]): [number, number] => [l.screenWidth - x, y]
  const left: Run[] = [
    ...(rest > 0 ? [{ at: 'left', to: mirror(at(split)), meets: 'opening', neighbour: 'wing-left' } as Run] : []),
    { at: 'left', to: [inset, 0], meets: rest > 0 ? 'lamp' : 'opening', neighbour: rest > 0 ? undefined : 'wing-left' },
  ]
  return shape(
    'bonnet',
    'Bonnet',
    'bonnet',
    'centre',
    [inset, 0],
    [
      { at: 'top', to: [inset + l.frontWidth, 0], meets: 'opening', neighbour: 'front-bumper', radiusMm: 60 },
      ...right,
      { at: 'bottom', to: [0, l.bonnet], meets: 'glass', neighbour: 'roof', gapMm: l.window * 1.05 },
      ...left,
    ],
    {
      ...crownOn(l.screenWidth, l.bonnet, 24, 12),
      cornerRadiusMm: 60,
      bodyLines:
        l.bonnet > 700
          ? [
              {
                id: 'crease',
                name: 'Crease',
                along: 'height',
                atMm: l.screenWidth * 0.28,
                radiusMm: 12,
                seam: false,
                foldDeg: 6,
              },
            ]
          : [],
    },
  )
}

/** A bumper's ends turn round the corners of the body. Assumed until a gauge has been laid on. */
function ends(wrapMm: number): Panel['wraps'] {
  const angleDeg = Math.min(65, (wrapMm * 1.3 * 180) / (END_RADIUS_MM * Math.PI))
  return (['left', 'right'] as const).map((at) => ({ at, radiusMm: END_RADIUS_MM, angleDeg: Math.round(angleDeg) }))
}

function frontBumper(l: Lines): Panel {
  const width = l.g('width') + 2 * l.wrap
  const side = (width - l.frontWidth) / 2
  return shape(
    'front-bumper',
    'Front bumper',
    'front_bumper',
    'front',
    [0, 0],
    [
      { at: 'top', to: [side, 0], meets: 'lamp' },
      { at: 'top', to: [side + l.frontWidth, 0], meets: 'opening', neighbour: 'bonnet' },
      { at: 'top', to: [width, 0], meets: 'lamp' },
      { at: 'right', to: [width, l.bumperHeight], meets: 'fixed_gap', neighbour: 'wing-left', gapMm: GAP_MM },
      { at: 'bottom', to: [0, l.bumperHeight], meets: 'bumper_underside' },
      { at: 'left', to: [0, 0], meets: 'fixed_gap', neighbour: 'wing-right', gapMm: GAP_MM },
    ],
    {
      ...crownOn(width, l.bumperHeight, 95, 20),
      surface: { material: 'plastic', thicknessMm: 3 },
      nose: { at: 'top', radiusMm: 80, angleDeg: 45 },
      wraps: ends(l.wrap),
      bodyLines: [
        {
          id: 'lower',
          name: 'Lower line',
          along: 'width',
          atMm: l.bumperHeight * 0.62,
          radiusMm: 15,
          seam: true,
          foldDeg: 8,
        },
      ],
    },
  )
}

function rearBumper(l: Lines): Panel {
  const width = l.g('width') + 2 * l.rearWrap
  const hatch = Math.min(rearWidth(l), width - 40)
  const side = (width - hatch) / 2
  const doors = l.van ? ['rear-door-left', 'rear-door-right'] : [rearLid(l)]
  return shape(
    'rear-bumper',
    'Rear bumper',
    'rear_bumper',
    'rear',
    [0, 0],
    [
      { at: 'top', to: [side, 0], meets: 'lamp' },
      ...doors.map((neighbour, i): Run => ({
        at: 'top',
        to: [side + (hatch * (i + 1)) / doors.length, 0],
        meets: 'opening',
        neighbour,
      })),
      { at: 'top', to: [width, 0], meets: 'lamp' },
      {
        at: 'right',
        to: [width, l.bumperHeight],
        meets: 'fixed_gap',
        neighbour: `${lastColumn(l)}-right`,
        gapMm: GAP_MM,
      },
      { at: 'bottom', to: [0, l.bumperHeight], meets: 'bumper_underside' },
      { at: 'left', to: [0, 0], meets: 'fixed_gap', neighbour: `${lastColumn(l)}-left`, gapMm: GAP_MM },
    ],
    {
      ...crownOn(width, l.bumperHeight, 100, 20),
      surface: { material: 'plastic', thicknessMm: 3 },
      wraps: ends(l.rearWrap),
      bodyLines: [
        {
          id: 'lower',
          name: 'Lower line',
          along: 'width',
          atMm: l.bumperHeight * 0.6,
          radiusMm: 15,
          seam: true,
          foldDeg: 8,
        },
      ],
    },
  )
}

const lastColumn = (l: Lines): string => (l.van ? 'side-aft' : l.style === 'pickup' ? 'bed-side' : 'quarter')
const rearLid = (l: Lines): string =>
  l.style === 'pickup' ? 'tailgate' : l.style === 'saloon' || l.style === 'roadster' ? 'boot-lid' : 'hatch'
const rearWidth = (l: Lines): number =>
  l.van ? Math.min(l.g('width') * 0.86, l.roofWidth - 40) : l.g('width') * (l.style === 'pickup' ? 0.86 : 0.7)

function wing(l: Lines): Panel {
  const [w, h] = [l.doorFrom - l.wrap, l.belt - l.sill]
  const { shared, rest } = share(wingTop(l), bonnetSide(l))
  const split = shared / (shared + rest)
  const bumper = h - l.drop - l.bumperHeight
  const axle = l.frontAxle - l.wrap
  return shape(
    'wing-left',
    'Wing left',
    'wing',
    'left',
    [0, l.drop],
    [
      { at: 'top', to: rest > 0 ? [w * split, l.drop * (1 - split)] : [w, 0], meets: 'fixed_gap', neighbour: 'bonnet' },
      ...(rest > 0 ? [{ at: 'top', to: [w, 0], meets: 'window_trim' } as Run] : []),
      { at: 'right', to: [w, l.doorHeight], meets: 'fixed_gap', neighbour: 'front-door-left', gapMm: GAP_MM },
      { at: 'right', to: [w, h], meets: 'fixed_gap', neighbour: 'sill-left' },
      { at: 'bottom', to: [axle + l.arch, h], meets: 'free' },
      { at: 'bottom', to: [axle - l.arch, h], meets: 'wheel_arch', riseMm: -archRise(l, h) },
      { at: 'bottom', to: [0, h], meets: 'free' },
      { at: 'left', to: [0, h - l.bumperHeight], meets: 'fixed_gap', neighbour: 'front-bumper', gapMm: GAP_MM },
      ...(bumper >= LEAST_RUN_MM ? [{ at: 'left', to: [0, l.drop], meets: 'lamp' } as Run] : []),
    ],
    { ...crownOn(w, h, 22, 18) },
  )
}
const archRise = (l: Lines, height: number): number => Math.min(l.arch * 0.85, height * 0.7)

/** Everything between the wing and the rear end, front to back, on the left side. */
function columns(l: Lines): Panel[] {
  const two = l.g('doors') >= 3 && !l.van && l.style !== 'roadster'
  const h = l.belt - l.sill
  const top = l.van ? l.g('height') - l.sill - 60 : h
  const rearEnd = l.end - l.rearWrap
  const doorSpan = l.doorTo - l.doorFrom
  const [a, b, c] = l.van
    ? [l.doorFrom, l.doorFrom + Math.min(1150, doorSpan * 0.42), l.doorTo]
    : two
      ? [l.doorFrom, l.doorFrom + doorSpan * 0.53, l.doorTo]
      : [l.doorFrom, l.doorTo - Math.max(0, doorSpan - 1350), l.doorTo]
  const pillar = pillarWidth(l)
  const door = (
    id: string,
    name: string,
    from: number,
    to: number,
    next: string,
    before: string,
    withPillar: boolean,
  ): Panel => {
    const w = to - from
    return shape(
      id,
      name,
      'door',
      'left',
      [0, 0],
      [
        { at: 'top', to: [withPillar ? w - pillar : w, 0], meets: 'window_trim', neighbour: 'roof', gapMm: l.window },
        ...(withPillar
          ? [{ at: 'top', to: [w, 0], meets: 'window_trim', neighbour: 'pillar-left', gapMm: GAP_MM } as Run]
          : []),
        { at: 'right', to: [w, l.doorHeight], meets: 'opening', neighbour: next, gapMm: GAP_MM },
        { at: 'bottom', to: [0, l.doorHeight], meets: 'opening', neighbour: 'sill-left', gapMm: GAP_MM },
        { at: 'left', to: [0, 0], meets: 'opening', neighbour: before, gapMm: GAP_MM },
      ],
      {
        ...crownOn(w, l.doorHeight, 10, 22),
        recesses: [cup(w - 150, Math.min(130, l.doorHeight / 3))],
        surface: { material: 'steel', thicknessMm: 0.8 },
        bodyLines: [
          {
            id: 'waist',
            name: 'Waist line',
            along: 'width',
            atMm: l.doorHeight * 0.4,
            radiusMm: 10,
            seam: true,
            foldDeg: 8,
          },
        ],
        raised: [
          {
            id: 'handle',
            name: 'Handle',
            kind: 'handle',
            widthMm: 220,
            heightMm: 40,
            xMm: w - 150,
            yMm: Math.min(130, l.doorHeight / 3),
            removable: true,
            minutes: 15,
            riseMm: null,
          },
        ],
      },
    )
  }
  if (l.van) {
    const s = Math.max(b + 300, l.rearAxle - l.arch - 60)
    return [
      door('front-door-left', 'Front door left', a, b, 'side-fore-left', 'wing-left', false),
      vanSide(l, 'side-fore-left', 'Side, fore left', s - b, top, 'front-door-left', 'side-aft-left'),
      tail(l, 'side-aft-left', 'Side, aft left', s, rearEnd, top, 'side-fore-left', top, 'van_side'),
    ]
  }
  const last = `${lastColumn(l)}-left`
  const doors = two
    ? [
        door('front-door-left', 'Front door left', a, b, 'rear-door-left', 'wing-left', true),
        door('rear-door-left', 'Rear door left', b, c, last, 'front-door-left', false),
      ]
    : [door('front-door-left', 'Front door left', a, b, last, 'wing-left', l.style !== 'roadster')]
  const from = two ? c : b
  const kind = l.style === 'pickup' ? 'bed_side' : 'quarter'
  const name = l.style === 'pickup' ? 'Bed side left' : 'Quarter left'
  return [
    ...doors,
    tail(l, last, name, from, rearEnd, h, two ? 'rear-door-left' : 'front-door-left', l.doorHeight, kind),
  ]
}

function vanSide(l: Lines, id: string, name: string, w: number, height: number, before: string, after: string): Panel {
  const door = height - l.sillHeight - l.doorHeight
  return shape(
    id,
    name,
    'van_side',
    'left',
    [0, 0],
    [
      { at: 'top', to: [w, 0], meets: 'drip_rail', neighbour: 'roof', gapMm: 20 },
      { at: 'right', to: [w, height - l.sillHeight], meets: 'fixed_gap', neighbour: after, gapMm: GAP_MM },
      { at: 'bottom', to: [0, height - l.sillHeight], meets: 'opening', neighbour: 'sill-left', gapMm: GAP_MM },
      { at: 'left', to: [0, door], meets: 'opening', neighbour: before, gapMm: GAP_MM },
      { at: 'left', to: [0, 0], meets: 'window_trim' },
    ],
    vanFeatures(l, w, height),
  )
}

function vanFeatures(l: Lines, w: number, height: number): Parameters<typeof shape>[6] {
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
function tail(
  l: Lines,
  id: string,
  name: string,
  from: number,
  to: number,
  height: number,
  before: string,
  beforeHeight: number,
  kind: Panel['kind'],
): Panel {
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
  return shape(
    id,
    name,
    kind,
    'left',
    [0, 0],
    [
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
    l.van ? vanFeatures(l, w, height) : crownOn(w, height, 18, 24),
  )
}

function sill(l: Lines, mid: readonly Panel[]): Panel {
  const w = mid.slice(0, -1).reduce((s, p) => s + p.widthMm, 0)
  let x = 0
  return shape(
    'sill-left',
    'Sill left',
    'sill',
    'left',
    [0, 0],
    [
      ...mid
        .slice(0, -1)
        .map((p): Run => ({ at: 'top', to: [(x += p.widthMm), 0], meets: 'opening', neighbour: p.id, gapMm: GAP_MM })),
      { at: 'right', to: [w, l.sillHeight], meets: 'fixed_gap', neighbour: mid.at(-1)?.id },
      { at: 'bottom', to: [0, l.sillHeight], meets: 'bumper_underside' },
      { at: 'left', to: [0, 0], meets: 'fixed_gap', neighbour: 'wing-left' },
    ],
    { ...crownOn(w, l.sillHeight, 2, 60) },
  )
}

function roof(l: Lines, mid: readonly Panel[]): Panel {
  const sides = l.van ? mid.slice(1).map((p) => ({ id: p.id, run: p.widthMm })) : []
  const rails = sides.reduce((s, x) => s + x.run, 0)
  const length = Math.max(l.roof, rails + 60)
  const behind = l.style === 'city_car' || l.style === 'suv' ? 'spoiler' : l.style === 'pickup' ? undefined : rearLid(l)
  let y = length - rails
  const side = (hand: string): Run[] => [
    {
      at: 'right',
      to: [l.roofWidth, length - rails],
      meets: 'drip_rail',
      neighbour: `front-door-${hand}`,
      gapMm: l.window,
    },
    ...sides.map((s): Run => ({
      at: 'right',
      to: [l.roofWidth, (y += s.run)],
      meets: 'drip_rail',
      neighbour: s.id.replace('left', hand),
      gapMm: 20,
    })),
  ]
  const right = side('right')
  const left: Run[] = [...right].reverse().map((r, i, all) => ({
    ...r,
    at: 'left',
    neighbour: r.neighbour?.replace('right', 'left'),
    to: [0, i === all.length - 1 ? 0 : (all[i + 1]?.to[1] ?? 0)],
  }))
  return shape(
    'roof',
    'Roof',
    'roof',
    'centre',
    [0, 0],
    [
      { at: 'top', to: [l.roofWidth, 0], meets: 'glass', neighbour: 'bonnet', gapMm: l.window * 1.05 },
      ...right,
      ...(l.van
        ? overDoors(l, length)
        : [
            {
              at: 'bottom',
              to: [0, length],
              meets: behind === 'spoiler' ? 'opening' : 'glass',
              neighbour: behind,
              gapMm: behind === 'spoiler' ? GAP_MM : l.window * 1.1,
            } as Run,
          ]),
      ...left,
    ],
    crownOn(l.roofWidth, length, 20, 6),
  )
}

/** A van's roof over its two rear doors, from the right round to the left. */
function overDoors(l: Lines, length: number): Run[] {
  const half = rearWidth(l) / 2
  const middle = l.roofWidth / 2
  return [
    { at: 'bottom', to: [middle + half, length], meets: 'rubber_seal' },
    { at: 'bottom', to: [middle, length], meets: 'rubber_seal', neighbour: 'rear-door-right', gapMm: 20 },
    { at: 'bottom', to: [middle - half, length], meets: 'rubber_seal', neighbour: 'rear-door-left', gapMm: 20 },
    { at: 'bottom', to: [0, length], meets: 'rubber_seal' },
  ]
}

function spoiler(l: Lines): Panel {
  return rect(
    'spoiler',
    'Spoiler',
    'spoiler',
    'rear',
    l.roofWidth,
    190,
    ['opening', 'free', 'glass', 'free'],
    ['roof', undefined, 'hatch'],
    {
      gaps: [GAP_MM, undefined, l.window * 0.8],
      surface: { material: 'plastic', thicknessMm: 3 },
      ...crownOn(l.roofWidth, 190, 16, 250),
    },
  )
}

function rear(l: Lines): Panel[] {
  const w = rearWidth(l)
  const h = l.belt - l.sill - l.bumperHeight
  const lid = rearLid(l)
  if (l.van) {
    const height = l.g('height') - l.sill - l.bumperHeight - 60
    const half = w / 2
    const features = {
      ...crownOn(half, height, 4, 6),
      raised: [
        {
          id: 'handle',
          name: 'Handle',
          kind: 'handle' as const,
          widthMm: 160,
          heightMm: 60,
          xMm: half - 100,
          yMm: height * 0.6,
          removable: true,
          minutes: 15,
          riseMm: null,
        },
      ],
    }
    return bothSides([
      rect(
        'rear-door-left',
        'Rear door left',
        'door',
        'rear',
        half,
        height,
        ['rubber_seal', 'opening', 'opening', 'opening'],
        ['roof', 'rear-door-right', 'rear-bumper'],
        { gaps: [20, GAP_MM, GAP_MM], ...features },
      ),
    ])
  }
  if (lid === 'boot-lid') {
    const length = l.boot + h
    const shared = Math.min(
      l.boot,
      l.end -
        l.rearWrap -
        (l.g('doors') >= 3 && l.style !== 'roadster'
          ? l.doorTo
          : l.doorTo - Math.max(0, l.doorTo - l.doorFrom - 1350)) -
        40,
    )
    return [
      shape(
        'boot-lid',
        'Boot lid',
        'boot_lid',
        'rear',
        [0, 0],
        [
          { at: 'top', to: [w, 0], meets: 'glass', neighbour: 'roof', gapMm: l.window * 1.1 },
          { at: 'right', to: [w, shared], meets: 'opening', neighbour: 'quarter-right', gapMm: GAP_MM },
          { at: 'right', to: [w, length], meets: 'lamp' },
          { at: 'bottom', to: [0, length], meets: 'opening', neighbour: 'rear-bumper', gapMm: GAP_MM },
          { at: 'left', to: [0, shared], meets: 'lamp' },
          { at: 'left', to: [0, 0], meets: 'opening', neighbour: 'quarter-left', gapMm: GAP_MM },
        ],
        {
          ...crownOn(w, length, 22, 12),
          nose: { at: 'bottom', radiusMm: 60, angleDeg: 80 },
          recesses: w > 700 && h > 200 ? [plateRecess(w / 2, length - h / 2)] : [],
        },
      ),
    ]
  }
  const high = Math.max(200, h)
  const behindGlass =
    l.style === 'pickup' ? undefined : l.style === 'city_car' || l.style === 'suv' ? 'spoiler' : 'roof'
  return [
    rect(
      lid,
      lid === 'hatch' ? 'Hatch' : 'Tailgate',
      lid === 'hatch' ? 'hatch' : 'tailgate',
      'rear',
      w,
      high,
      [lid === 'hatch' ? 'glass' : 'free', 'opening', 'opening', 'opening'],
      [behindGlass, undefined, 'rear-bumper'],
      {
        gaps: [l.window * (behindGlass === 'spoiler' ? 0.8 : 1.1), undefined, GAP_MM],
        ...crownOn(w, high, 26, 20),
        recesses: w > 700 && high > 180 ? [plateRecess(w / 2, high / 2)] : [],
        raised: [
          {
            id: 'badge',
            name: 'Badge',
            kind: 'badge',
            widthMm: 120,
            heightMm: 60,
            xMm: w / 2,
            yMm: 60,
            removable: true,
            minutes: 5,
            riseMm: null,
          },
        ],
      },
    ),
  ]
}

const pillarWidth = (l: Lines): number => Math.min(95, (l.doorTo - l.doorFrom) * 0.1)
const pillars = (l: Lines): Panel[] =>
  l.van || l.style === 'roadster'
    ? []
    : [
        rect(
          'pillar-left',
          'Pillar left',
          'pillar',
          'left',
          pillarWidth(l),
          l.window * 0.72,
          ['drip_rail', 'window_trim', 'window_trim', 'window_trim'],
          [undefined, undefined, 'front-door-left'],
          { gaps: [undefined, undefined, GAP_MM] },
        ),
      ]

/** Mirror cap, handles, fuel flap. */
function small(l: Lines): Panel[] {
  const doors = l.g('doors') >= 3 && !l.van && l.style !== 'roadster' ? ['front', 'rear'] : ['front']
  const free: ['free', 'free', 'free', 'free'] = ['free', 'free', 'free', 'free']
  return [
    rect(
      'mirror-left',
      'Mirror left',
      'mirror',
      'left',
      l.van ? 280 : 250,
      l.van ? 320 : 200,
      ['free', 'fixed_gap', 'free', 'free'],
      [undefined, 'front-door-left'],
      {
        ...crown200(l),
        wraps: (['left', 'right', 'top', 'bottom'] as const).map((at) => ({
          at,
          ...(l.van ? TALL_MIRROR_ROLL : MIRROR_ROLL),
        })),
        surface: { material: 'plastic', thicknessMm: 2.5 },
      },
    ),
    ...doors.map((d) =>
      rect(
        `${d}-handle-left`,
        `${d === 'front' ? 'Front' : 'Rear'} handle left`,
        'handle',
        'left',
        220,
        42,
        free,
        [undefined, undefined, undefined, `${d}-door-left`],
        { surface: { material: 'plastic', thicknessMm: 2.5 } },
      ),
    ),
  ]
}
const crown200 = (l: Lines) => crownOn(l.van ? 280 : 250, 200, 800, 500)
