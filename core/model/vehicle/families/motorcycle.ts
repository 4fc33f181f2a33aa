import type { Panel } from '../schema'
import { GAP_MM } from './body-parts'
import { rect, crownOn, bothSides, shape } from './shape'
import type { Keys } from './styles'

export function motorcyclePanels(k: Keys): Panel[] {
  const g = (key: string): number => k[key] ?? 0
  const free: ['free', 'free', 'free', 'free'] = ['free', 'free', 'free', 'free']
  const plastic: Panel['surface'] = { material: 'plastic', thicknessMm: 3 }
  return [
    rect({
      id: 'nose',
      name: 'Nose fairing',
      kind: 'fairing',
      side: 'front',
      widthMm: g('noseWidth'),
      heightMm: g('noseHeight'),
      meets: ['glass', 'fixed_gap', 'lamp', 'fixed_gap'],
      neighbours: [undefined, 'side-left', undefined, 'side-right'],
      features: {
        surface: plastic,
        ...crownOn(g('noseWidth'), g('noseHeight'), 260, 160),
        insetMm: g('noseWidth') * 0.15,
        gaps: [undefined, GAP_MM, undefined, GAP_MM],
      },
    }),
    rect({
      id: 'mudguard',
      name: 'Front mudguard',
      kind: 'fairing',
      side: 'front',
      widthMm: g('mudguardWidth'),
      heightMm: g('mudguard'),
      meets: free,
      neighbours: [],
      features: {
        surface: plastic,
        ...crownOn(g('mudguardWidth'), g('mudguard'), 900, 220),
      },
    }),
    ...bothSides([sideFairing(g, plastic), tankHalf(g), ...tailAndBelly(g, plastic)]),
  ]
}

/** The side fairing under tank and behind nose, with the belly pan below it. */
export function sideFairing(g: (key: string) => number, surface: Panel['surface']): Panel {
  const [w, h] = [g('fairingLength'), g('fairingHeight')]
  const nose = Math.hypot(g('noseHeight'), g('noseWidth') * 0.15)
  return shape({
    id: 'side-left',
    name: 'Side fairing left',
    kind: 'fairing',
    side: 'left',
    start: [0, 0],
    runs: [
      { at: 'top', to: [w - g('tankLength'), 0], meets: 'free' },
      { at: 'top', to: [w, 0], meets: 'fixed_gap', neighbour: 'tank-left', gapMm: 10 },
      { at: 'right', to: [w, h], meets: 'free' },
      { at: 'bottom', to: [w - g('belly'), h], meets: 'fixed_gap', neighbour: 'belly-left', gapMm: GAP_MM },
      { at: 'bottom', to: [0, h], meets: 'free' },
      { at: 'left', to: [0, nose], meets: 'free' },
      { at: 'left', to: [0, 0], meets: 'fixed_gap', neighbour: 'nose', gapMm: GAP_MM },
    ],
    features: { surface, ...crownOn(w, h, 60, 90) },
  })
}

/** The left half of the tank, between the fairing and the tail. */
const tankHalf = (g: (key: string) => number): Panel =>
  shape({
    id: 'tank-left',
    name: 'Tank left',
    kind: 'fairing',
    side: 'left',
    start: [0, 0],
    runs: [
      { at: 'top', to: [g('tankLength'), 0], meets: 'fixed_gap', neighbour: 'tank-right', gapMm: GAP_MM },
      {
        at: 'right',
        to: [g('tankLength'), g('tailHeight')],
        meets: 'fixed_gap',
        neighbour: 'tail-left',
        gapMm: 15,
      },
      { at: 'right', to: [g('tankLength'), g('tankHeight')], meets: 'free' },
      { at: 'bottom', to: [0, g('tankHeight')], meets: 'fixed_gap', neighbour: 'side-left', gapMm: 10 },
      { at: 'left', to: [0, 0], meets: 'free' },
    ],
    features: {
      surface: { material: 'steel', thicknessMm: 1 },
      ...crownOn(g('tankLength'), g('tankHeight'), 180, 420),
    },
  })

const tailAndBelly = (g: (key: string) => number, plastic: Panel['surface']): Panel[] => [
  rect({
    id: 'tail-left',
    name: 'Tail left',
    kind: 'fairing',
    side: 'left',
    widthMm: g('tailLength'),
    heightMm: g('tailHeight'),
    meets: ['free', 'lamp', 'free', 'fixed_gap'],
    neighbours: [undefined, undefined, undefined, 'tank-left'],
    features: {
      surface: plastic,
      ...crownOn(g('tailLength'), g('tailHeight'), 40, 300),
      gaps: [undefined, undefined, undefined, 15],
    },
  }),
  rect({
    id: 'belly-left',
    name: 'Belly pan left',
    kind: 'fairing',
    side: 'left',
    widthMm: g('belly'),
    heightMm: g('belly') * 0.4,
    meets: ['fixed_gap', 'free', 'fixed_gap', 'free'],
    neighbours: ['side-left', undefined, 'belly-right'],
    features: {
      surface: plastic,
      ...crownOn(g('belly'), g('belly') * 0.4, 50, 160),
      gaps: [GAP_MM, undefined, GAP_MM],
    },
  }),
]
