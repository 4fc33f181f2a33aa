import { z } from 'zod'
import { gapsAndSpans } from './gaps-and-spans'
import type { Plan } from './schema'
import { everyFigure } from '../vehicle/families'
import { MAX_PANELS } from '../vehicle/kinds'
import { Panel, Vehicle } from '../vehicle/schema'
import { Walkaround } from '../vehicle/walkaround-schema'

/** A vehicle measured before, to start the next job from: its panels without film, waivers or a job's choices. */
export const MeasuredVehicle = z.strictObject({
  vehicle: Vehicle,
  panels: z.array(z.preprocess(gapsAndSpans, Panel)).max(MAX_PANELS),
  neverCover: Walkaround.shape.neverCover,
})

export type MeasuredVehicle = z.infer<typeof MeasuredVehicle>

/** What of a job's plan is about the vehicle itself. */
export const vehicleOf = (plan: Plan): MeasuredVehicle => ({
  vehicle: { ...plan.vehicle, libraryId: null },
  panels: plan.panels.map((p) => ({ ...p, filmId: null, wrap: true, paintNote: '', note: p.note })),
  neverCover: plan.walkaround.neverCover,
})

/** A plan whose panels are a measured vehicle's; its own colour, film and findings stay. */
export const startFrom = (plan: Plan, measured: MeasuredVehicle, libraryId: string): Plan => ({
  ...plan,
  vehicle: { ...measured.vehicle, name: plan.vehicle.name, colour: plan.vehicle.colour, libraryId },
  panels: measured.panels,
  pieces: [],
  walkaround: { ...plan.walkaround, neverCover: measured.neverCover },
})

export interface VehicleEdit {
  panel: string
  field: string
  before: unknown
  after: unknown
}

/** What a correction changed, figure by figure. */
export function vehicleEdits(before: MeasuredVehicle, after: MeasuredVehicle): VehicleEdit[] {
  const out: VehicleEdit[] = []
  const old = new Map(before.panels.map((p) => [p.id, p]))
  for (const p of after.panels) {
    const was = old.get(p.id)
    if (!was) {
      out.push({ panel: p.name, field: '', before: null, after: 'added' })
      continue
    }
    for (const key of Object.keys(p) as (keyof Panel)[]) {
      if (key === 'assumed' || JSON.stringify(p[key]) === JSON.stringify(was[key])) continue
      const plain = (v: unknown) => (typeof v === 'object' && v !== null ? null : v)
      out.push({ panel: p.name, field: key, before: plain(was[key]), after: plain(p[key]) })
    }
  }
  for (const p of before.panels)
    if (!after.panels.some((x) => x.id === p.id)) out.push({ panel: p.name, field: '', before: 'there', after: null })
  return out
}

/** How much of a vehicle was taped: figures taken, and all of them. */
export const tapedShare = (panels: readonly Panel[]): { taped: number; all: number } =>
  panels.reduce(
    (s, p) => {
      const all = everyFigure(p)
      return { taped: s.taped + all.filter((f) => !p.assumed.includes(f)).length, all: s.all + all.length }
    },
    { taped: 0, all: 0 },
  )
