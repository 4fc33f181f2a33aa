'use server'

import { z } from 'zod'
import { Name, Id } from '@/core/model/values/values'
import { readJson } from '@/core/kit/json-guard'
import { firstFault } from '@/core/model/plan/parse'
import { LayoutInput, MOST_FLEET_PIECES } from '@/core/engines/roll/contract'
import { fleetInput, type FleetCar } from '@/core/engines/roll/fleet'
import type { Who } from '@/db/client'
import { askFleet, cancelFleet as askCancel } from '@/db/queries/fleet'
import { openJob } from '@/db/queries/jobs'
import { rack } from '@/db/queries/rack'
import { answer, refuse, type Answer } from './answer'
import { threads } from './threads'

const Ask = z.strictObject({
  id: z.uuid(),
  name: Name,
  filmId: Id,
  cars: z
    .array(z.strictObject({ jobId: z.uuid(), count: z.number().int().min(1).max(200) }))
    .min(1)
    .max(100),
  newRolls: z.number().int().min(0).max(300),
  shelf: z.boolean(),
  widthMm: z.number().min(100).max(3000),
  cutting: z.enum(['guillotine', 'free']),
  stages: z.number().int().min(2).max(6).nullable(),
  gapMm: z.number().min(0).max(100),
  seconds: z.number().min(1).max(300),
})

/** Pieces of several jobs' vehicles, laid out together by whichever worker is free. */
export async function startFleet(raw: unknown): Promise<Answer<{ id: string }>> {
  return answer('fleet', Ask, raw, async (who, ask) => {
    const { all, stock } = await rack(who)
    const film = all.find((f) => f.sheet.id === ask.filmId)?.sheet
    if (!film) return refuse('no_such_film')
    const cars = await carsOf(who, ask)
    if (!cars) return refuse('not_found')
    const input = fleetInput({ ...ask, film, cars, stock: ask.shelf ? stock : [] })
    if (!input.ok) return input
    return begin(who, ask.id, ask.name, input.value, ask.cutting === 'free' ? null : ask.stages)
  })
}

async function carsOf(who: Who, ask: z.infer<typeof Ask>): Promise<FleetCar[] | null> {
  const cars: FleetCar[] = []
  for (const { jobId, count } of ask.cars) {
    const job = await openJob(who, jobId, new Date())
    if (!job) return null
    const { plan, catalogue, ledger } = job
    const pieces = await threads().run('pieces', { plan, catalogue, ledger, filmId: ask.filmId })
    cars.push({ name: job.head.vehicle, pieces, count })
  }
  return cars
}

async function begin(
  who: Who,
  id: string,
  name: string,
  request: LayoutInput,
  stages: number | null,
): Promise<Answer<{ id: string }>> {
  await askFleet(who, { id, name, request, stages })
  return { ok: true, value: { id } }
}

/** A layout file by the published contract, laid out the same way. */
export async function startFleetFile(raw: unknown): Promise<Answer<{ id: string }>> {
  return answer(
    'fleet',
    z.strictObject({ id: z.uuid(), name: Name, text: z.string().max(8_000_000) }),
    raw,
    async (who, ask) => {
      const json = readJson(ask.text)
      if (!json.ok) return json
      const parsed = LayoutInput.safeParse(json.value)
      if (!parsed.success) return { ok: false, error: firstFault(parsed.error) }
      const copies = parsed.data.pieces.reduce((s, p) => s + p.count, 0)
      if (copies > MOST_FLEET_PIECES) return refuse('too_many_fleet_pieces', { limit: MOST_FLEET_PIECES })
      return begin(who, ask.id, ask.name, parsed.data, null)
    },
  )
}

export async function cancelFleet(raw: unknown): Promise<Answer<null>> {
  return answer('fleet', z.strictObject({ id: z.uuid() }), raw, async (who, { id }) => {
    const out = await askCancel(who, id)
    return out === 'done' ? { ok: true, value: null } : refuse(out)
  })
}
