'use server'

import { z } from 'zod'
import { MeasuredVehicle } from '@/core/model/plan/vehicle-library'
import { saveVehicle, vehicleFile, vehicles, type VehicleHead } from '@/db/queries/vehicles'
import { answer, refuse, type Answer } from './answer'

export type { VehicleHead } from '@/db/queries/vehicles'

const Keep = z.strictObject({
  id: z.uuid(),
  basedOn: z.number().int().min(0),
  measured: MeasuredVehicle,
  summary: z.string().trim().min(1).max(300),
  fromJob: z.uuid().nullable(),
})

/** A vehicle into the library, or one state more of it. */
export async function keepVehicle(raw: unknown): Promise<Answer<{ id: string; number: number }>> {
  return answer('vehicles', Keep, raw, async (who, input) => {
    const out = await saveVehicle(who, input, new Date())
    return out.kind === 'saved' ? { ok: true, value: { id: out.id, number: out.number } } : refuse(out.kind)
  })
}

export async function restoreVehicle(raw: unknown): Promise<Answer<{ number: number }>> {
  const Back = z.strictObject({ id: z.uuid(), basedOn: z.number().int().min(1), number: z.number().int().min(1) })
  return answer('vehicles', Back, raw, async (who, { id, basedOn, number }) => {
    const file = await vehicleFile(who, id, number)
    if (!file) return refuse('not_found')
    const out = await saveVehicle(
      who,
      { id, basedOn, measured: file.measured, summary: `Brought back: state ${number}`, fromJob: null },
      new Date(),
    )
    return out.kind === 'saved' ? { ok: true, value: { number: out.number } } : refuse(out.kind)
  })
}

export async function listVehicles(raw: unknown): Promise<Answer<VehicleHead[]>> {
  return answer('read', z.strictObject({}), raw, async (who) => ({ ok: true, value: await vehicles(who) }))
}
