import type { Panel } from '../schema'
import { Lines, rearLid, GAP_MM, rearWidth, pillarWidth, crown200 } from './car-lines'
import { type Run, shape, crownOn, rect } from './shape'

/** A mirror cap is a shell: it rolls over on all sides. Assumed. */
export const MIRROR_ROLL = { radiusMm: 55, angleDeg: 45 }
/** A van's tall mirror rolls over more gently. Assumed. */
export const TALL_MIRROR_ROLL = { radiusMm: 100, angleDeg: 30 }
export function roof(l: Lines, mid: readonly Panel[]): Panel {
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
  return shape({
    id: 'roof',
    name: 'Roof',
    kind: 'roof',
    side: 'centre',
    start: [0, 0],
    runs: [
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
    features: crownOn(l.roofWidth, length, 20, 6),
  })
}

/** A van's roof over its two rear doors, from the right round to the left. */
export function overDoors(l: Lines, length: number): Run[] {
  const half = rearWidth(l) / 2
  const middle = l.roofWidth / 2
  return [
    { at: 'bottom', to: [middle + half, length], meets: 'rubber_seal' },
    { at: 'bottom', to: [middle, length], meets: 'rubber_seal', neighbour: 'rear-door-right', gapMm: 20 },
    { at: 'bottom', to: [middle - half, length], meets: 'rubber_seal', neighbour: 'rear-door-left', gapMm: 20 },
    { at: 'bottom', to: [0, length], meets: 'rubber_seal' },
  ]
}

export const pillars = (l: Lines): Panel[] =>
  l.van || l.style === 'roadster'
    ? []
    : [
        rect({
          id: 'pillar-left',
          name: 'Pillar left',
          kind: 'pillar',
          side: 'left',
          widthMm: pillarWidth(l),
          heightMm: l.window * 0.72,
          meets: ['drip_rail', 'window_trim', 'window_trim', 'window_trim'],
          neighbours: [undefined, undefined, 'front-door-left'],
          features: { gaps: [undefined, undefined, GAP_MM] },
        }),
      ]
/** Mirror cap, handles, fuel flap. */
export function small(l: Lines): Panel[] {
  const doors = l.g('doors') >= 3 && !l.van && l.style !== 'roadster' ? ['front', 'rear'] : ['front']
  const free: ['free', 'free', 'free', 'free'] = ['free', 'free', 'free', 'free']
  return [
    rect({
      id: 'mirror-left',
      name: 'Mirror left',
      kind: 'mirror',
      side: 'left',
      widthMm: l.van ? 280 : 250,
      heightMm: l.van ? 320 : 200,
      meets: ['free', 'fixed_gap', 'free', 'free'],
      neighbours: [undefined, 'front-door-left'],
      features: {
        ...crown200(l),
        wraps: (['left', 'right', 'top', 'bottom'] as const).map((at) => ({
          at,
          ...(l.van ? TALL_MIRROR_ROLL : MIRROR_ROLL),
        })),
        surface: { material: 'plastic', thicknessMm: 2.5 },
      },
    }),
    ...doors.map((d) =>
      rect({
        id: `${d}-handle-left`,
        name: `${d === 'front' ? 'Front' : 'Rear'} handle left`,
        kind: 'handle',
        side: 'left',
        widthMm: 220,
        heightMm: 42,
        meets: free,
        neighbours: [undefined, undefined, undefined, `${d}-door-left`],
        features: { surface: { material: 'plastic', thicknessMm: 2.5 } },
      }),
    ),
  ]
}
