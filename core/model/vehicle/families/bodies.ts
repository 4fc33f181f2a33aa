import type { Panel } from '../schema'
import { GAP_MM, letters, range } from './body-parts'
import { bothSides, crownOn, rect, shape } from './shape'
import type { Keys } from './styles'

/** A rubbing band along each side, where it is wide enough to be wrapped. */
const rubbingBand = (widthMm: number, heightMm: number, surface: Panel['surface']): Panel[] =>
  heightMm < 40
    ? []
    : bothSides([
        rect({
          id: 'stripe-left',
          name: 'Rubbing band left',
          kind: 'hull_side',
          side: 'left',
          widthMm,
          heightMm,
          meets: ['free', 'free', 'free', 'free'],
          neighbours: [],
          features: { surface },
        }),
      ])

export function boatPanels(k: Keys): Panel[] {
  const g = (key: string): number => k[key] ?? 0
  const n = Math.max(1, g('sidePanels'))
  const hull: Panel['surface'] = { material: 'glass_fibre', thicknessMm: 6 }
  const height = (x: number) => g('bowHeight') + ((g('sternHeight') - g('bowHeight')) * x) / g('length')
  const id = (i: number) => `hull-${i + 1}-left`
  // The keel line is level; the sheer falls from bow to stern; the stem rakes forward over the first panel.
  const rake = Math.min(g('rake'), (g('length') / n) * 0.6)
  const side = (i: number): Panel => {
    const [from, to] = [(g('length') * i) / n, (g('length') * (i + 1)) / n]
    const [a, b] = [height(from), height(to)]
    const low = Math.max(a, b)
    const foot = i === 0 ? rake : 0
    return shape({
      id: id(i),
      name: `Hull${letters(i, n)} left`,
      kind: 'hull_side',
      side: 'left',
      start: [0, low - a],
      runs: [
        { at: 'top', to: [to - from, low - b], meets: 'free' },
        {
          at: 'right',
          to: [to - from, low],
          meets: i + 1 < n ? 'fixed_gap' : 'free',
          neighbour: i + 1 < n ? id(i + 1) : 'transom',
          gapMm: GAP_MM,
        },
        { at: 'bottom', to: [foot, low], meets: 'free' },
        {
          at: 'left',
          to: [0, low - a],
          meets: i === 0 ? 'free' : 'fixed_gap',
          neighbour: i > 0 ? id(i - 1) : 'hull-1-right',
          gapMm: GAP_MM,
        },
      ],
      features: { surface: hull, ...crownOn(to - from, Math.min(a, b), 14, 30) },
    })
  }
  return [
    ...bothSides(range(n).map(side)),
    rect({
      id: 'transom',
      name: 'Transom',
      kind: 'hull_side',
      side: 'rear',
      widthMm: g('transomWidth'),
      heightMm: g('transomHeight'),
      meets: ['free', 'free', 'free', 'free'],
      neighbours: [undefined, undefined, undefined, undefined],
      features: { surface: hull, ...crownOn(g('transomWidth'), g('transomHeight'), 20, 0) },
    }),
    ...rubbingBand(g('length'), g('stripe'), hull),
  ]
}
