import { CAREFUL } from '../method/schema'
import { PANEL_FACTS } from '../vehicle/panel-data'
import { Vehicle, type Edge, type Panel } from '../vehicle/schema'
import type { z } from 'zod'
import { FORMAT, type PieceChoice, type Plan } from './schema'

/** An empty plan for a vehicle just taken in. */
export const newPlan = (name: string, customerRef: string, vehicle: z.input<typeof Vehicle>): Plan => ({
  format: FORMAT,
  name,
  customerRef,
  vehicle: Vehicle.parse(vehicle),
  walkaround: {
    paint: { origin: 'unknown', ageYears: null, repaintedOn: null, condition: 'unknown' },
    repaints: [],
    damage: [],
    hardware: [],
    neverCover: [],
    signature: null,
    zone: 'mild',
    note: '',
  },
  film: { mainId: null, sheets: [] },
  method: CAREFUL,
  panels: [],
  pieces: [],
  layout: {
    gapMm: 0,
    rollWidthMm: null,
    seed: 1,
    cutting: 'crosscut',
    stages: 3,
    trimMm: 0,
    reserve: true,
    sources: [],
    drops: {
      printableMm: null,
      distanceMm: 50,
      bleedMm: 30,
      airflow: 'front_over_rear',
      use: true,
      run: 'fewest',
      lettering: [],
    },
    together: [],
    sheets: { rips: 2, overlapMm: null, exposed: { fore: true, aft: true, top: true, bottom: true } },
    kept: [],
  },
  runSheet: { crew: 2, startAt: null, paceFactor: 1, skip: [] },
  conditions: { vehicleC: null, massKg: null, wet: true, airC: null, humidity: null },
  note: '',
})

export const slug = (text: string): string => {
  const s = text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 50)
  return s === '' ? 'panel' : s
}

/** `wanted`, or `wanted-2`, `wanted-3` …, whichever is free. */
export function freeId(wanted: string, taken: Iterable<string>): string {
  const set = new Set(taken)
  if (!set.has(wanted)) return wanted
  let n = 2
  while (set.has(`${wanted}-${n}`)) n++
  return `${wanted}-${n}`
}

/** A panel of a kind with its four edges as that kind usually meets its neighbours, sizes as given. */
export function newPanel(
  id: string,
  name: string,
  kind: Panel['kind'],
  side: Panel['side'],
  widthMm: number,
  heightMm: number,
): Panel {
  const meets = PANEL_FACTS[kind].edges
  const edge = (at: Edge['at'], lengthMm: number, i: number): Edge => ({
    id: at,
    at,
    lengthMm,
    meets: meets[i] ?? 'fixed_gap',
    neighbour: null,
    riseMm: 0,
    gapMm: null,
    cornerDeg: null,
    cornerRadiusMm: null,
    grab: 'usual',
  })
  return {
    id,
    name,
    kind,
    side,
    widthMm,
    heightMm,
    crownMm: 0,
    crownOverMm: 0,
    cornerRadiusMm: null,
    edges: [edge('top', widthMm, 0), edge('right', heightMm, 1), edge('bottom', widthMm, 2), edge('left', heightMm, 3)],
    recesses: [],
    wrap: true,
    filmId: null,
    assumed: [],
    note: '',
    crownDownMm: null,
    crownDownOverMm: 0,
    nose: null,
    wraps: [],
    bodyLines: [],
    raised: [],
    holes: [],
    zones: [],
    surface: { material: 'unknown', thicknessMm: null },
    paintNote: '',
    mirrored: true,
  }
}

export const choiceFor = (plan: Plan, panelId: string): PieceChoice =>
  plan.pieces.find((c) => c.panelId === panelId) ?? {
    panelId,
    parts: 1,
    along: 'height',
    preStretch: 0,
    bleedMm: null,
    seamsAtMm: [],
    slits: [],
    flat: null,
  }
