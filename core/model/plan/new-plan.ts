import { CAREFUL } from '../method/schema'
import { Vehicle } from '../vehicle/schema'
import type { z } from 'zod'
import { FORMAT, type Plan } from './schema'

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
  runSheet: { crew: 2, startAt: null, paceFactor: 1, skip: [], minutes: {}, locks: {}, own: [], promisedAt: null },
  conditions: { vehicleC: null, massKg: null, wet: true, airC: null, humidity: null },
  note: '',
})
