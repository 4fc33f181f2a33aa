import { z } from 'zod'
import { BayEntry } from '@/core/log/arrival'
import { inDeviceOrder } from '@/core/log/device-order'
import { readJson } from '@/core/kit/json-guard'
import { controlCharacterIn } from '@/core/kit/plain-text'
import { firstFault } from '@/core/plan/parse'
import { appendBatches, type EntryOutcome } from '@/db/queries/entries'
import { no } from './answer'
import { isUuid, takes } from './routes'
import { gathered } from './gathered'
import { yardFollows } from './yard'

const MAX_BATCH_BYTES = 1_000_000
const MOST_ENTRIES = 200

/** A batch as a device sends it. Each entry is read by itself, so that one that cannot be read holds back no other. */
const Batch = z.strictObject({
  sent_at: z.iso.datetime(),
  /** Whose entries they are; another's are refused, never taken under the name of whoever is signed in. */
  member: z.uuid().optional(),
  entries: z.array(z.unknown()).min(1).max(MOST_ENTRIES),
})
const WithId = z.object({ id: z.uuid() })
const Readable = BayEntry.refine((entry) => controlCharacterIn(entry) === null)

/** Entries of the bay: any number of times, in any order; each id counts once. See docs/api.md. */
export const takeEntries = (request: Request, jobId: string): Promise<Response> =>
  takes(request, { right: 'log', limit: MAX_BATCH_BYTES, bare: true }, async ({ who }, body) => {
    const received = new Date()
    if (!isUuid(jobId)) return no('not_found')
    const json = readJson(body.toString('utf8'))
    if (!json.ok) return json
    const batch = Batch.safeParse(json.value)
    if (!batch.success) return { ok: false, error: firstFault(batch.error) }
    const { sent_at, member, entries } = batch.data
    if (member !== undefined && member !== who.memberId) return no('another_member')
    const read = entries.map((raw) => ({ raw, parsed: Readable.safeParse(raw) }))
    const unread = read.flatMap(({ raw, parsed }): EntryOutcome[] => {
      const id = parsed.success ? null : WithId.safeParse(raw).data?.id
      return id ? [{ id, outcome: 'refused', code: 'bad_input' }] : []
    })
    const nameless = read.findIndex(({ raw, parsed }) => !parsed.success && !WithId.safeParse(raw).success)
    if (nameless >= 0) return { ok: false, error: { code: 'bad_input', at: `entries[${nameless}].id` } }
    const good = read.flatMap(({ parsed }) => (parsed.success ? [parsed.data] : []))
    const inOrder = inDeviceOrder(good.map((entry) => ({ device: null, n: null, ...entry })))
    const skewSeconds = (received.getTime() - Date.parse(sent_at)) / 1000
    const { outcomes, changed, head } = await gathered(
      { group: `${who.shopId}/${jobId}`, line: jobId },
      { who, entries: inOrder, now: received, skewSeconds },
      (batches) => appendBatches(jobId, batches),
    )
    if (changed) yardFollows(who, jobId)
    const all = new Map([...unread, ...outcomes].map((o) => [o.id, o]))
    return { ok: true, value: { outcomes: read.flatMap(({ raw }) => all.get((raw as { id: string }).id) ?? []), head } }
  })
