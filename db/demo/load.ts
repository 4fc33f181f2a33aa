import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { reckon } from '@/core/reckon/reckon'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import type { BayEntry } from '@/core/model/log/arrival'
import type { LogPayload } from '@/core/model/log/schema'
import { Plan } from '@/core/model/plan/schema'
import { vehicleOf } from '@/core/model/plan/vehicle-library'
import { addReading } from '../queries/climate'
import { saveVehicle } from '../queries/vehicles'
import { createUser } from '../auth'
import { guarded, type Role, type Who } from '../client'
import { appendEntries } from '../queries/entries'
import { createJob, settleYard } from '../queries/jobs'
import { moveSupply } from '../queries/supplies'
import { receiveStock } from '../queries/rack'
import { addMember, demoLoaded } from '../queries/people'
import { film, shop } from '../schema'
import { DEMO_FILMS, DEMO_STOCK } from './films'
import { bringSolutions } from '../queries/solutions'
import { DEMO_JOBS } from './jobs'
import { DEMO_MORE_JOBS } from './more-jobs'
import { demoSolutions } from './solutions'
import { DEMO_PASSWORD, DEMO_PEOPLE, DEMO_SETTINGS, DEMO_SHOP } from './people'
import { saveShop } from '../queries/shop'

/** A shop with its people, films on the rack. Returns a member to act as, by role. */
export async function makeShop(
  info: { id: string; name: string; town: string; currency: string; timeZone: string; isDemo: boolean },
  people: { name: string; email: string; role: Role; password: string }[],
): Promise<Record<string, Who>> {
  const setup: Who = {
    userId: 'setup',
    memberId: '00000000-0000-4000-8000-000000000000',
    shopId: info.id,
    role: 'owner',
    name: 'Setup',
  }
  await guarded(setup, 'people', async (tx) => void (await tx.insert(shop).values(info).onConflictDoNothing()))
  const out: Record<string, Who> = {}
  for (const p of people) {
    const userId = await createUser(p.name, p.email, p.password)
    if (!userId) throw new Error(`the address ${p.email} is taken`)
    const memberId = await addMember(setup, userId, p.role)
    out[p.role] = { userId, memberId, shopId: info.id, role: p.role, name: p.name }
  }
  return out
}

/** The invented shop and its five jobs; nothing when it is there already. */
export async function loadDemo(now: Date): Promise<'loaded' | 'already'> {
  if (await demoLoaded()) return 'already'
  const { owner, lead, installer } = await makeShop(
    DEMO_SHOP,
    DEMO_PEOPLE.map((p) => ({ ...p, password: DEMO_PASSWORD })),
  )
  if (!owner || !lead || !installer) throw new Error('demo people are incomplete')
  await guarded(
    owner,
    'stock',
    async (tx) =>
      void (await tx.insert(film).values(DEMO_FILMS.map((sheet) => ({ shopId: owner.shopId, id: sheet.id, sheet })))),
  )
  await saveShop(owner, DEMO_SETTINGS, 0)
  for (const item of DEMO_STOCK) await receiveStock(owner, item)
  for (const [i, [kind, amount]] of DEMO_SUPPLIES.entries())
    await moveSupply(owner, { id: `5a170000-0000-4000-8000-00000000050${i}`, kind, amount, reason: 'received' })
  for (const { id, make, stand } of DEMO_JOBS) {
    const plan = stand === 'plan' ? make() : withKeptLayout(make(), now, stand)
    // What has happened already happened to a job that was there.
    const takenIn = stand === 'plan' ? now : new Date(now.getTime() - 8 * 86_400_000)
    await createJob(lead, id, dated(Plan.parse(plan), now, STARTS[id]), 'Taken in', takenIn)
    if (stand !== 'plan') await appendEntries(installer, id, story(plan, stand, now), { now })
  }
  for (const { id, make, startsIn, promisedIn } of DEMO_MORE_JOBS)
    await createJob(lead, id, dated(Plan.parse(make()), now, [startsIn, promisedIn]), 'Taken in', now)
  for (const { id } of [...DEMO_JOBS, ...DEMO_MORE_JOBS]) {
    await bringSolutions(lead, id, demoSolutions(id), 'demo')
    await settleYard(lead, id, now)
  }
  await keepVehicle(lead, now)
  for (const reading of DEMO_CLIMATE)
    await addReading(installer, {
      ...reading,
      at: new Date(now.getTime() - reading.hoursAgo * 3_600_000).toISOString(),
    })
  return 'loaded'
}

/** On the shelf: filament and sealing tape are nearly gone. */
const DEMO_SUPPLIES = [
  ['filament', 12],
  ['wire', 20],
  ['masking', 140],
  ['sealing', 4],
  ['holding', 40],
  ['primer', 2],
  ['blades', 120],
  ['felts', 14],
  ['alcohol', 6],
] as const

/** Days from today on which jobs of the demo begin, and for which they are promised: one of them too early. */
const STARTS: Record<string, [number | null, number | null]> = {
  '5a170000-0000-4000-8000-00000000000a': [1, 4],
  '5a170000-0000-4000-8000-00000000000c': [1, 11],
}

/** A plan with a start and a promise so many days from now; a start that stands already stays. */
function dated(plan: Plan, now: Date, [start, promise]: [number | null, number | null] = [null, null]): Plan {
  const day = (days: number) => new Date(now.getTime() + days * 86_400_000).toISOString().slice(0, 10)
  return {
    ...plan,
    runSheet: {
      ...plan.runSheet,
      startAt: plan.runSheet.startAt ?? (start === null ? null : `${day(start)}T08:00`),
      promisedAt: promise === null ? null : `${day(promise)}T17:00`,
    },
  }
}

/** The pick-up of the finished job, kept for the next one and corrected since. */
async function keepVehicle(lead: Who, now: Date): Promise<void> {
  const job = DEMO_JOBS.find((j) => j.stand === 'finished')
  if (!job) return
  const measured = vehicleOf(Plan.parse(job.make()))
  const first = {
    ...measured,
    panels: measured.panels.map((p) =>
      p.id === 'tailgate'
        ? {
            ...p,
            heightMm: 502,
            edges: p.edges.map((e) => (e.at === 'left' || e.at === 'right' ? { ...e, lengthMm: 502 } : e)),
          }
        : p,
    ),
  }
  const before = new Date(now.getTime() - 6 * 86_400_000)
  await saveVehicle(
    lead,
    { id: DEMO_VEHICLE_ID, basedOn: 0, measured: first, summary: `Kept from ${job.make().name}`, fromJob: job.id },
    before,
  )
  await saveVehicle(
    lead,
    { id: DEMO_VEHICLE_ID, basedOn: 1, measured, summary: 'Tailgate: height 502 mm → 520 mm', fromJob: null },
    now,
  )
}

export const DEMO_VEHICLE_ID = '5a170000-0000-4000-8000-000000000301'

/** A few days of the shop's air: a cold morning, the heating, a damp evening. */
const DEMO_CLIMATE = (
  [
    [52, 17.5, 0.52, 15.8],
    [46, 19.8, 0.48, 18.6],
    [29, 18.2, 0.55, 16.9],
    [22, 20.6, 0.47, 19.7],
    [5, 17.9, 0.58, 16.2],
    [1, 20.2, 0.5, 19.1],
  ] as const
).map(([hoursAgo, airC, humidity, surfaceC], i) => ({
  id: `5a170000-0000-4000-8000-00000000040${i}`,
  hoursAgo,
  airC,
  humidity,
  surfaceC,
}))

/** Jobs past the roll stage have their layout kept and a start date. */
function withKeptLayout(plan: Plan, now: Date, stand: string): Plan {
  const start = new Date(now.getTime() - (stand === 'bay' ? 2 : 5) * 86_400_000)
  const dated: Plan = { ...plan, runSheet: { ...plan.runSheet, startAt: `${start.toISOString().slice(0, 10)}T08:00` } }
  return { ...dated, layout: { ...dated.layout, kept: reckon(dated, EMPTY_CATALOGUE, []).layouts.map(keepLayout) } }
}

/** What has happened in the bay, made from the plan's own steps and heat points, ending a while before `now`. */
function story(plan: Plan, stand: 'bay' | 'finished', now: Date): BayEntry[] {
  const { steps, points, layouts } = reckon(plan, EMPTY_CATALOGUE, [])
  const payloads: LogPayload[] = []
  const until =
    stand === 'bay' ? steps.findIndex((s) => s.code === 'lay') + 2 : steps.findIndex((s) => s.code === 'rest') + 1
  for (const step of steps.slice(0, until)) {
    payloads.push({ kind: 'step_started', stepId: step.id })
    if (step.code === 'cut')
      for (const l of layouts)
        payloads.push({
          kind: 'film_used',
          stockId: stand === 'bay' ? (DEMO_STOCK[2]?.id ?? '') : (DEMO_STOCK[3]?.id ?? ''),
          lengthMm: Math.ceil(l.usedMm / 10) * 10,
        })
    if (step.code === 'post_heat')
      points
        .filter((p) => p.panelId === step.panelId)
        .forEach((p, i) =>
          payloads.push({
            kind: 'reading',
            pieceId: p.pieceId,
            pointId: p.id,
            tempC: p.range.min + 2 + (i % 5) * 2,
            gunAway: true,
          }),
        )
    payloads.push({ kind: 'step_done', stepId: step.id })
  }
  if (stand === 'bay') {
    const next = steps[until]
    if (next) payloads.push({ kind: 'step_started', stepId: next.id })
    // Readings climb in passes: the first ones are under.
    const first = points.filter((p) => p.panelId === steps.find((s) => s.code === 'lay')?.panelId)
    for (const [i, p] of first.slice(0, 3).entries()) {
      payloads.push({ kind: 'reading', pieceId: p.pieceId, pointId: p.id, tempC: p.range.min - 19, gunAway: true })
      if (i < 2)
        payloads.push({ kind: 'reading', pieceId: p.pieceId, pointId: p.id, tempC: p.range.min + 4, gunAway: true })
    }
    payloads.push({
      kind: 'defect',
      panelId: 'boot-lid',
      defect: 'bubble',
      note: 'Beside the plate recess, pressed out',
    })
  } else payloads.push({ kind: 'note', text: 'All edges warm and flat after the check.' })
  const end = now.getTime() - (stand === 'bay' ? 10 : 26 * 60) * 60_000
  const stepMs = stand === 'bay' ? 12 * 60_000 : 20 * 60_000
  return payloads.map((payload, i) => ({
    id: crypto.randomUUID(),
    at: new Date(end - (payloads.length - 1 - i) * stepMs).toISOString(),
    payload,
  }))
}
