import type { Panel } from '../schema'
import { bothSides, crownOn, rect, shape, type Run } from './shape'
import type { Keys } from './styles'

const GAP_MM = 4
const ALU: Panel['surface'] = { material: 'aluminium', thicknessMm: 1.5 }
const letters = (i: number, of: number): string => (of === 1 ? '' : ` ${i + 1}`)
const range = (n: number): number[] => Array.from({ length: n }, (_, i) => i)

/** Rear doors as they lie along a roof's rear edge, from the right round to the left. */
const rearDoors = (doors: number): string[] => range(doors).map((i) => `rear-door-${doors - i}`)

/** A flat roof: what it meets in front, and along its rear edge from the right. */
function boxRoof(
  id: string,
  name: string,
  w: number,
  l: number,
  [before, gapMm]: [string | undefined, number],
  behind: readonly string[],
  gapBehindMm: number,
): Panel {
  return shape(
    id,
    name,
    'roof',
    'centre',
    [0, 0],
    [
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
    { surface: ALU },
  )
}

/** A box: its panels add up to its sides, roof and ends, less the frame round each. */
export function boxPanels(k: Keys): Panel[] {
  const g = (key: string): number => k[key] ?? 0
  const frame = 2 * g('frame')
  const [height, width] = [g('height') - frame, g('width') - frame]
  const n = Math.max(1, g('sidePanels'))
  const r = Math.max(1, g('roofPanels'))
  const doors = Math.max(1, g('rearDoors'))
  const [part, roofPart] = [(g('length') - frame) / n, (g('length') - frame) / r]
  const beads: [Panel['edges'][number]['meets'], 'bead', 'bead', 'bead'] = ['bead', 'bead', 'bead', 'bead']
  const id = (i: number) => `side-${i + 1}-left`
  const skirts =
    g('skirt') >= 60
      ? bothSides([
          rect(
            'skirt-left',
            'Skirt left',
            'sill',
            'left',
            g('length') - frame,
            g('skirt'),
            ['fixed_gap', 'free', 'free', 'free'],
            [id(0)],
            { gaps: [30] },
          ),
        ])
      : []
  return [
    rect(
      'front',
      'Front wall',
      'box_side',
      'front',
      width,
      height,
      beads,
      ['roof-1', 'side-1-left', undefined, 'side-1-right'],
      { gaps: [frame + GAP_MM, frame + GAP_MM, undefined, frame + GAP_MM], surface: ALU },
    ),
    ...bothSides(
      range(n).map((i) =>
        rect(
          id(i),
          `Side${letters(i, n)} left`,
          'box_side',
          'left',
          part,
          height,
          beads,
          [
            `roof-${Math.min(r, Math.floor((i / n) * r) + 1)}`,
            i + 1 < n ? id(i + 1) : 'rear-door-1',
            undefined,
            i > 0 ? id(i - 1) : 'front',
          ],
          {
            gaps: [frame + 2 * GAP_MM, i + 1 < n ? GAP_MM : frame + GAP_MM, undefined, i > 0 ? GAP_MM : frame + GAP_MM],
            surface: ALU,
          },
        ),
      ),
    ),
    ...range(r).map((i) =>
      boxRoof(
        `roof-${i + 1}`,
        `Roof${letters(i, r)}`,
        width,
        roofPart,
        [i > 0 ? `roof-${i}` : 'front', i > 0 ? GAP_MM : frame + GAP_MM],
        i + 1 < r ? [`roof-${i + 2}`] : rearDoors(doors),
        i + 1 < r ? GAP_MM : 20,
      ),
    ),
    ...range(doors).map((i) =>
      rect(
        `rear-door-${i + 1}`,
        doors === 1 ? 'Rear door' : `Rear door ${i === 0 ? 'left' : 'right'}`,
        'door',
        'rear',
        width / doors,
        height,
        ['rubber_seal', 'opening', 'rubber_seal', 'opening'],
        [
          `roof-${r}`,
          i + 1 < doors ? `rear-door-${i + 2}` : `side-${n}-right`,
          undefined,
          i > 0 ? `rear-door-${i}` : `side-${n}-left`,
        ],
        { gaps: [20, GAP_MM, undefined, GAP_MM], surface: ALU },
      ),
    ),
    ...skirts,
  ]
}

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
  const cuts = range(n + 1).map((i) => i * even)
  if (over > 0) cuts[over] = Math.min(cuts[over] ?? 0, at - reach - 40)
  if (over < n - 1) cuts[over + 1] = Math.max(cuts[over + 1] ?? 0, at + reach + 40)
  for (let i = over - 1; i > 0; i--) cuts[i] = ((cuts[over] ?? 0) * i) / over
  for (let i = over + 2; i < n; i++)
    cuts[i] = (cuts[over + 1] ?? 0) + ((length - (cuts[over + 1] ?? 0)) * (i - over - 1)) / (n - over - 1)
  const id = (i: number) => `side-${i + 1}-left`
  const nose = g('nose')
  const slant = nose > 0 ? Math.hypot(nose, width / 2) : 0
  const side = (i: number): Panel => {
    const [from, to] = [cuts[i] ?? 0, cuts[i + 1] ?? length]
    const w = to - from
    const wheel: Run[] =
      i === over
        ? [
            { at: 'bottom', to: [at - from + reach, height], meets: 'free' },
            {
              at: 'bottom',
              to: [at - from - reach, height],
              meets: 'wheel_arch',
              riseMm: -Math.min(arch * 0.85, height * 0.6, reach * 0.95),
            },
          ]
        : []
    return shape(
      id(i),
      `Side${letters(i, n)} left`,
      'box_side',
      'left',
      [0, 0],
      [
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
      { surface: ALU },
    )
  }
  const front =
    nose > 0
      ? bothSides([
          rect(
            'nose-left',
            'Nose left',
            'box_side',
            'front',
            slant,
            height,
            ['bead', 'bead', 'bead', 'bead'],
            [undefined, 'side-1-left', undefined, 'nose-right'],
            { gaps: [undefined, GAP_MM, undefined, GAP_MM], surface: ALU },
          ),
        ])
      : [
          rect(
            'front',
            'Front wall',
            'box_side',
            'front',
            width,
            height,
            ['bead', 'bead', 'bead', 'bead'],
            ['roof', 'side-1-left', undefined, 'side-1-right'],
            { gaps: [GAP_MM, GAP_MM, undefined, GAP_MM], surface: ALU },
          ),
        ]
  const doors = Math.max(1, g('rearDoors'))
  return [
    ...front,
    ...bothSides(range(n).map(side)),
    boxRoof('roof', 'Roof', width, length, [nose > 0 ? undefined : 'front', GAP_MM], rearDoors(doors), 20),
    ...range(doors).map((i) =>
      rect(
        `rear-door-${i + 1}`,
        doors === 1 ? 'Rear door' : `Rear door ${i === 0 ? 'left' : 'right'}`,
        'door',
        'rear',
        width / doors,
        height,
        ['rubber_seal', 'opening', 'rubber_seal', 'opening'],
        [
          'roof',
          i + 1 < doors ? `rear-door-${i + 2}` : `side-${n}-right`,
          undefined,
          i > 0 ? `rear-door-${i}` : `side-${n}-left`,
        ],
        { gaps: [20, GAP_MM, undefined, GAP_MM], surface: ALU },
      ),
    ),
  ]
}

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
      return rect(
        id(s, r),
        `Shell ${s + 1}${letters(r, rings)}`,
        'tank_shell',
        s === 0 ? 'centre' : s <= strips / 2 ? 'left' : 'right',
        w,
        h,
        [s > 0 ? 'fixed_gap' : 'bead', 'bead', s + 1 < strips ? 'fixed_gap' : 'bead', 'bead'],
        [
          s > 0 ? id(s - 1, r) : undefined,
          r + 1 < rings ? id(s, r + 1) : undefined,
          s + 1 < strips ? id(s + 1, r) : undefined,
          r > 0 ? id(s, r - 1) : undefined,
        ],
        {
          gaps: [GAP_MM, GAP_MM, GAP_MM, GAP_MM],
          surface: ALU,
          crownDownMm: rise,
          crownDownOverMm: over,
          mirrored: false,
        },
      )
    }),
  )
  const e = d - 2 * g('endRim')
  const c = e / 2 / Math.SQRT2
  const rise = (e / 2) * (1 - Math.SQRT1_2)
  const end = (side: 'front' | 'rear'): Panel =>
    shape(
      `end-${side}`,
      side === 'front' ? 'Front end' : 'Rear end',
      'tank_shell',
      side,
      [e / 2 - c, e / 2 - c],
      [
        { at: 'top', to: [e / 2 + c, e / 2 - c], meets: 'bead', riseMm: rise },
        { at: 'right', to: [e / 2 + c, e / 2 + c], meets: 'bead', riseMm: rise },
        { at: 'bottom', to: [e / 2 - c, e / 2 + c], meets: 'bead', riseMm: rise },
        { at: 'left', to: [e / 2 - c, e / 2 - c], meets: 'bead', riseMm: rise },
      ],
      {
        surface: ALU,
        ...crownOn(e, e, 40, 40),
        raised:
          side === 'rear'
            ? [
                {
                  id: 'manhole',
                  name: 'Manhole',
                  kind: 'other',
                  widthMm: g('manhole'),
                  heightMm: g('manhole'),
                  xMm: e / 2,
                  yMm: e / 2,
                  removable: false,
                  minutes: 0,
                  riseMm: null,
                },
              ]
            : [],
      },
    )
  return [end('front'), ...shells, end('rear')]
}

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
function sideFairing(g: (key: string) => number, surface: Panel['surface']): Panel {
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
    return shape(
      id(i),
      `Hull${letters(i, n)} left`,
      'hull_side',
      'left',
      [0, low - a],
      [
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
      { surface: hull, ...crownOn(to - from, Math.min(a, b), 14, 30) },
    )
  }
  const stripe =
    g('stripe') >= 40
      ? bothSides([
          rect(
            'stripe-left',
            'Rubbing band left',
            'hull_side',
            'left',
            g('length'),
            g('stripe'),
            ['free', 'free', 'free', 'free'],
            [],
            { surface: hull },
          ),
        ])
      : []
  return [
    ...bothSides(range(n).map(side)),
    rect(
      'transom',
      'Transom',
      'hull_side',
      'rear',
      g('transomWidth'),
      g('transomHeight'),
      ['free', 'free', 'free', 'free'],
      [undefined, undefined, undefined, undefined],
      { surface: hull, ...crownOn(g('transomWidth'), g('transomHeight'), 20, 0) },
    ),
    ...stripe,
  ]
}
