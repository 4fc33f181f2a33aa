import type { Panel } from '../schema'
import { GAP_MM } from './body-parts'
import { rect, crownOn, bothSides, shape } from './shape'
import type { Keys } from './styles'

export function motorcyclePanels(k: Keys): Panel[] {
  const g = (key: string): number => k[key] ?? 0
  const free: ['free', 'free', 'free', 'free'] = ['free', 'free', 'free', 'free']
  const plastic: Panel['surface'] = { material: 'plastic', thicknessMm: 3 }
  return [
    rect(
      'nose',
      'Nose fairing',
      'fairing',
      'front',
      g('noseWidth'),
      g('noseHeight'),
      ['glass', 'fixed_gap', 'lamp', 'fixed_gap'],
      [undefined, 'side-left', undefined, 'side-right'],
      {
        surface: plastic,
        ...crownOn(g('noseWidth'), g('noseHeight'), 260, 160),
        insetMm: g('noseWidth') * 0.15,
        gaps: [undefined, GAP_MM, undefined, GAP_MM],
      },
    ),
    rect('mudguard', 'Front mudguard', 'fairing', 'front', g('mudguardWidth'), g('mudguard'), free, [], {
      surface: plastic,
      ...crownOn(g('mudguardWidth'), g('mudguard'), 900, 220),
    }),
    ...bothSides([
      sideFairing(g, plastic),
      shape(
        'tank-left',
        'Tank left',
        'fairing',
        'left',
        [0, 0],
        [
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
        { surface: { material: 'steel', thicknessMm: 1 }, ...crownOn(g('tankLength'), g('tankHeight'), 180, 420) },
      ),
      rect(
        'tail-left',
        'Tail left',
        'fairing',
        'left',
        g('tailLength'),
        g('tailHeight'),
        ['free', 'lamp', 'free', 'fixed_gap'],
        [undefined, undefined, undefined, 'tank-left'],
        {
          surface: plastic,
          ...crownOn(g('tailLength'), g('tailHeight'), 40, 300),
          gaps: [undefined, undefined, undefined, 15],
        },
      ),
      rect(
        'belly-left',
        'Belly pan left',
        'fairing',
        'left',
        g('belly'),
        g('belly') * 0.4,
        ['fixed_gap', 'free', 'fixed_gap', 'free'],
        ['side-left', undefined, 'belly-right'],
        { surface: plastic, ...crownOn(g('belly'), g('belly') * 0.4, 50, 160), gaps: [GAP_MM, undefined, GAP_MM] },
      ),
    ]),
  ]
}

/** The side fairing under tank and behind nose, with the belly pan below it. */
export function sideFairing(g: (key: string) => number, surface: Panel['surface']): Panel {
  const [w, h] = [g('fairingLength'), g('fairingHeight')]
  const nose = Math.hypot(g('noseHeight'), g('noseWidth') * 0.15)
  return shape(
    'side-left',
    'Side fairing left',
    'fairing',
    'left',
    [0, 0],
    [
      { at: 'top', to: [w - g('tankLength'), 0], meets: 'free' },
      { at: 'top', to: [w, 0], meets: 'fixed_gap', neighbour: 'tank-left', gapMm: 10 },
      { at: 'right', to: [w, h], meets: 'free' },
      { at: 'bottom', to: [w - g('belly'), h], meets: 'fixed_gap', neighbour: 'belly-left', gapMm: GAP_MM },
      { at: 'bottom', to: [0, h], meets: 'free' },
      { at: 'left', to: [0, nose], meets: 'free' },
      { at: 'left', to: [0, 0], meets: 'fixed_gap', neighbour: 'nose', gapMm: GAP_MM },
    ],
    { surface, ...crownOn(w, h, 60, 90) },
  )
}
