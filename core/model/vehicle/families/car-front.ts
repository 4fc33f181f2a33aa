import type { Panel } from '../schema'
import { Lines, share, bonnetSide, wingTop, GAP_MM, ends, archRise, LEAST_RUN_MM } from './car-lines'
import { type Run, shape, crownOn } from './shape'

export function bonnet(l: Lines): Panel {
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
  return shape({
    id: 'bonnet',
    name: 'Bonnet',
    kind: 'bonnet',
    side: 'centre',
    start: [inset, 0],
    runs: [
      { at: 'top', to: [inset + l.frontWidth, 0], meets: 'opening', neighbour: 'front-bumper', radiusMm: 60 },
      ...right,
      { at: 'bottom', to: [0, l.bonnet], meets: 'glass', neighbour: 'roof', gapMm: l.window * 1.05 },
      ...left,
    ],
    features: {
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
  })
}

export function frontBumper(l: Lines): Panel {
  const width = l.g('width') + 2 * l.wrap
  const side = (width - l.frontWidth) / 2
  return shape({
    id: 'front-bumper',
    name: 'Front bumper',
    kind: 'front_bumper',
    side: 'front',
    start: [0, 0],
    runs: [
      { at: 'top', to: [side, 0], meets: 'lamp' },
      { at: 'top', to: [side + l.frontWidth, 0], meets: 'opening', neighbour: 'bonnet' },
      { at: 'top', to: [width, 0], meets: 'lamp' },
      { at: 'right', to: [width, l.bumperHeight], meets: 'fixed_gap', neighbour: 'wing-left', gapMm: GAP_MM },
      { at: 'bottom', to: [0, l.bumperHeight], meets: 'bumper_underside' },
      { at: 'left', to: [0, 0], meets: 'fixed_gap', neighbour: 'wing-right', gapMm: GAP_MM },
    ],
    features: {
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
  })
}

export function wing(l: Lines): Panel {
  const [w, h] = [l.doorFrom - l.wrap, l.belt - l.sill]
  const { shared, rest } = share(wingTop(l), bonnetSide(l))
  const split = shared / (shared + rest)
  const bumper = h - l.drop - l.bumperHeight
  const axle = l.frontAxle - l.wrap
  return shape({
    id: 'wing-left',
    name: 'Wing left',
    kind: 'wing',
    side: 'left',
    start: [0, l.drop],
    runs: [
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
    features: { ...crownOn(w, h, 22, 18) },
  })
}
