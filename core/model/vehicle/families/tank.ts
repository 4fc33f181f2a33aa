import type { Panel } from '../schema'
import { range, letters, GAP_MM, ALU } from './body-parts'
import { rect, shape, crownOn } from './shape'
import type { Keys } from './styles'

/** A round tank: strips round the barrel whose heights add up to its girth π·d, and two round ends. */
export function tankPanels(k: Keys): Panel[] {
  const g = (key: string): number => k[key] ?? 0
  const d = g('diameter')
  const [strips, rings] = [Math.max(2, g('strips')), Math.max(1, g('rings'))]
  const [w, h] = [g('length') / rings, (Math.PI * d) / strips]
  const id = (s: number, r: number) => `shell-${s + 1}-${r + 1}`
  const shells = range(strips).flatMap((s) =>
    range(rings).map((r) => {
      const over = Math.min(Math.floor(h), Math.floor(d * 0.9), 1000)
      const rise = d / 2 - Math.sqrt(Math.max(0, (d / 2) ** 2 - (over / 2) ** 2))
      return rect({
        id: id(s, r),
        name: `Shell ${s + 1}${letters(r, rings)}`,
        kind: 'tank_shell',
        side: s === 0 ? 'centre' : s <= strips / 2 ? 'left' : 'right',
        widthMm: w,
        heightMm: h,
        meets: [s > 0 ? 'fixed_gap' : 'bead', 'bead', s + 1 < strips ? 'fixed_gap' : 'bead', 'bead'],
        neighbours: [
          s > 0 ? id(s - 1, r) : undefined,
          r + 1 < rings ? id(s, r + 1) : undefined,
          s + 1 < strips ? id(s + 1, r) : undefined,
          r > 0 ? id(s, r - 1) : undefined,
        ],
        features: {
          gaps: [GAP_MM, GAP_MM, GAP_MM, GAP_MM],
          surface: ALU,
          crownDownMm: rise,
          crownDownOverMm: over,
          mirrored: false,
        },
      })
    }),
  )
  const end = (side: 'front' | 'rear') => tankEnd(side, d - 2 * g('endRim'), g('manhole'))
  return [end('front'), ...shells, end('rear')]
}

/** A round end of so large a diameter; the rear one has the manhole. */
function tankEnd(side: 'front' | 'rear', e: number, manhole: number): Panel {
  const c = e / 2 / Math.SQRT2
  const rise = (e / 2) * (1 - Math.SQRT1_2)
  return shape({
    id: `end-${side}`,
    name: side === 'front' ? 'Front end' : 'Rear end',
    kind: 'tank_shell',
    side,
    start: [e / 2 - c, e / 2 - c],
    runs: [
      { at: 'top', to: [e / 2 + c, e / 2 - c], meets: 'bead', riseMm: rise },
      { at: 'right', to: [e / 2 + c, e / 2 + c], meets: 'bead', riseMm: rise },
      { at: 'bottom', to: [e / 2 - c, e / 2 + c], meets: 'bead', riseMm: rise },
      { at: 'left', to: [e / 2 - c, e / 2 - c], meets: 'bead', riseMm: rise },
    ],
    features: {
      surface: ALU,
      ...crownOn(e, e, 40, 40),
      raised:
        side === 'rear'
          ? [
              {
                id: 'manhole',
                name: 'Manhole',
                kind: 'other',
                widthMm: manhole,
                heightMm: manhole,
                xMm: e / 2,
                yMm: e / 2,
                removable: false,
                minutes: 0,
                riseMm: null,
                behind: 'tucked' as const,
              },
            ]
          : [],
    },
  })
}
