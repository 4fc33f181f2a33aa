'use client'

import { useCallback, useEffect, useMemo, useState } from 'react'
import { mergedRows } from '@/core/model/log/device-order'
import type { LogPayload, LogRow } from '@/core/model/log/schema'
import type { Fault } from '@/core/kit/result'
import { newId } from '@/web/kit/call'
import { clockOffsetMs, useClockOffsetMs } from '@/web/kit/clock'
import { deviceStore, type KeptEntry } from './device-store'
import { lateChecks } from './late-parts'
import { useEntryQueue } from './use-entry-queue'

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
  /** `as`: an entry of before, by its own id and moment. */
  log: (payload: LogPayload, as?: { id: string; at: string }) => void
  /** Entries that the server has, others' among them. */
  receiveRows: (rows: readonly LogRow[]) => void
  /** Ids of the entries that the server is known to have. */
  confirmed: ReadonlySet<string>
  /** False until this device was looked into: before that nobody knows what waits. */
  looked: boolean
  /** False where this browser keeps nothing over a reload. */
  lasts: boolean
}
interface LedgerStart {
  jobId: string
  ledger: LogRow[]
  member: { id: string; name: string }
}

/** When and under which id an entry is made; what comes from a file tells the time as it was. */
const stamped = (as: { id: string; at: string } | undefined) =>
  as ? { id: as.id, at: as.at, offsetMs: 0 } : { id: newId(), at: new Date().toISOString(), offsetMs: clockOffsetMs() }

/** An entry as the ledger shows it before the server has it, by the server's clock as far as that is known. */
const rowOf = ({ id, at, offsetMs, payload }: KeptEntry, by: string): LogRow => ({
  id,
  at: new Date(Date.parse(at) + offsetMs).toISOString(),
  by,
  payload,
})

/** Rows that the server has: those of the page, and what came since. */
function useConfirmed(began: LogRow[]) {
  const [confirmed, setConfirmed] = useState(began)
  // A page rendered anew brings the newest rows.
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- rows of the server replace those of this page
    setConfirmed((was) => (began.length >= was.length ? began : was))
  }, [began])
  const receiveRows = useCallback(
    (rows: readonly LogRow[]) => setConfirmed((was) => (rows.length === 0 ? was : mergedRows(was, rows))),
    [],
  )
  return { confirmed, receiveRows }
}

/** The bay's entries: shown at once, kept on this device until the server has them, sent as often as it takes. */
export function useLedger({ jobId, ledger: began, member }: LedgerStart): Ledger {
  const { confirmed, receiveRows } = useConfirmed(began)
  const { id: memberId, name } = member
  const queue = useEntryQueue(jobId, memberId)
  const { entries, setEntries, looked, lasts, logFault, setLogFault, flush, look, tellTabs } = queue
  const offset = useClockOffsetMs()
  const log = useCallback(
    (payload: LogPayload, as?: { id: string; at: string }) => {
      // In the first moments of a page the checks may not be there yet: the server has them too.
      const checks = lateChecks.now()
      const parsed = checks?.LogPayload.safeParse(payload)
      if (parsed && !parsed.success) return setLogFault(checks?.firstFault(parsed.error) ?? null)
      const entry = { memberId, jobId, ...stamped(as), payload: parsed?.data ?? payload }
      setEntries((was) => [...was, { ...entry, device: '', n: -1, state: 'waiting', code: null, sentAtMs: null }])
      void deviceStore()
        .then((store) => store.add(entry))
        .then(
          () => {
            tellTabs()
            return flush()
          },
          () => setLogFault({ code: 'device_full' }),
        )
    },
    [flush, jobId, memberId, setEntries, setLogFault, tellTabs],
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
    return [...confirmed, ...own.map((e) => rowOf(e, name))]
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a clock put right shows entries at another time
  }, [confirmed, entries, memberId, name, offset])
  const ids = useMemo(() => new Set(confirmed.map((row) => row.id)), [confirmed])
  const own = entries.filter((e) => e.memberId === memberId)
  return {
    receiveRows,
    confirmed: ids,
    ledger,
    waiting: own.filter((e) => e.state === 'waiting').length,
    othersWaiting: entries.filter((e) => e.memberId !== memberId && e.state === 'waiting').length,
    refused: own.filter((e) => e.state === 'refused'),
    settleRefused,
    logFault,
    log,
    looked,
    lasts,
  }
}
