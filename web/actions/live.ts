import { sessionUser } from '@/db/auth'
import { environment } from '@/db/environment'
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
/** Streams that one member may have open at once: one a browser is enough, tabs share it. More for a load test. */
const mostStreams = (): number => environment().STREAMS_PER_MEMBER
const open = new Map<string, number>()
/** No change has a number beyond this: nothing was missed. */
const LATEST = 2_147_483_647

const message = ({ job, head, kind, entries }: Omit<LiveEvent, 'shop'>): string =>
  `id: ${head}\ndata: ${JSON.stringify({ job, head, kind, ...(entries ? { entries } : {}) })}\n\n`

/**
 * Changes of the member's shop as they are committed, as server-sent events; one that comes back after a gap is told
 * what it missed. Ends when the member is signed out, and when the database can no longer be listened to: the browser
 * then comes back and is told what it missed.
 */
export async function openLive(request: Request): Promise<Response> {
  const member = await currentMember().catch(() => null)
  if (!member) return answerJson(refuse('signed_out'))
  const { who } = member
  const count = open.get(who.memberId) ?? 0
  if (count >= mostStreams()) return answerJson(refuse('too_much_at_once'))
  const asked = request.headers.get('last-event-id') ?? new URL(request.url).searchParams.get('since')
  const since = asked !== null && /^\d{1,9}$/.test(asked) ? Number(asked) : null
  open.set(who.memberId, count + 1)
  const told = new LiveStream()
  told.atEnd(() => {
    const left = (open.get(who.memberId) ?? 1) - 1
    if (left > 0) open.set(who.memberId, left)
    else open.delete(who.memberId)
  })
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      told.open(controller)
      try {
        const { shopId } = who
        told.atEnd(await subscribe({ shopId, hear: (event) => told.hear(event), lost: () => told.end() }))
        const beat = setInterval(() => void told.beat(request.headers, who.userId), BEAT_MS)
        told.atEnd(() => clearInterval(beat))
        // Heard of first, looked up afterwards: nothing falls in between.
        const missed = await changedSince(who, since ?? LATEST)
        for (const { id, changes } of missed.jobs) told.hear({ shop: shopId, job: id, head: changes, kind: 'plan' })
        // Where it stands now: a page that was read before asks for what came since.
        told.hear({ shop: shopId, job: null, head: missed.head, kind: since === null ? 'now' : 'stock' })
      } catch (error) {
        broken(error)
        told.end()
      }
    },
    cancel: () => told.end(),
  })
  request.signal.addEventListener('abort', () => told.end())
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream; charset=utf-8',
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  })
}

/** Two changes of one kind told as one: with the entries of both, where both have theirs. */
function together(a: LiveEvent, b: LiveEvent): LiveEvent {
  const { entries: _, ...newest } = a.head > b.head ? a : b
  return a.entries && b.entries ? { ...newest, entries: [...a.entries, ...b.entries] } : newest
}

/** One stream to one browser: changes that come close together are one message; once it is over it says nothing. */
class LiveStream {
  private readonly text = new TextEncoder()
  private readonly waiting = new Map<string, LiveEvent>()
  private readonly endings: (() => void)[] = []
  private timer: ReturnType<typeof setTimeout> | null = null
  private controller: ReadableStreamDefaultController<Uint8Array> | null = null
  private over = false

  open(controller: ReadableStreamDefaultController<Uint8Array>): void {
    this.controller = controller
    this.send('retry: 2000\n\n')
  }

  /** What is to be done when it ends; at once where it has ended already. */
  atEnd(work: () => void): void {
    if (this.over) work()
    else this.endings.push(work)
  }

  hear(event: LiveEvent): void {
    if (this.over) return
    const key = `${event.job}/${event.kind}`
    const before = this.waiting.get(key)
    this.waiting.set(key, before ? together(before, event) : event)
    this.timer ??= setTimeout(() => this.flush(), TOGETHER_MS)
  }

  /** A sign of life, while whoever opened it is still signed in. */
  async beat(headers: Headers, userId: string): Promise<void> {
    const user = await sessionUser(headers).catch(() => userId) // a database that is busy signs nobody out
    if (user === userId) this.send(': beat\n\n')
    else this.end()
  }

  end(): void {
    if (this.over) return
    this.over = true
    if (this.timer) clearTimeout(this.timer)
    for (const work of this.endings) work()
    try {
      this.controller?.close()
    } catch {
      // The browser closed it first.
    }
  }

  private flush(): void {
    this.timer = null
    for (const event of [...this.waiting.values()].sort((a, b) => a.head - b.head)) this.send(message(event))
    this.waiting.clear()
  }

  private send(what: string): void {
    if (!this.over) this.controller?.enqueue(this.text.encode(what))
  }
}
