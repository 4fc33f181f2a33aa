import { CAREFUL } from '@/core/model/method/schema'
import { newPlan } from '@/core/model/plan/new-plan'
import { Plan } from '@/core/model/plan/schema'
import { familyPanels, neverCoverOf } from '@/core/model/vehicle/families'
import { Walkaround } from '@/core/model/vehicle/walkaround-schema'
import type { FilmSheet } from '@/core/model/film/schema'
import { DEMO_FILMS } from './films'
import { droverPanels } from './drover-panels'
import { pair, panel, recess } from './panels'

export const sheet = (id: string): FilmSheet => DEMO_FILMS.find((f) => f.id === id) as FilmSheet
export const factory = (ageYears: number): Plan['walkaround']['paint'] => ({
  origin: 'factory',
  ageYears,
  repaintedOn: null,
  condition: 'sound',
})
const off = (id: string, name: string, minutes: number): Plan['walkaround']['hardware'][number] => ({
  id,
  name,
  way: 'remove',
  minutes,
  who: '',
})

/**
 * The Wrenfield Pip as it was taped: its style's panels, whole millimetres, crowns and recesses by straightedge and
 * rule.
 */
const PIP_KEYS = {
  length: 3860,
  height: 1520,
  width: 1710,
  wheelbase: 2500,
  sill: 250,
  belt: 935,
  wheel: 595,
  bonnet: 900,
  roof: 1560,
  roofWidth: 1140,
  doors: 4,
}
const PIP_CROWNS: Record<string, [number, number]> = {
  bonnet: [22, 1000],
  roof: [18, 1000],
  wing: [14, 600],
  'front-door': [12, 600],
  'rear-door': [12, 600],
  quarter: [20, 600],
  'front-bumper': [100, 1000],
  'rear-bumper': [120, 1000],
  hatch: [26, 800],
  spoiler: [16, 600],
  mirror: [35, 200],
}

function wrenfieldPanels(): Plan['panels'] {
  return familyPanels('city_car', PIP_KEYS).map((p) => {
    const crown = PIP_CROWNS[p.id.replace(/-(left|right)$/, '')]
    return {
      ...p,
      widthMm: Math.round(p.widthMm),
      heightMm: Math.round(p.heightMm),
      edges: p.edges.map((e) => ({ ...e, lengthMm: Math.round(e.lengthMm) })),
      crownMm: crown?.[0] ?? 0,
      crownOverMm: crown?.[1] ?? 0,
      crownDownMm: null,
      crownDownOverMm: 0,
      cornerRadiusMm: p.kind === 'bonnet' ? 60 : null,
      nose: null,
      // Handles come off and are measured on the bench.
      assumed: p.kind === 'handle' ? ['widthMm', 'heightMm'] : [],
    }
  })
}

export const wrenfield = (): Plan => ({
  ...newPlan('Wrenfield Pip to fen green', 'SFW-2611', {
    name: 'Wrenfield Pip',
    kind: 'city_car',
    colour: { name: 'Silver', hex: '#b9bdc1' },
    keys: PIP_KEYS,
  }),
  walkaround: Walkaround.parse({
    paint: factory(4),
    damage: [
      {
        id: 'd1',
        panelId: 'bonnet',
        kind: 'chip',
        note: 'Three stone chips at the front edge, primer not showing',
        sizeMm: 4,
        xMm: 620,
        yMm: 60,
      },
      {
        id: 'd2',
        panelId: 'quarter-left',
        kind: 'dent',
        note: 'Door dent above the arch',
        sizeMm: 35,
        xMm: 520,
        yMm: 150,
      },
    ],
    neverCover: neverCoverOf(wrenfieldPanels()),
    hardware: [
      off('h1', 'Door handles, four', 60),
      off('h2', 'Badge, rear', 5),
      off('h3', 'Aerial', 5),
      { id: 'h4', name: 'Washer jets', way: 'tuck_and_cut', minutes: 0 },
    ],
    zone: 'mild',
    note: '',
  }),
  film: { mainId: 'fen-satin', sheets: [sheet('fen-satin')] },
  panels: wrenfieldPanels(),
  pieces: (['left', 'right'] as const).map((s) => ({
    panelId: `mirror-${s}`,
    parts: 1,
    along: 'height',
    preStretch: 0.25,
    bleedMm: 40,
    seamsAtMm: [],
    slits: [],
    flat: null,
  })),
})

export const corvane = (): Plan => ({
  ...newPlan('Corvane Sable chrome accents', 'SFW-2598', {
    name: 'Corvane Sable',
    kind: 'roadster',
    colour: { name: 'Deep black', hex: '#17181b' },
  }),
  walkaround: Walkaround.parse({
    paint: factory(2),
    damage: [],
    hardware: [off('h1', 'Badge, bonnet', 10), off('h2', 'Mirror glasses', 20)],
    zone: 'mild',
    note: 'Sensor in the front bumper stays free of film.',
  }),
  film: { mainId: 'mere-mirror', sheets: [sheet('mere-mirror')] },
  method: { ...CAREFUL, name: 'Chrome, one direction', direction: 'always', heatSource: 'steamer' },
  panels: [
    panel({
      id: 'bonnet',
      name: 'Bonnet',
      kind: 'bonnet',
      side: 'centre',
      widthMm: 1240,
      heightMm: 1080,
      crown: [20, 1000],
      cornerRadiusMm: 80,
    }),
    panel({
      id: 'boot-lid',
      name: 'Boot lid',
      kind: 'boot_lid',
      side: 'rear',
      widthMm: 1150,
      heightMm: 620,
      crown: [25, 1000],
      recesses: [recess({ id: 'plate', name: 'Plate recess', mouthWidthMm: 540, mouthHeightMm: 150, depthMm: 22 })],
    }),
    panel({
      id: 'front-bumper',
      name: 'Front bumper',
      kind: 'front_bumper',
      side: 'front',
      widthMm: 1780,
      heightMm: 520,
      crown: [110, 1000],
    }),
    ...pair({ id: 'mirror', name: 'Mirror', kind: 'mirror', widthMm: 240, heightMm: 190, over: { crown: [18, 200] } }),
  ],
  pieces: [
    {
      panelId: 'front-bumper',
      parts: 3,
      along: 'width',
      preStretch: 0,
      bleedMm: null,
      seamsAtMm: [],
      slits: [],
      flat: null,
    },
  ],
})

export const drover = (): Plan => ({
  ...newPlan('Hartwell Drover, travelling library', 'SFW-2615', {
    name: 'Hartwell Drover',
    kind: 'high_van',
    colour: { name: 'White', hex: '#f1f1ee' },
  }),
  walkaround: Walkaround.parse({
    paint: { origin: 'factory', ageYears: 7, repaintedOn: null, condition: 'dull' },
    damage: [],
    hardware: [off('h1', 'Rear door handles', 30), { id: 'h2', name: 'Side mouldings', way: 'tape', minutes: 40 }],
    zone: 'mild',
    note: 'Lettering zone on both sides: no seam there.',
  }),
  film: { mainId: 'folio-print', sheets: [sheet('folio-print')] },
  panels: droverPanels(),
})

export const trailer = (): Plan =>
  newPlan('Equipment trailer', 'SFW-2617', {
    name: 'Equipment trailer, two-axle',
    kind: 'trailer',
    colour: { name: 'Galvanised grey', hex: '#9a9c99' },
  })

export const pickup = (): Plan => ({
  ...newPlan('Pick-up, colour-shift', 'SFW-2590', {
    name: 'Morrowby Hauler',
    kind: 'pickup',
    colour: { name: 'Dark blue', hex: '#24304f' },
  }),
  walkaround: Walkaround.parse({
    paint: factory(1),
    damage: [],
    hardware: [off('h1', 'Tailgate handle', 20)],
    zone: 'mild',
    note: '',
  }),
  film: { mainId: 'dusk-shift', sheets: [sheet('dusk-shift')] },
  panels: [
    panel({ id: 'roof', name: 'Roof', kind: 'roof', side: 'centre', widthMm: 1350, heightMm: 1250, crown: [16, 1000] }),
    panel({
      id: 'tailgate',
      name: 'Tailgate',
      kind: 'tailgate',
      side: 'rear',
      widthMm: 1450,
      heightMm: 520,
      crown: [8, 1000],
    }),
    ...pair({
      id: 'bed-side',
      name: 'Bed side',
      kind: 'bed_side',
      widthMm: 1900,
      heightMm: 560,
      over: { crown: [12, 1000] },
    }),
  ],
})

export const DEMO_JOBS: { id: string; make: () => Plan; stand: 'plan' | 'bay' | 'finished' }[] = [
  { id: '5a170000-0000-4000-8000-00000000000a', make: wrenfield, stand: 'plan' },
  { id: '5a170000-0000-4000-8000-00000000000b', make: corvane, stand: 'bay' },
  { id: '5a170000-0000-4000-8000-00000000000c', make: drover, stand: 'plan' },
  { id: '5a170000-0000-4000-8000-00000000000d', make: trailer, stand: 'plan' },
  { id: '5a170000-0000-4000-8000-00000000000e', make: pickup, stand: 'finished' },
]
