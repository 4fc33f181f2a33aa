import type { StretchAsk, StretchNews } from '@/web/workers/stretch.worker'

const fresh = (): Worker => new Worker(new URL('../workers/stretch.worker.ts', import.meta.url), { type: 'module' })

/** Workers that are loaded, with nothing to do: one that has solved already is faster than a new one. */
const idle: Worker[] = []
const IDLE_MOST = 2
/** A worker that was ended is replaced after so long, so that this takes no time from what is asked next, ms. */
const AGAIN_MS = 1500
/** Asks that somebody waits for. */
let awaited = 0
const told = new Set<() => void>()

function warm(): void {
  if (idle.length > 0) return
  const own = fresh()
  own.postMessage({ kind: 'warm' } satisfies StretchAsk)
  idle.push(own)
}
function count(by: 1 | -1): void {
  awaited += by
  for (const tell of [...told]) tell()
}

export const someoneWaits = (): boolean => awaited > 0
/** Told whenever somebody begins to wait for an ask, or no longer does; answers how to be told no more. */
export function onWaiting(tell: () => void): () => void {
  told.add(tell)
  return () => void told.delete(tell)
}

/** A worker for first maps alone: they take so little that they are never called off, and it stays ready. */
let quick: Worker | null = null
const listeners = new Map<number, (news: StretchNews) => void>()
let asked = 0

/** A first, coarse map; called off, its answer is not listened to. */
export function startQuick(
  ask: Extract<StretchAsk, { kind: 'quick' }>['map'],
  on: (news: StretchNews) => void,
): () => void {
  const own = (quick ??= quickWorker())
  const id = ++asked
  count(1)
  listeners.set(id, on)
  own.postMessage({ kind: 'quick', id, map: ask } satisfies StretchAsk)
  return () => {
    if (listeners.delete(id)) count(-1)
  }
}
function quickWorker(): Worker {
  const own = fresh()
  const answered = (id: number, news: StretchNews) => {
    const on = listeners.get(id)
    if (!on) return
    listeners.delete(id)
    count(-1)
    on(news)
  }
  own.onmessage = ({ data }: MessageEvent<StretchNews>) => {
    if (data.kind === 'quick') answered(data.id, data.news)
  }
  own.onerror = () => {
    own.terminate()
    quick = null
    for (const id of [...listeners.keys()]) answered(id, { kind: 'fault', fault: { code: 'no_worker' } })
  }
  own.postMessage({ kind: 'warm' } satisfies StretchAsk)
  return own
}
/** Has it ready before anything is asked. */
export function makeReady(): void {
  quick ??= quickWorker()
}

/** One ask of a worker; ended when it is answered or called off. In the background nobody waits for it. */
export function startStretch(ask: StretchAsk, on: (news: StretchNews) => void, background = false): () => void {
  const own = idle.pop() ?? fresh()
  let over = false
  const end = () => {
    over = true
    if (!background) count(-1)
  }
  own.onmessage = ({ data }: MessageEvent<StretchNews>) => {
    if (data.kind === 'end') {
      if (idle.length < IDLE_MOST) idle.push(own)
      else own.terminate()
      end()
    }
    on(data)
  }
  own.onerror = () => {
    own.terminate()
    if (!over) end()
    on({ kind: 'fault', fault: { code: 'no_worker' } })
  }
  if (!background) count(1)
  own.postMessage(ask)
  return () => {
    if (over) return
    own.terminate()
    end()
    setTimeout(warm, AGAIN_MS)
  }
}
