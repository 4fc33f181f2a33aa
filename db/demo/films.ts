import type { FilmSheet } from '@/core/film/schema'

/** The rack of the invented shop. Makers, names and figures are our own inventions, plausible for their kind. */
const warranty = (vertical: number, horizontal: number): FilmSheet['warrantyMonths'] => [
  { zone: 'mild', surface: 'vertical', months: vertical },
  { zone: 'mild', surface: 'horizontal', months: horizontal },
  { zone: 'hot', surface: 'vertical', months: Math.round(vertical * 0.6) },
  { zone: 'hot', surface: 'horizontal', months: Math.round(horizontal * 0.5) },
]
const CARE = 'Hand wash with a pH-neutral soap, no solvent, no brush. First wash when the cure is over.'

const cast: Omit<FilmSheet, 'id' | 'name' | 'finish' | 'colour'> = {
  maker: 'Tidewright Films', kind: 'cast', thicknessUm: 90, widthsMm: [1520], rollLengthsMm: [25000],
  soldBy: { unit: 'metre', minimumMm: 3000, price: 21.5 }, offers: [], directional: false, postHeatOver: 0.1, stretchLimit: 0.15, heatShrink: 0.06, rollResidue: 0.03,
  shapingC: { min: 40, max: 60 }, postHeatC: { min: 80, max: 95 }, overlapC: { min: 100, max: 112 }, heatLimitC: 120, preStretchMax: { cold: 0.2, warm: 0.3 }, recovers: 0.9, overlapMm: 6, waitBeforeCutMin: 0,
  postHeatFromMin: 0, postHeatUntilMin: null, cureHours: 24, gasOutHours: null, capSheet: false, airC: { min: 16, max: 25 }, surfaceMinC: 15.5,
  edgeOrder: 'press_then_heat', warrantyMonths: warranty(60, 36), care: CARE,
  standings: { heatShrink: 'common_practice', rollResidue: 'assumed', preStretchMax: 'common_practice', recovers: 'assumed' },
} // prettier-ignore

export const DEMO_FILMS: FilmSheet[] = [
  { ...cast, id: 'fen-satin', name: 'Fen satin green', finish: 'satin', colour: { name: 'Fen green', hex: '#5b7a4d' } },
  { ...cast, id: 'heron-gloss', name: 'Heron gloss grey', finish: 'gloss', capSheet: true, colour: { name: 'Heron grey', hex: '#8d949b' }, soldBy: { unit: 'half_metre', minimumMm: 2000, price: 23 } },
  { ...cast, id: 'slate-matte', name: 'Slate matte', finish: 'matte', colour: { name: 'Slate', hex: '#3b4146' }, care: `${CARE} No wax: matte holds dirt.`, widthsMm: [1220, 1520] },
  {
    ...cast, id: 'quay-orange', name: 'Quay orange', maker: 'Keldmoor Sheet', kind: 'calendered', finish: 'gloss', colour: { name: 'Quay orange', hex: '#d9691e' }, thicknessUm: 120,
    widthsMm: [1220, 1520], soldBy: { unit: 'metre', minimumMm: 2000, price: 11.8 }, stretchLimit: 0.06, postHeatOver: 0.05, heatShrink: 0.04, rollResidue: 0.01, postHeatC: { min: 105, max: 110 }, overlapC: { min: 122, max: 132 }, heatLimitC: 145, preStretchMax: { cold: 0, warm: 0 }, recovers: 0.5,
    overlapMm: 5, waitBeforeCutMin: 30, postHeatFromMin: 30, postHeatUntilMin: 1440, edgeOrder: 'heat_then_press', warrantyMonths: warranty(36, 18),
  },
  {
    ...cast, id: 'mere-mirror', name: 'Mere mirror', maker: 'Ostrel Coatings', kind: 'hybrid_chrome', finish: 'mirror', colour: { name: 'Mirror', hex: '#c9ced2' }, thicknessUm: 150,
    rollLengthsMm: [20000], soldBy: { unit: 'metre', minimumMm: 2000, price: 64 }, directional: true, stretchLimit: 0.08, postHeatOver: 0.05, heatShrink: 0.03, rollResidue: 0, capSheet: true, airC: { min: 15.5, max: 24 },
    postHeatC: { min: 90, max: 100 }, heatLimitC: 115, preStretchMax: { cold: 0, warm: 0 }, recovers: 0, overlapMm: 4, waitBeforeCutMin: 30, postHeatFromMin: 30, postHeatUntilMin: 1440, cureHours: 48, warrantyMonths: warranty(12, 12), care: `${CARE} No polish, no machine.`,
  },
  {
    ...cast, id: 'dusk-shift', name: 'Dusk shift', maker: 'Ostrel Coatings', kind: 'colour_shift', finish: 'shift', colour: { name: 'Violet to teal', hex: '#5a4b8a' }, directional: true,
    soldBy: { unit: 'metre', minimumMm: 3000, price: 34 }, overlapMm: 13, rollLengthsMm: [22000], warrantyMonths: warranty(48, 24),
  },
  {
    ...cast, id: 'folio-print', name: 'Folio print and laminate', maker: 'Tidewright Films', kind: 'printed_cast', finish: 'print', colour: { name: 'Printed', hex: '#e7e1d0' }, thicknessUm: 110,
    widthsMm: [1370], rollLengthsMm: [50000], soldBy: { unit: 'metre', minimumMm: 5000, price: 27 }, directional: true, gasOutHours: { min: 24, max: 48 }, overlapMm: 12, stretchLimit: 0.12, shapingC: { min: 65, max: 82 }, cureHours: 72, warrantyMonths: warranty(60, 24),
  },
  {
    ...cast, id: 'reed-sheet', name: 'Reed texture sheet', maker: 'Keldmoor Sheet', kind: 'sheet_goods', finish: 'textured', colour: { name: 'Reed', hex: '#8b8258' }, thicknessUm: 200,
    widthsMm: [1220], rollLengthsMm: [2440], soldBy: { unit: 'sheet', minimumMm: 0, price: 38 }, directional: true, stretchLimit: 0.03, postHeatOver: 0.02, heatShrink: 0.01, rollResidue: 0, overlapMm: 13, postHeatC: { min: 105, max: 115 }, overlapC: { min: 120, max: 132 }, heatLimitC: 145, preStretchMax: { cold: 0, warm: 0 }, recovers: 0.3, airC: { min: 16, max: 32 }, warrantyMonths: warranty(24, 12),
  },
] // prettier-ignore

export interface DemoStock {
  id: string
  movementId: string
  filmId: string
  kind: 'roll' | 'rest'
  label: string
  lot: string
  widthMm: number
  lengthMm: number
}

const stock = (n: number, filmId: string, kind: DemoStock['kind'], label: string, lot: string, widthMm: number, lengthMm: number): DemoStock => ({
  id: `5a170000-0000-4000-8000-0000000001${String(n).padStart(2, '0')}`, movementId: `5a170000-0000-4000-8000-0000000002${String(n).padStart(2, '0')}`, filmId, kind, label, lot, widthMm, lengthMm,
}) // prettier-ignore

/** Rolls of two lots and more, and five rests on the shelf. */
export const DEMO_STOCK: DemoStock[] = [
  stock(1, 'fen-satin', 'roll', 'R-01', 'T26-0417', 1520, 8200),
  stock(2, 'fen-satin', 'roll', 'R-02', 'T26-0533', 1520, 9600),
  stock(3, 'mere-mirror', 'roll', 'R-03', 'O26-118', 1520, 20000),
  stock(4, 'dusk-shift', 'roll', 'R-04', 'O26-073', 1520, 22000),
  stock(5, 'folio-print', 'roll', 'R-05', 'T26-0490', 1370, 50000),
  stock(6, 'slate-matte', 'roll', 'R-06', 'T26-0388', 1520, 25000),
  stock(7, 'quay-orange', 'roll', 'R-07', 'K26-22', 1220, 25000),
  stock(8, 'heron-gloss', 'rest', 'S-11', 'T26-0301', 1520, 1450),
  stock(9, 'fen-satin', 'rest', 'S-12', 'T26-0417', 760, 900),
  stock(10, 'dusk-shift', 'rest', 'S-13', 'O25-990', 1520, 1100),
  stock(11, 'slate-matte', 'rest', 'S-14', 'T26-0388', 600, 2100),
  stock(12, 'quay-orange', 'rest', 'S-15', 'K25-07', 1220, 1800),
]
