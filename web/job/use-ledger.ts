'use client'

import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { LogPayload, type LogRow } from '@/core/model/log/schema'
import { firstFault } from '@/core/model/plan/parse'
import type { Fault } from '@/core/kit/result'
import { newId } from '@/web/kit/call'
import { clockOffsetMs, learnServerTime, useClockOffsetMs } from '@/web/kit/clock'
import { deviceStore, type DeviceStore, type KeptEntry } from './device-store'

/**
 * A page that was being rendered while an entry arrived does not show it yet: what was sent lately is shown beside
 * it.
 */
const SENT_KEPT_MS = 60_000
const RETRY_MS = 5000
const MOST_AT_ONCE = 100

export interface Ledger {
  ledger: LogRow[]
  /** Entries of this member that the server does not have yet. */
  waiting: number
  /** Entries on this device that others made; they are sent when those sign in here. */
  othersWaiting: number
  refused: readonly KeptEntry[]
  /** Takes a refused entry off the list, once somebody has seen to it. */
  settleRefused: (id: string) => void
  logFault: Fault | null
  log: (payload: LogPayload) => void
  /** False where this browser keeps nothing over a reload. */
  lasts: boolean
}
interface LedgerStart {
  jobId: string
  ledger: LogRow[]
  member: { id: string; name: string }
}

type Outcome = { id: string; outcome: 'done' | 'again' | 'refused'; code?: string }

/** One batch to the server; a dead network becomes a fault too. */
async function send(jobId: string, memberId: string, batch: readonly KeptEntry[]): Promise<Outcome[] | Fault> {
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
    return answer.ok ? (said.outcomes ?? []) : { code: said.code ?? 'offline' }
  } catch {
    return { code: 'offline' }
  }
}

/** The bay's entries: shown at once, kept on this device until the server has them, sent as often as it takes. */
export function useLedger({ jobId, ledger: began, member }: LedgerStart): Ledger {
  const [confirmed, setConfirmed] = useState(began)
  const [entries, setEntries] = useState<readonly KeptEntry[]>([])
  const [lasts, setLasts] = useState(true)
  const [logFault, setLogFault] = useState<Fault | null>(null)
  const offset = useClockOffsetMs()
  const busy = useRef(false)
  const channel = useRef<BroadcastChannel | null>(null)
  /** A page that is gone sets nothing any more. */
  const open = useRef(true)
  useEffect(() => {
    open.current = true
    return () => void (open.current = false)
  }, [])
  const { id: memberId, name } = member

  const look = useCallback(
    async (store: DeviceStore) => {
      const list = await store.entries(jobId)
      const now = Date.now()
      for (const entry of list)
        if (entry.state === 'sent' && now - (entry.sentAtMs ?? 0) > SENT_KEPT_MS) await store.remove(entry.id)
      if (!open.current) return list
      setLasts(store.lasts)
      setEntries((was) => {
        const known = new Set(list.map((entry) => entry.id))
        // What was pressed this moment is on its way into the store.
        return [...list, ...was.filter((entry) => entry.n < 0 && !known.has(entry.id))]
      })
      return list
    },
    [jobId],
  )

  const flush = useCallback(async () => {
    if (busy.current) return
    busy.current = true
    try {
      const store = await deviceStore()
      for (;;) {
        const list = await look(store)
        const batch = list.filter((e) => e.state === 'waiting' && e.memberId === memberId).slice(0, MOST_AT_ONCE)
        if (batch.length === 0) return setLogFault(null)
        const out = await send(jobId, memberId, batch)
        if (!Array.isArray(out)) return setLogFault(out)
        setLogFault(null)
        for (const { id, outcome, code } of out)
          await store.update(
            id,
            outcome === 'refused'
              ? { state: 'refused', code: code ?? 'refused' }
              : { state: 'sent', sentAtMs: Date.now() },
          )
        channel.current?.postMessage('changed')
        if (out.length === 0) return setLogFault({ code: 'went_wrong', facts: { reference: 'no outcome' } })
      }
    } finally {
      busy.current = false
      void deviceStore().then(look)
    }
  }, [jobId, look, memberId])

  useEffect(() => {
    // Another tab of this device shows what this one writes.
    if (typeof BroadcastChannel !== 'undefined') {
      channel.current = new BroadcastChannel(`cuirass/entries/${jobId}`)
      channel.current.onmessage = () => void deviceStore().then(look)
    }
    const asked = Date.now()
    void fetch('/api/health', { cache: 'no-store' })
      .then((answer) => learnServerTime(answer, asked))
      .catch(() => {}) // no network: the offset known before holds
    void flush()
    const again = setInterval(() => void flush(), RETRY_MS)
    const online = () => void flush()
    window.addEventListener('online', online)
    return () => {
      clearInterval(again)
      window.removeEventListener('online', online)
      channel.current?.close()
      channel.current = null // what is still on its way to the server comes back to a page that is left
    }
  }, [flush, jobId, look])

  const log = useCallback(
    (payload: LogPayload) => {
      const parsed = LogPayload.safeParse(payload)
      if (!parsed.success) return setLogFault(firstFault(parsed.error))
      const entry = {
        id: newId(),
        memberId,
        jobId,
        at: new Date().toISOString(),
        offsetMs: clockOffsetMs(),
        payload: parsed.data,
      }
      setEntries((was) => [...was, { ...entry, device: '', n: -1, state: 'waiting', code: null, sentAtMs: null }])
      void deviceStore()
        .then((store) => store.add(entry))
        .then(
          () => {
            channel.current?.postMessage('changed')
            return flush()
          },
          () => setLogFault({ code: 'device_full' }),
        )
    },
    [flush, jobId, memberId],
  )
  const settleRefused = useCallback(
    (id: string) =>
      void deviceStore().then(async (store) => {
        await store.remove(id)
        await look(store)
      }),
    [look],
  )

  const ledger = useMemo(() => {
    const known = new Set(confirmed.map((row) => row.id))
    const own = entries.filter((e) => e.memberId === memberId && e.state !== 'refused' && !known.has(e.id))
    const row = (e: KeptEntry): LogRow => ({
      id: e.id,
      at: new Date(Date.parse(e.at) + e.offsetMs).toISOString(),
      by: name,
      payload: e.payload,
    })
    return [...confirmed, ...own.map(row)]
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a clock put right shows entries at another time
  }, [confirmed, entries, memberId, name, offset])
  // A page rendered anew brings the newest rows.
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- rows of the server replace those of this page
    setConfirmed((was) => (began.length >= was.length ? began : was))
  }, [began])
  const own = entries.filter((e) => e.memberId === memberId)
  return {
    ledger,
    waiting: own.filter((e) => e.state === 'waiting').length,
    othersWaiting: entries.filter((e) => e.memberId !== memberId && e.state === 'waiting').length,
    refused: own.filter((e) => e.state === 'refused'),
    settleRefused,
    logFault,
    log,
    lasts,
  }
}
