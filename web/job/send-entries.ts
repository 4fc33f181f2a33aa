import { faultCode } from '@/core/kit/fault-code'
import type { Fault } from '@/core/kit/result'
import { clockOffsetMs, learnServerTime } from '@/web/kit/clock'
import type { KeptEntry } from './device-store'

export type Outcome = { id: string; outcome: 'done' | 'again' | 'refused'; code?: string }

/** One batch to the server; a dead network becomes a fault too. */
export async function sendEntries(
  jobId: string,
  memberId: string,
  batch: readonly KeptEntry[],
): Promise<Outcome[] | Fault> {
  const sentMs = Date.now()
  const now = clockOffsetMs()
  const body = {
    sent_at: new Date(sentMs).toISOString(),
    member: memberId,
    entries: batch.map(({ id, at, offsetMs, device, n, payload }) => ({
      id,
      // Where this device's clock was put right since, the entry is told by the clock as it is now.
      at: new Date(Date.parse(at) + offsetMs - now).toISOString(),
      device,
      n,
      payload,
    })),
  }
  try {
    const answer = await fetch(`/api/jobs/${jobId}/entries`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
    learnServerTime(answer, sentMs)
    const said = (await answer.json()) as { outcomes?: Outcome[]; code?: string; at?: string }
    return answer.ok ? (said.outcomes ?? []) : { code: faultCode(said.code, 'offline') }
  } catch {
    return { code: 'offline' }
  }
}
