import { randomUUID } from 'node:crypto'
import { loadDemo, makeShop } from '@/db/demo/load'
import { DEMO_FILMS } from '@/db/demo/films'
import { guarded, type Who } from '@/db/client'
import { createJob, settleYard } from '@/db/queries/jobs'
import { whoIs } from '@/db/queries/people'
import { addReading } from '@/db/queries/climate'
import { addPhoto } from '@/db/queries/photos'
import { receiveStock, saveFilm } from '@/db/queries/rack'
import { moveSupply } from '@/db/queries/supplies'
import { saveVehicle } from '@/db/queries/vehicles'
import { vehicleOf } from '@/core/model/plan/vehicle-library'
import { film } from '@/db/schema'
import { picturePng } from '../fixtures/pictures'
import { handCar } from '../fixtures/plans'

export interface ShopWorld {
  who: Record<'owner' | 'lead' | 'installer' | 'desk', Who>
  jobId: string
  rollId: string
  /** A film that only this shop has. */
  filmId: string
  vehicleId: string
  photoId: string
}

/** A shop of its own with one member of each role, one film, one roll of 10 m and one job. */
export async function shopWorld(): Promise<ShopWorld> {
  const id = randomUUID()
  const tag = id.slice(0, 8)
  const roles = ['owner', 'lead', 'installer', 'desk'] as const
  const made = await makeShop(
    { id, name: `Shop ${tag}`, town: '', currency: 'EUR', timeZone: 'UTC', isDemo: false },
    roles.map((role) => ({
      name: `${role} ${tag}`,
      email: `${role}@${tag}.example`,
      role,
      password: 'long-enough-words',
    })),
  )
  const who = {} as ShopWorld['who']
  for (const role of roles) {
    const found = await whoIs(made[role]?.userId ?? '')
    if (!found) throw new Error('no member')
    who[role] = found.who
  }
  const sheet = DEMO_FILMS[0]
  if (!sheet) throw new Error('no film')
  await guarded(
    who.owner,
    'stock',
    async (tx) => void (await tx.insert(film).values({ shopId: id, id: sheet.id, sheet })),
  )
  const rollId = randomUUID()
  await receiveStock(who.owner, {
    id: rollId,
    movementId: randomUUID(),
    filmId: sheet.id,
    kind: 'roll',
    label: 'R-1',
    lot: 'L1',
    widthMm: 1520,
    lengthMm: 10000,
  })
  const jobId = randomUUID()
  // Taken in before anything that the tests say happened to it.
  await createJob(who.lead, jobId, handCar(), 'Taken in', new Date('2026-11-01T08:00:00Z'))
  await settleYard(who.lead, jobId, new Date())
  const filmId = `own-${tag}`
  await saveFilm(who.lead, { ...sheet, id: filmId, name: `Own ${tag}` }, 0)
  const vehicleId = randomUUID()
  await saveVehicle(
    who.lead,
    { id: vehicleId, basedOn: 0, measured: vehicleOf(handCar()), summary: 'Kept', fromJob: jobId },
    new Date(),
  )
  const photoId = randomUUID()
  await addPhoto(who.lead, { id: photoId, jobId, width: 40, height: 20, bytes: await picturePng() })
  await moveSupply(who.lead, { id: randomUUID(), kind: 'filament', amount: 20, reason: 'received' })
  await addReading(who.lead, {
    id: randomUUID(),
    at: '2026-11-20T08:00:00.000Z',
    airC: 20,
    humidity: 0.5,
    surfaceC: 18,
  })
  return { who, jobId, rollId, filmId, vehicleId, photoId }
}

export const demo = () => loadDemo(new Date('2026-11-20T09:00:00Z'))
