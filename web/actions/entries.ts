import { z } from 'zod'
import { BayEntry } from '@/core/model/log/arrival'
import { inDeviceOrder } from '@/core/model/log/device-order'
import { readJson } from '@/core/kit/json-guard'
import { controlCharacterIn } from '@/core/kit/plain-text'
import { firstFault } from '@/core/model/plan/parse'
import { appendBatches, type EntryOutcome } from '@/db/queries/entries'
import { refuse } from './answer'
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
    if (!isUuid(jobId)) return refuse('not_found')
    const json = readJson(body.toString('utf8'))
    if (!json.ok) return json
    const batch = Batch.safeParse(json.value)
    if (!batch.success) return { ok: false, error: firstFault(batch.error) }
    const { sent_at, member, entries } = batch.data
    if (member !== undefined && member !== who.memberId) return refuse('another_member')
    const read = entries.map((raw) => ({ raw, parsed: Readable.safeParse(raw) }))
    const nameless = read.findIndex(({ raw, parsed }) => !parsed.success && !WithId.safeParse(raw).success)
    if (nameless >= 0) return { ok: false, error: { code: 'bad_input', at: `entries[${nameless}].id` } }
    // Each keeps its own outcome by its place, also where two have one id.
    const asked = read.map(({ parsed }) => (parsed.success ? { device: null, n: null, ...parsed.data } : null))
    const inOrder = inDeviceOrder(asked.flatMap((entry) => entry ?? []))
    const skewSeconds = (received.getTime() - Date.parse(sent_at)) / 1000
    const { outcomes, changed, head } = await gathered(
      { group: `${who.shopId}/${jobId}`, line: jobId },
      { who, entries: inOrder, now: received, skewSeconds },
      (batches) => appendBatches(jobId, batches),
    )
    if (changed) yardFollows(who, jobId)
    const outcomeOf = new Map(inOrder.map((entry, i) => [entry, outcomes[i]]))
    const answers = read.map(({ raw }, i): EntryOutcome => {
      const entry = asked[i]
      return (
        (entry && outcomeOf.get(entry)) ?? { id: (raw as { id: string }).id, outcome: 'refused', code: 'bad_input' }
      )
    })
    return { ok: true, value: { outcomes: answers, head } }
  })
