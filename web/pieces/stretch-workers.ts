import type { StretchAsk, StretchNews } from '@/web/workers/stretch.worker'

const fresh = (): Worker => new Worker(new URL('../workers/stretch.worker.ts', import.meta.url), { type: 'module' })

/** Workers that are loaded, with nothing to do: one that has solved already is faster than a new one. */
const idle: Worker[] = []
const IDLE_MOST = 2
/** A worker that was ended is replaced after so long, so that this takes no time from what is asked next, ms. */
const AGAIN_MS = 1500
function warm(): void {
  if (idle.length > 0) return
  const own = fresh()
  own.postMessage({ kind: 'warm' } satisfies StretchAsk)
  idle.push(own)
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
  listeners.set(id, on)
  own.postMessage({ kind: 'quick', id, map: ask } satisfies StretchAsk)
  return () => void listeners.delete(id)
}
function quickWorker(): Worker {
  const own = fresh()
  const answered = (id: number, news: StretchNews) => {
    const on = listeners.get(id)
    if (!on) return
    listeners.delete(id)
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

/** One ask of a worker; ended when it is answered or called off. */
export function startStretch(ask: StretchAsk, on: (news: StretchNews) => void): () => void {
  const own = idle.pop() ?? fresh()
  let over = false
  own.onmessage = ({ data }: MessageEvent<StretchNews>) => {
    if (data.kind === 'end') {
      if (idle.length < IDLE_MOST) idle.push(own)
      else own.terminate()
      over = true
    }
    on(data)
  }
  own.onerror = () => {
    own.terminate()
    over = true
    on({ kind: 'fault', fault: { code: 'no_worker' } })
  }
  own.postMessage(ask)
  return () => {
    if (over) return
    own.terminate()
    over = true
    setTimeout(warm, AGAIN_MS)
  }
}
