import { useCallback, useEffect, useRef, useState } from 'react'
import type { Fault } from '@/core/kit/result'
import { learnServerTime } from '@/web/kit/clock'
import { deviceStore, type DeviceStore, type KeptEntry } from './device-store'
import { sendEntries } from './send-entries'
import { standIn } from './at-this-tablet'

/**
 * A page that was being rendered while an entry arrived does not show it yet: what was sent lately is shown beside
 * it.
 */
const SENT_KEPT_MS = 60_000
const RETRY_MS = 5000
const MOST_AT_ONCE = 100

/** An entry's content never changes; where it stands does. */
const isSame = (a: KeptEntry, b: KeptEntry | undefined): boolean =>
  a.id === b?.id && a.n === b.n && a.state === b.state && a.code === b.code

/** What stands in the store, and what was pressed this moment and is on its way into it. */
function withPressed(list: readonly KeptEntry[], was: readonly KeptEntry[]): readonly KeptEntry[] {
  const known = new Set(list.map((entry) => entry.id))
  const next = [...list, ...was.filter((entry) => entry.n < 0 && !known.has(entry.id))]
  // Looked into every few seconds: what says the same stays the same list, and nothing is reckoned again.
  return next.length === was.length && next.every((entry, i) => isSame(entry, was[i])) ? was : next
}

/** What was sent lately is shown beside a page that does not know it yet; after that the server's own row is. */
async function forgetSent(store: DeviceStore, list: readonly KeptEntry[]): Promise<void> {
  const now = Date.now()
  for (const entry of list)
    if (entry.state === 'sent' && now - (entry.sentAtMs ?? 0) > SENT_KEPT_MS) await store.remove(entry.id)
}

/** Sends what waits of one person until nothing does. Null: nothing stopped it. */
async function sendWaiting(store: DeviceStore, { jobId, memberId, look, tellTabs }: Sender): Promise<Fault | null> {
  for (;;) {
    const list = await look(store)
    const batch = list.filter((e) => e.state === 'waiting' && e.memberId === memberId).slice(0, MOST_AT_ONCE)
    // Under another's session they would be refused: they wait until their person comes in.
    if (batch.length === 0 || standIn()) return null
    const out = await sendEntries(jobId, memberId, batch)
    if (!Array.isArray(out)) return out
    for (const { id, outcome, code } of out)
      await store.update(
        id,
        outcome === 'refused' ? { state: 'refused', code: code ?? 'refused' } : { state: 'sent', sentAtMs: Date.now() },
      )
    tellTabs()
    if (out.length === 0) return { code: 'went_wrong', facts: { reference: 'no outcome' } }
  }
}
interface Sender {
  jobId: string
  memberId: string
  look: (store: DeviceStore) => Promise<readonly KeptEntry[]>
  tellTabs: () => void
}

/** A page that is gone sets nothing any more. */
function useIsOpen() {
  const open = useRef(true)
  useEffect(() => {
    open.current = true
    return () => void (open.current = false)
  }, [])
  return open
}

/** Entries of one job on this device: read, sent as often as it takes, and the same in every tab. */
export function useEntryQueue(jobId: string, memberId: string) {
  const [entries, setEntries] = useState<readonly KeptEntry[]>([])
  const [lasts, setLasts] = useState(true)
  /** Whether the device was looked into yet: before that nobody knows what waits. */
  const [looked, setLooked] = useState(false)
  const [logFault, setLogFault] = useState<Fault | null>(null)
  const busy = useRef(false)
  const channel = useRef<BroadcastChannel | null>(null)
  const open = useIsOpen()

  const sayFault = useCallback(
    (fault: Fault | null) => {
      if (open.current) setLogFault(fault)
    },
    [open],
  )

  const tellTabs = useCallback(() => channel.current?.postMessage('changed'), [])

  const look = useCallback(
    async (store: DeviceStore) => {
      const list = await store.entries(jobId)
      await forgetSent(store, list)
      if (!open.current) return list
      setLasts(store.lasts)
      setLooked(true)
      setEntries((was) => withPressed(list, was))
      return list
    },
    [jobId, open],
  )

  const flush = useCallback(async () => {
    if (busy.current) return
    busy.current = true
    try {
      sayFault(await sendWaiting(await deviceStore(), { jobId, memberId, look, tellTabs }))
    } finally {
      busy.current = false
      void deviceStore().then(look)
    }
  }, [jobId, look, memberId, sayFault, tellTabs])

  useEffect(() => {
    // Another tab of this device shows what this one writes.
    if (typeof BroadcastChannel !== 'undefined') {
      channel.current = new BroadcastChannel(`cuirass/entries/${jobId}`)
      channel.current.onmessage = () => void deviceStore().then(look)
    }
    const stop = again(flush)
    return () => {
      stop()
      channel.current?.close()
      channel.current = null // what is still on its way to the server comes back to a page that is left
    }
  }, [flush, jobId, look])

  return { entries, setEntries, looked, lasts, logFault, setLogFault, flush, look, tellTabs }
}

/** Now, every few seconds, and whenever the network comes back; the server's clock is learnt at the beginning. */
function again(flush: () => Promise<void>): () => void {
  const asked = Date.now()
  void fetch('/api/health', { cache: 'no-store' })
    .then((answer) => learnServerTime(answer, asked))
    .catch(() => {}) // no network: the offset known before holds
  const send = () => void flush()
  send()
  const timer = setInterval(send, RETRY_MS)
  window.addEventListener('online', send)
  return () => {
    clearInterval(timer)
    window.removeEventListener('online', send)
  }
}
