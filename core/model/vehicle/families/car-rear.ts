import type { Panel } from '../schema'
import { Lines, rearWidth, rearLid, lastColumn, GAP_MM, ends } from './car-lines'
import { shape, type Run, crownOn, rect, plateRecess, bothSides } from './shape'

export function rearBumper(l: Lines): Panel {
  const width = l.g('width') + 2 * l.rearWrap
  const hatch = Math.min(rearWidth(l), width - 40)
  const side = (width - hatch) / 2
  const doors = l.van ? ['rear-door-left', 'rear-door-right'] : [rearLid(l)]
  return shape({
    id: 'rear-bumper',
    name: 'Rear bumper',
    kind: 'rear_bumper',
    side: 'rear',
    start: [0, 0],
    runs: [
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
    features: {
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
  })
}

export function spoiler(l: Lines): Panel {
  return rect({
    id: 'spoiler',
    name: 'Spoiler',
    kind: 'spoiler',
    side: 'rear',
    widthMm: l.roofWidth,
    heightMm: 190,
    meets: ['opening', 'free', 'glass', 'free'],
    neighbours: ['roof', undefined, 'hatch'],
    features: {
      gaps: [GAP_MM, undefined, l.window * 0.8],
      surface: { material: 'plastic', thicknessMm: 3 },
      ...crownOn(l.roofWidth, 190, 16, 250),
    },
  })
}

export function rear(l: Lines): Panel[] {
  const w = rearWidth(l)
  const h = l.belt - l.sill - l.bumperHeight
  const lid = rearLid(l)
  if (l.van) {
    return vanRearDoors(l, w)
  }
  if (lid === 'boot-lid') {
    return bootLid(l, h, w)
  }
  return hatchOrTailgate(h, l, lid, w)
}

/** Two doors of half the width each. */
function vanRearDoors(l: Lines, w: number) {
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
        behind: 'tucked' as const,
      },
    ],
  }
  return bothSides([
    rect({
      id: 'rear-door-left',
      name: 'Rear door left',
      kind: 'door',
      side: 'rear',
      widthMm: half,
      heightMm: height,
      meets: ['rubber_seal', 'opening', 'opening', 'opening'],
      neighbours: ['roof', 'rear-door-right', 'rear-bumper'],
      features: { gaps: [20, GAP_MM, GAP_MM], ...features },
    }),
  ])
}

/** A boot lid: as wide as the tail, its sides shared with the quarters. */
function bootLid(l: Lines, h: number, w: number) {
  const length = l.boot + h
  const shared = Math.min(
    l.boot,
    l.end -
      l.rearWrap -
      (l.g('doors') >= 3 && l.style !== 'roadster' ? l.doorTo : l.doorTo - Math.max(0, l.doorTo - l.doorFrom - 1350)) -
      40,
  )
  return [
    shape({
      id: 'boot-lid',
      name: 'Boot lid',
      kind: 'boot_lid',
      side: 'rear',
      start: [0, 0],
      runs: [
        { at: 'top', to: [w, 0], meets: 'glass', neighbour: 'roof', gapMm: l.window * 1.1 },
        { at: 'right', to: [w, shared], meets: 'opening', neighbour: 'quarter-right', gapMm: GAP_MM },
        { at: 'right', to: [w, length], meets: 'lamp' },
        { at: 'bottom', to: [0, length], meets: 'opening', neighbour: 'rear-bumper', gapMm: GAP_MM },
        { at: 'left', to: [0, shared], meets: 'lamp' },
        { at: 'left', to: [0, 0], meets: 'opening', neighbour: 'quarter-left', gapMm: GAP_MM },
      ],
      features: {
        ...crownOn(w, length, 22, 12),
        nose: { at: 'bottom', radiusMm: 60, angleDeg: 80 },
        recesses: w > 700 && h > 200 ? [plateRecess(w / 2, length - h / 2)] : [],
      },
    }),
  ]
}

/** The lid of what has no boot. */
function hatchOrTailgate(h: number, l: Lines, lid: string, w: number) {
  const high = Math.max(200, h)
  const behindGlass =
    l.style === 'pickup' ? undefined : l.style === 'city_car' || l.style === 'suv' ? 'spoiler' : 'roof'
  return [
    rect({
      id: lid,
      name: lid === 'hatch' ? 'Hatch' : 'Tailgate',
      kind: lid === 'hatch' ? 'hatch' : 'tailgate',
      side: 'rear',
      widthMm: w,
      heightMm: high,
      meets: [lid === 'hatch' ? 'glass' : 'free', 'opening', 'opening', 'opening'],
      neighbours: [behindGlass, undefined, 'rear-bumper'],
      features: {
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
            behind: 'tucked' as const,
          },
        ],
      },
    }),
  ]
}
