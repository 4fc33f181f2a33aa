import { afterAll, beforeAll, expect, it } from 'vitest'
import { asc, eq } from 'drizzle-orm'
import { seeded } from '@/core/kit/random'
import { inDeviceOrder } from '@/core/model/log/device-order'
import type { BayEntry } from '@/core/model/log/arrival'
import { closeDatabase, guarded } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { appendEntries } from '@/db/queries/entries'
import { ledger } from '@/db/schema'
import { shopWorld, type ShopWorld } from './world'

const worlds: ShopWorld[] = []
beforeAll(async () => void worlds.push(await shopWorld()))
afterAll(async () => {
  await closeWorkQueue()
  await closeDatabase()
})

const DEVICES = 3
const ENTRIES = 1000
const BATCH = 60

/** One device: what it made, and what it knows to be taken. A kill forgets nothing, for it is kept on the device. */
interface Device {
  name: string
  made: BayEntry[]
  known: Set<string>
}

/**
 * Three devices whose network drops before the server has a batch, or before they have its answer; batches are sent
 * again from the start, or from somewhere in the middle by a tab that was killed and came back, until all is known.
 */
async function play(world: ShopWorld, seed: number): Promise<Device[]> {
  const { who, jobId } = world
  const random = seeded(seed)
  const now = new Date()
  const devices = Array.from({ length: DEVICES }, (_, d): Device => {
    const count = Math.floor(ENTRIES / DEVICES) + (d < ENTRIES % DEVICES ? 1 : 0)
    const made = Array.from({ length: count }, (_, n): BayEntry => ({
      id: crypto.randomUUID(),
      at: new Date(now.getTime() - (count - n) * 1000).toISOString(),
      device: `tablet-${seed}-${d}`,
      n,
      payload: { kind: 'note', text: `${seed} ${d} ${n}` },
    }))
    return { name: `tablet-${seed}-${d}`, made, known: new Set() }
  })
  while (devices.some((d) => d.known.size < d.made.length)) {
    await Promise.all(
      devices.map(async (device) => {
        const waiting = device.made.filter((e) => !device.known.has(e.id))
        if (waiting.length === 0 || random() < 0.15) return
        const batch = waiting.slice(0, 1 + Math.floor(random() * BATCH))
        // A tab that was killed sends some of what was taken already once more.
        const again = random() < 0.2 ? device.made.slice(0, Math.floor(random() * 20)) : []
        const { outcomes } = await appendEntries(who.installer, jobId, [...again, ...batch], { now: new Date() })
        if (random() < 0.25) return
        for (const { id, outcome } of outcomes) if (outcome !== 'refused') device.known.add(id)
      }),
    )
  }
  return devices
}

it('1,000 entries of three devices with drops, repeats and kills stand once each, in each device’s order: 20 seeds', async () => {
  const [world] = worlds
  if (!world) throw new Error('no shop')
  for (let seed = 1; seed <= 20; seed++) {
    const devices = await play(world, seed)
    const rows = await guarded(world.who.installer, 'read', (tx) =>
      tx.select().from(ledger).where(eq(ledger.jobId, world.jobId)).orderBy(asc(ledger.seq)),
    )
    const own = inDeviceOrder(rows.map((r) => ({ ...r, device: r.device, n: r.n })))
    for (const device of devices) {
      const stands = own.filter((r) => r.device === device.name)
      expect(stands.map((r) => r.id)).toEqual(device.made.map((e) => e.id))
    }
    expect(new Set(rows.map((r) => r.id)).size).toBe(rows.length)
  }
}, 240_000)
