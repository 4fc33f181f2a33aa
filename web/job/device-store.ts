import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { LogPayload } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'
import { newId } from '@/web/kit/call'

/** An entry of the bay as this device keeps it until the server has it; a refused one until somebody settles it. */
export interface KeptEntry {
  id: string
  memberId: string
  jobId: string
  /** By this device's own clock, UTC. */
  at: string
  /** How far that clock was known to stand behind the server's, ms. */
  offsetMs: number
  device: string
  n: number
  payload: LogPayload
  state: 'waiting' | 'sent' | 'refused'
  /** Why it was refused. */
  code: string | null
  sentAtMs: number | null
}
export type NewEntry = Pick<KeptEntry, 'id' | 'memberId' | 'jobId' | 'at' | 'offsetMs' | 'payload'>

/** What was typed into a plan and is not saved, with the saved plan it was typed over. */
export interface Draft {
  box: string
  number: number
  base: Plan
  plan: Plan
}

/** A photo that the server does not have yet. */
export interface KeptPhoto {
  id: string
  jobId: string
  memberId: string
  bytes: Blob
}

interface Schema extends DBSchema {
  photos: { key: string; value: KeptPhoto }
  entries: { key: string; value: KeptEntry }
  facts: { key: string; value: { key: string; value: string | number } }
  drafts: { key: string; value: Draft }
}

/** Where a device keeps what the server does not have yet. */
export interface DeviceStore {
  /** False where this browser keeps nothing over a reload. */
  readonly lasts: boolean
  add(entry: NewEntry): Promise<KeptEntry>
  /** Everything kept for a job, of every person, in the order of this device's counter. */
  entries(jobId: string): Promise<KeptEntry[]>
  /** Entries of every job that the server does not have yet. */
  waiting(): Promise<KeptEntry[]>
  update(id: string, change: Partial<Pick<KeptEntry, 'state' | 'code' | 'sentAtMs'>>): Promise<void>
  remove(id: string): Promise<void>
  draft(box: string): Promise<Draft | null>
  keepDraft(draft: Draft): Promise<void>
  dropDraft(box: string): Promise<void>
  keepPhoto(photo: KeptPhoto): Promise<void>
  photos(jobId: string): Promise<KeptPhoto[]>
  dropPhoto(id: string): Promise<void>
}

export const draftBox = (memberId: string, jobId: string): string => `${memberId}/${jobId}`
const byCount = (a: KeptEntry, b: KeptEntry): number => a.n - b.n

/** In IndexedDB: one record an entry, the device's counter in the same transaction, so that two tabs lose nothing. */
function lasting(db: IDBPDatabase<Schema>): DeviceStore {
  return {
    lasts: true,
    async add(entry) {
      const tx = db.transaction(['entries', 'facts'], 'readwrite')
      const facts = tx.objectStore('facts')
      const device = ((await facts.get('device'))?.value as string | undefined) ?? newId()
      const n = Number((await facts.get('count'))?.value ?? -1) + 1
      const kept: KeptEntry = { ...entry, device, n, state: 'waiting', code: null, sentAtMs: null }
      await Promise.all([
        facts.put({ key: 'device', value: device }),
        facts.put({ key: 'count', value: n }),
        tx.objectStore('entries').put(kept),
        tx.done,
      ])
      return kept
    },
    async entries(jobId) {
      const all = await db.getAll('entries')
      return all.filter((entry) => entry.jobId === jobId).sort(byCount)
    },
    waiting: async () => (await db.getAll('entries')).filter((entry) => entry.state === 'waiting'),
    async update(id, change) {
      const tx = db.transaction('entries', 'readwrite')
      const was = await tx.store.get(id)
      if (was) await tx.store.put({ ...was, ...change })
      await tx.done
    },
    remove: (id) => db.delete('entries', id),
    draft: async (box) => (await db.get('drafts', box)) ?? null,
    keepDraft: async (draft) => void (await db.put('drafts', draft)),
    dropDraft: (box) => db.delete('drafts', box),
    keepPhoto: async (photo) => void (await db.put('photos', photo)),
    photos: async (jobId) => (await db.getAll('photos')).filter((p) => p.jobId === jobId),
    dropPhoto: (id) => db.delete('photos', id),
  }
}

/** Where a browser has no such store: kept while the page is open, and said to be so. */
export function passing(): DeviceStore {
  const entries = new Map<string, KeptEntry>()
  const drafts = new Map<string, Draft>()
  const photos = new Map<string, KeptPhoto>()
  const device = newId()
  return {
    lasts: false,
    add: async (entry) => {
      const kept: KeptEntry = { ...entry, device, n: entries.size, state: 'waiting', code: null, sentAtMs: null }
      entries.set(kept.id, kept)
      return kept
    },
    entries: async (jobId) => [...entries.values()].filter((entry) => entry.jobId === jobId).sort(byCount),
    waiting: async () => [...entries.values()].filter((entry) => entry.state === 'waiting'),
    update: async (id, change) => {
      const was = entries.get(id)
      if (was) entries.set(id, { ...was, ...change })
    },
    remove: async (id) => void entries.delete(id),
    draft: async (box) => drafts.get(box) ?? null,
    keepDraft: async (draft) => void drafts.set(draft.box, draft),
    dropDraft: async (box) => void drafts.delete(box),
    keepPhoto: async (photo) => void photos.set(photo.id, photo),
    photos: async (jobId) => [...photos.values()].filter((p) => p.jobId === jobId),
    dropPhoto: async (id) => void photos.delete(id),
  }
}

let opened: Promise<DeviceStore> | null = null
/** This device's store, opened once a page. */
export function deviceStore(): Promise<DeviceStore> {
  opened ??= (async () => {
    try {
      const db = await openDB<Schema>('cuirass', 2, {
        // What an older version of the page has kept stays as it is.
        upgrade(store, from) {
          if (from < 1) {
            store.createObjectStore('entries', { keyPath: 'id' })
            store.createObjectStore('facts', { keyPath: 'key' })
            store.createObjectStore('drafts', { keyPath: 'box' })
          }
          if (from < 2) store.createObjectStore('photos', { keyPath: 'id' })
        },
        // A page of a newer version wants to go on: nothing is held back from it.
        blocking: (_now, _next, event) => (event.target as IDBDatabase).close(),
        terminated: () => (opened = null),
      })
      return lasting(db)
    } catch {
      return passing() // a browser that keeps nothing: the page says so
    }
  })()
  return opened
}
/** The next page finds the store anew; for tests of a reload. */
export const forgetDeviceStore = (): void => void (opened = null)
