import type { Panel } from '../schema'
import { ALU, rearDoors, range, letters, GAP_MM } from './body-parts'
import { rearDoorPanels } from './rear-doors'
import { rect, bothSides, shape, type Run } from './shape'
import type { Keys } from './styles'

/** A flat roof: what it meets in front, and along its rear edge from the right. */
export function boxRoof({
  id,
  name,
  w,
  l,
  before: [before, gapMm],
  behind,
  gapBehindMm,
}: {
  id: string
  name: string
  w: number
  l: number
  before: [string | undefined, number]
  behind: readonly string[]
  gapBehindMm: number
}): Panel {
  return shape({
    id,
    name,
    kind: 'roof',
    side: 'centre',
    start: [0, 0],
    runs: [
      { at: 'top', to: [w, 0], meets: 'bead', neighbour: before, gapMm },
      { at: 'right', to: [w, l], meets: 'bead' },
      ...behind.map((neighbour, i): Run => ({
        at: 'bottom',
        to: [w - (w * (i + 1)) / behind.length, l],
        meets: 'bead',
        neighbour,
        gapMm: gapBehindMm,
      })),
      { at: 'left', to: [0, 0], meets: 'bead' },
    ],
    features: { surface: ALU },
  })
}

const BEADS: [Panel['edges'][number]['meets'], 'bead', 'bead', 'bead'] = ['bead', 'bead', 'bead', 'bead']
const id = (i: number) => `side-${i + 1}-left`

/** One panel of the left side, from the front. */
const boxSide = (
  i: number,
  { n, r, part, height, frame }: { n: number; r: number; part: number; height: number; frame: number },
): Panel =>
  rect({
    id: id(i),
    name: `Side${letters(i, n)} left`,
    kind: 'box_side',
    side: 'left',
    widthMm: part,
    heightMm: height,
    meets: BEADS,
    neighbours: [
      `roof-${Math.min(r, Math.floor((i / n) * r) + 1)}`,
      i + 1 < n ? id(i + 1) : 'rear-door-1',
      undefined,
      i > 0 ? id(i - 1) : 'front',
    ],
    features: {
      gaps: [frame + 2 * GAP_MM, i + 1 < n ? GAP_MM : frame + GAP_MM, undefined, i > 0 ? GAP_MM : frame + GAP_MM],
      surface: ALU,
    },
  })

/** A skirt below each side, where it is high enough to be wrapped. */
const skirtsOf = (widthMm: number, heightMm: number, above: string): Panel[] =>
  heightMm < 60
    ? []
    : bothSides([
        rect({
          id: 'skirt-left',
          name: 'Skirt left',
          kind: 'sill',
          side: 'left',
          widthMm,
          heightMm,
          meets: ['fixed_gap', 'free', 'free', 'free'],
          neighbours: [above],
          features: { gaps: [30] },
        }),
      ])

/** A box: its panels add up to its sides, roof and ends, less the frame round each. */
export function boxPanels(k: Keys): Panel[] {
  const g = (key: string): number => k[key] ?? 0
  const frame = 2 * g('frame')
  const [height, width] = [g('height') - frame, g('width') - frame]
  const n = Math.max(1, g('sidePanels'))
  const r = Math.max(1, g('roofPanels'))
  const doors = Math.max(1, g('rearDoors'))
  const [part, roofPart] = [(g('length') - frame) / n, (g('length') - frame) / r]
  return [
    rect({
      id: 'front',
      name: 'Front wall',
      kind: 'box_side',
      side: 'front',
      widthMm: width,
      heightMm: height,
      meets: BEADS,
      neighbours: ['roof-1', 'side-1-left', undefined, 'side-1-right'],
      features: { gaps: [frame + GAP_MM, frame + GAP_MM, undefined, frame + GAP_MM], surface: ALU },
    }),
    ...bothSides(range(n).map((i) => boxSide(i, { n, r, part, height, frame }))),
    ...range(r).map((i) =>
      boxRoof({
        id: `roof-${i + 1}`,
        name: `Roof${letters(i, r)}`,
        w: width,
        l: roofPart,
        before: [i > 0 ? `roof-${i}` : 'front', i > 0 ? GAP_MM : frame + GAP_MM],
        behind: i + 1 < r ? [`roof-${i + 2}`] : rearDoors(doors),
        gapBehindMm: i + 1 < r ? GAP_MM : 20,
      }),
    ),
    ...rearDoorPanels({ doors, width, height, roof: `roof-${r}`, lastSide: `side-${n}` }),
    ...skirtsOf(g('length') - frame, g('skirt'), id(0)),
  ]
}
