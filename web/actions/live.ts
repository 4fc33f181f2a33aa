import { changesOf, changedSince } from '@/db/queries/changes'
export type { Changes } from '@/db/queries/changes'
import { subscribe } from '@/db/live-listener'
import type { LiveEvent } from '@/db/live'
import { broken, refuse } from './answer'
import { answerJson, isUuid } from './routes'
import { currentMember } from './session'

/** What changed of a job after a change number. */
export async function readChanges(request: Request, jobId: string): Promise<Response> {
  try {
    const member = await currentMember()
    if (!member) return answerJson(refuse('signed_out'))
    const since = Number(new URL(request.url).searchParams.get('since'))
    if (!Number.isInteger(since) || since < 0) return answerJson(refuse('bad_input'))
    const changes = isUuid(jobId) ? await changesOf(member.who, jobId, since) : null
    return answerJson(changes ? { ok: true, value: changes } : refuse('not_found'))
  } catch (error) {
    return answerJson(broken(error))
  }
}

/** Changes that come close together are told as one, ms. */
const TOGETHER_MS = 250
const BEAT_MS = 15_000
/** Streams that one member may have open at once: one a browser is enough, tabs share it. */
const MOST_STREAMS = 8
const open = new Map<string, number>()
/** No change has a number beyond this: nothing was missed. */
const LATEST = 2_147_483_647

const message = (event: Omit<LiveEvent, 'shop'>): string =>
  `id: ${event.head}\ndata: ${JSON.stringify({ job: event.job, head: event.head, kind: event.kind })}\n\n`

/**
 * Changes of the member's shop as they are committed, as server-sent events; one that comes back after a gap is told
 * what it missed. Ends when the member is signed out.
 */
export async function openLive(request: Request): Promise<Response> {
  const member = await currentMember().catch(() => null)
  if (!member) return answerJson(refuse('signed_out'))
  const { who } = member
  const count = open.get(who.memberId) ?? 0
  if (count >= MOST_STREAMS) return answerJson(refuse('too_much_at_once'))
  const asked = request.headers.get('last-event-id') ?? new URL(request.url).searchParams.get('since')
  const since = asked !== null && /^\d{1,9}$/.test(asked) ? Number(asked) : null
  open.set(who.memberId, count + 1)
  let end = () => {}
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const text = new TextEncoder()
      const send = (what: string) => controller.enqueue(text.encode(what))
      const waiting = new Map<string, LiveEvent>()
      let timer: ReturnType<typeof setTimeout> | null = null
      const flush = () => {
        timer = null
        for (const event of [...waiting.values()].sort((a, b) => a.head - b.head)) send(message(event))
        waiting.clear()
      }
      let closed = false
      const heard = (event: LiveEvent) => {
        if (closed) return
        const key = `${event.job}/${event.kind}`
        if ((waiting.get(key)?.head ?? -1) < event.head) waiting.set(key, event)
        timer ??= setTimeout(flush, TOGETHER_MS)
      }
      const stop = subscribe(who.shopId, heard)
      const beat = setInterval(() => send(': beat\n\n'), BEAT_MS)
      end = () => {
        if (closed) return
        closed = true
        stop()
        clearInterval(beat)
        if (timer) clearTimeout(timer)
        open.set(who.memberId, Math.max(0, (open.get(who.memberId) ?? 1) - 1))
        if (open.get(who.memberId) === 0) open.delete(who.memberId)
      }
      send('retry: 2000\n\n')
      try {
        const missed = await changedSince(who, since ?? LATEST)
        const { shopId: shop } = who
        for (const { id, changes } of missed.jobs) heard({ shop, job: id, head: changes, kind: 'plan' })
        // Where it stands now: a page that was read before asks for what came since.
        heard({ shop, job: null, head: missed.head, kind: since === null ? 'now' : 'stock' })
      } catch (error) {
        broken(error)
        end()
        controller.close()
      }
    },
    cancel: () => end(),
  })
  request.signal.addEventListener('abort', () => end())
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream; charset=utf-8',
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  })
}
