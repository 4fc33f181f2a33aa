import type { LogRow } from '@/core/model/log/schema'

/** What changed in this shop, as the stream tells it. `job`: null for what all jobs share. */
export interface LiveNews {
  job: string | null
  head: number
  kind: string
  /** New rows of the job's ledger, where the stream brings them itself. */
  entries?: readonly LogRow[]
}
type Hear = (news: LiveNews) => void

const NAME = 'cuirass/live'
/** Without a word from the stream for this long, pages ask by themselves. */
const SILENT_MS = 35_000
export const ASK_EVERY_MS = 10_000

const hearers = new Set<Hear>()
let lastWord = 0
let close: (() => void) | null = null

/** The stream told something, or beat, lately: nobody needs to ask. */
export const streamIsAlive = (): boolean => Date.now() - lastWord < SILENT_MS

/** Hears of changes from now on; answers how to stop. Tabs of one browser share one stream. */
export function onLive(hear: Hear): () => void {
  hearers.add(hear)
  close ??= share()
  return () => {
    hearers.delete(hear)
    if (hearers.size > 0) return
    close?.()
    close = null
  }
}

type Shared = { kind: 'news'; news: LiveNews } | { kind: 'beat' }

/** One tab holds the stream and tells the others; when it goes, the next one takes over. */
function share(): () => void {
  const ending = new AbortController()
  const { signal } = ending
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(NAME)
  const heard = (shared: Shared) => {
    lastWord = Date.now()
    if (shared.kind === 'news') for (const hear of hearers) hear(shared.news)
  }
  if (channel) channel.onmessage = ({ data }: MessageEvent<Shared>) => heard(data)
  const tell = (shared: Shared) => {
    heard(shared)
    channel?.postMessage(shared)
  }
  const hold = () => holdStream(tell, signal)
  if (navigator.locks)
    void navigator.locks.request(NAME, { signal }, hold).catch(() => {}) // this tab left the line
  else void hold()
  return () => {
    ending.abort()
    channel?.close()
  }
}

/** Holds the stream open until this tab leaves; the browser opens it again after a gap, from where it was. */
const holdStream = (tell: (shared: Shared) => void, signal: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    if (signal.aborted || typeof EventSource === 'undefined') return resolve()
    const source = new EventSource('/api/live')
    source.onopen = () => tell({ kind: 'beat' })
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const news = readNews(data)
      if (news) tell({ kind: 'news', news })
    }
    const beat = setInterval(() => {
      if (source.readyState === EventSource.OPEN) tell({ kind: 'beat' })
    }, ASK_EVERY_MS)
    signal.addEventListener('abort', () => {
      clearInterval(beat)
      source.close()
      resolve()
    })
  })

function readNews(text: string): LiveNews | null {
  try {
    const { job, head, kind, entries } = JSON.parse(text) as Partial<LiveNews>
    if (typeof head !== 'number' || typeof kind !== 'string') return null
    return { job: job ?? null, head, kind, ...(Array.isArray(entries) ? { entries } : {}) }
  } catch {
    return null // not ours
  }
}
