import { USUAL_HANDLING, type FilmSheet } from '@/core/model/film/schema'

export type StandedField = keyof FilmSheet['standings']
/** How one field of a sheet is typed. Lengths and temperatures in the member's units; fractions as per cent. */
export type FilmField = { field: StandedField; label: string } & (
  | { kind: 'length'; max: number; path?: 'soldBy.minimumMm' }
  | { kind: 'lengths'; max: number }
  | { kind: 'percent'; max: number; path?: 'preStretchMax.cold' | 'preStretchMax.warm' }
  | { kind: 'number'; max: number; unit: string; optional?: boolean; path?: 'soldBy.price' }
  | { kind: 'span'; unit: 'C' | 'h'; optional?: boolean }
  | { kind: 'temp' }
  | { kind: 'flag' }
  | { kind: 'word'; list: string; path?: 'soldBy.unit' }
  | { kind: 'warranty' }
  | { kind: 'text' }
)

/** Every field of a film's sheet that carries a standing, in the order of a maker's sheet. */
export const FILM_FIELDS: readonly { group: string; fields: readonly FilmField[] }[] = [
  {
    group: 'Film and rolls',
    fields: [
      { field: 'thicknessUm', label: 'Thickness', kind: 'number', max: 1000, unit: 'µm' },
      { field: 'widthsMm', label: 'Roll widths', kind: 'lengths', max: 3000 },
      { field: 'rollLengthsMm', label: 'Roll lengths', kind: 'lengths', max: 100000 },
      { field: 'directional', label: 'Directional', kind: 'flag' },
      { field: 'capSheet', label: 'Cap sheet', kind: 'flag' },
    ],
  },
  {
    group: 'Buying',
    fields: [
      { field: 'soldBy', label: 'Sold by', kind: 'word', list: 'soldBy', path: 'soldBy.unit' },
      { field: 'soldBy', label: 'Minimum', kind: 'length', max: 100000, path: 'soldBy.minimumMm' },
      { field: 'soldBy', label: 'Price per unit', kind: 'number', max: 100000, unit: '', path: 'soldBy.price' },
    ],
  },
  {
    group: 'Stretch',
    fields: [
      { field: 'stretchLimit', label: 'Stretch limit', kind: 'percent', max: 1 },
      { field: 'postHeatOver', label: 'Post-heat past', kind: 'percent', max: 1 },
      { field: 'heatShrink', label: 'Heat shrink', kind: 'percent', max: 0.3 },
      { field: 'rollResidue', label: 'Tension left in the roll', kind: 'percent', max: 0.15 },
      { field: 'preStretchMax', label: 'Pre-stretch, cold', kind: 'percent', max: 0.6, path: 'preStretchMax.cold' },
      { field: 'preStretchMax', label: 'Pre-stretch, warm', kind: 'percent', max: 0.6, path: 'preStretchMax.warm' },
      { field: 'recovers', label: 'Stretch that heat takes back', kind: 'percent', max: 1 },
    ],
  },
  {
    group: 'Heat',
    fields: [
      { field: 'shapingC', label: 'Shaping', kind: 'span', unit: 'C' },
      { field: 'postHeatC', label: 'Post-heat', kind: 'span', unit: 'C' },
      { field: 'overlapC', label: 'Overlaps', kind: 'span', unit: 'C' },
      { field: 'heatLimitC', label: 'Never hotter than', kind: 'temp' },
      { field: 'overlapMm', label: 'Overlap', kind: 'length', max: 100 },
      { field: 'edgeOrder', label: 'Edges', kind: 'word', list: 'edgeOrder' },
    ],
  },
  {
    group: 'Handling',
    fields: [
      { field: 'firstTack', label: 'First tack', kind: 'word', list: 'firstTack' },
      { field: 'airRelease', label: 'Air release', kind: 'word', list: 'airRelease' },
      { field: 'layers', label: 'Layers', kind: 'word', list: 'layers' },
      { field: 'opaque', label: 'Opaque', kind: 'flag' },
      { field: 'adhesiveColour', label: 'Adhesive', kind: 'word', list: 'adhesiveColour' },
      { field: 'adhesiveLife', label: 'Adhesive life', kind: 'word', list: 'adhesiveLife' },
      { field: 'lamination', label: 'Lamination', kind: 'word', list: 'lamination' },
      { field: 'conforms', label: 'Conforms to', kind: 'word', list: 'conforms' },
      { field: 'heals', label: 'Heals by itself', kind: 'flag' },
      { field: 'wax', label: 'Wax', kind: 'word', list: 'wax' },
      { field: 'seamLapMm', label: 'Lap at a body line', kind: 'length', max: 100 },
      { field: 'longLapMm', label: 'Lap of long pieces', kind: 'length', max: 100 },
      { field: 'inlayLapMm', label: 'Lap over an inlay', kind: 'length', max: 100 },
    ],
  },
  {
    group: 'Waits',
    fields: [
      { field: 'waitBeforeCutMin', label: 'Before cutting', kind: 'number', max: 1440, unit: 'min' },
      { field: 'postHeatFromMin', label: 'Post-heat from', kind: 'number', max: 2880, unit: 'min' },
      { field: 'postHeatUntilMin', label: 'Post-heat until', kind: 'number', max: 10080, unit: 'min', optional: true },
      { field: 'cureHours', label: 'Cure', kind: 'number', max: 336, unit: 'h' },
      { field: 'gasOutHours', label: 'Print gases out', kind: 'span', unit: 'h', optional: true },
    ],
  },
  {
    group: 'Shop',
    fields: [
      { field: 'airC', label: 'Air', kind: 'span', unit: 'C' },
      { field: 'surfaceMinC', label: 'Least surface', kind: 'temp' },
    ],
  },
  {
    group: 'Warranty and care',
    fields: [
      { field: 'warrantyMonths', label: 'Warranty, months', kind: 'warranty' },
      { field: 'care', label: 'Care', kind: 'text' },
    ],
  },
]

/** A sheet to begin with: common practice for its kind of film, all of it to be checked against the maker's own. */
export const blankSheet = (id: string): FilmSheet => ({
  id,
  name: 'New film',
  maker: 'Maker',
  kind: 'cast',
  finish: 'gloss',
  colour: { name: 'Colour', hex: '#8d949b' },
  thicknessUm: 90,
  widthsMm: [1520],
  rollLengthsMm: [25000],
  soldBy: { unit: 'metre', minimumMm: 3000, price: 20 },
  offers: [],
  directional: false,
  postHeatOver: 0.1,
  stretchLimit: 0.1,
  heatShrink: 0.05,
  rollResidue: 0.03,
  shapingC: { min: 40, max: 60 },
  postHeatC: { min: 80, max: 95 },
  overlapC: { min: 100, max: 112 },
  heatLimitC: 120,
  preStretchMax: { cold: 0.2, warm: 0.3 },
  recovers: 0.9,
  overlapMm: 5,
  waitBeforeCutMin: 0,
  postHeatFromMin: 0,
  postHeatUntilMin: null,
  cureHours: 24,
  gasOutHours: null,
  capSheet: false,
  airC: { min: 16, max: 25 },
  surfaceMinC: 15.5,
  edgeOrder: 'press_then_heat',
  warrantyMonths: [],
  care: '',
  ...USUAL_HANDLING,
  standings: Object.fromEntries(
    [
      'postHeatOver',
      'stretchLimit',
      'heatShrink',
      'rollResidue',
      'shapingC',
      'postHeatC',
      'overlapC',
      'overlapMm',
      'cureHours',
      'airC',
      'surfaceMinC',
      'heatLimitC',
      'preStretchMax',
      'recovers',
      'seamLapMm',
      'longLapMm',
      'inlayLapMm',
    ].map((k) => [k, 'common_practice']),
  ),
})
