import type { Panel } from '../schema'
import { range, letters, GAP_MM, ALU, rearDoors } from './body-parts'
import { boxRoof } from './box-body'
import { rearDoorPanels } from './rear-doors'
import { type Run, shape, bothSides, rect } from './shape'
import type { Keys } from './styles'

const ROOF = { id: 'roof', name: 'Roof', gapBehindMm: 20 }

/** A box on one or two axles with a tapering nose; the wheel arch cuts into the side panel it lies under. */
export function trailerPanels(k: Keys): Panel[] {
  const g = (key: string): number => k[key] ?? 0
  const [length, height, width] = [g('length'), g('height'), g('width')]
  const n = Math.max(1, g('sidePanels'))
  const arch = g('wheel') * 0.56
  const reach = Math.min(arch + (g('axles') > 1 ? g('wheel') * 0.6 : 0), length / 2 - 110)
  const at = Math.max(reach + 60, Math.min(length - reach - 60, g('wheelAt')))
  // The panel over the wheels is made long enough to hold the whole cut-out.
  const even = length / n
  const over = Math.min(n - 1, Math.floor(at / even))
  const cuts = sideCuts({ n, even, over, at, reach, length })
  const id = (i: number) => `side-${i + 1}-left`
  const nose = g('nose')
  const slant = nose > 0 ? Math.hypot(nose, width / 2) : 0
  const side = (i: number): Panel => {
    const [from, to] = [cuts[i] ?? 0, cuts[i + 1] ?? length]
    const w = to - from
    const wheel = i === over ? wheelIn(at - from, reach, arch, height) : []
    return shape({
      id: id(i),
      name: `Side${letters(i, n)} left`,
      kind: 'box_side',
      side: 'left',
      start: [0, 0],
      runs: [
        { at: 'top', to: [w, 0], meets: 'bead', neighbour: 'roof', gapMm: 2 * GAP_MM },
        {
          at: 'right',
          to: [w, height],
          meets: 'bead',
          neighbour: i + 1 < n ? id(i + 1) : 'rear-door-1',
          gapMm: GAP_MM,
        },
        ...wheel,
        { at: 'bottom', to: [0, height], meets: 'bead' },
        {
          at: 'left',
          to: [0, 0],
          meets: 'bead',
          neighbour: i > 0 ? id(i - 1) : nose > 0 ? 'nose-left' : 'front',
          gapMm: GAP_MM,
        },
      ],
      features: { surface: ALU },
    })
  }
  const doors = Math.max(1, g('rearDoors'))
  return [
    ...frontOf(nose, slant, height, width),
    ...bothSides(range(n).map(side)),
    boxRoof({
      ...ROOF,
      w: width,
      l: length,
      before: [nose > 0 ? undefined : 'front', GAP_MM],
      behind: rearDoors(doors),
    }),
    ...rearDoorPanels({ doors, width, height, roof: 'roof', lastSide: `side-${n}` }),
  ]
}

/** The cut-out over the wheels, in the panel that they lie under. */
const wheelIn = (at: number, reach: number, arch: number, height: number): Run[] => [
  { at: 'bottom', to: [at + reach, height], meets: 'free' },
  {
    at: 'bottom',
    to: [at - reach, height],
    meets: 'wheel_arch',
    riseMm: -Math.min(arch * 0.85, height * 0.6, reach * 0.95),
  },
]

/** Where the side is divided, the panel over the wheels wide enough for their cut-out. */
function sideCuts({
  n,
  even,
  over,
  at,
  reach,
  length,
}: {
  n: number
  even: number
  over: number
  at: number
  reach: number
  length: number
}) {
  const cuts = range(n + 1).map((i) => i * even)
  if (over > 0) cuts[over] = Math.min(cuts[over] ?? 0, at - reach - 40)
  if (over < n - 1) cuts[over + 1] = Math.max(cuts[over + 1] ?? 0, at + reach + 40)
  for (let i = over - 1; i > 0; i--) cuts[i] = ((cuts[over] ?? 0) * i) / over
  for (let i = over + 2; i < n; i++)
    cuts[i] = (cuts[over + 1] ?? 0) + ((length - (cuts[over + 1] ?? 0)) * (i - over - 1)) / (n - over - 1)
  return cuts
}

/** A wedge in two halves, or a plain wall. */
function frontOf(nose: number, slant: number, height: number, width: number) {
  return nose > 0
    ? bothSides([
        rect({
          id: 'nose-left',
          name: 'Nose left',
          kind: 'box_side',
          side: 'front',
          widthMm: slant,
          heightMm: height,
          meets: ['bead', 'bead', 'bead', 'bead'],
          neighbours: [undefined, 'side-1-left', undefined, 'nose-right'],
          features: { gaps: [undefined, GAP_MM, undefined, GAP_MM], surface: ALU },
        }),
      ])
    : [
        rect({
          id: 'front',
          name: 'Front wall',
          kind: 'box_side',
          side: 'front',
          widthMm: width,
          heightMm: height,
          meets: ['bead', 'bead', 'bead', 'bead'],
          neighbours: ['roof', 'side-1-left', undefined, 'side-1-right'],
          features: { gaps: [GAP_MM, GAP_MM, undefined, GAP_MM], surface: ALU },
        }),
      ]
}
