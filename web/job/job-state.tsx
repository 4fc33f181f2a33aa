'use client'

import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import type { LogEntry, LogPayload, LogRow } from '@/core/log/schema'
import { mergePlans, type Clash } from '@/core/plan/merge'
import { firstFault } from '@/core/plan/parse'
import { Plan } from '@/core/plan/schema'
import type { Catalogue } from '@/core/reckon/catalogue'
import type { Figure } from '@/core/reckon/figure'
import type { WayOut } from '@/core/reckon/finding'
import { reckon, type Reckoning } from '@/core/reckon/reckon'
import type { SolvedStretch, SolvedTable } from '@/core/stretch/solved'
import { keepStretch } from '@/web/actions/stretch'
import type { Fault } from '@/core/kit/result'
import { logEntries, saveJob, undoJob, type Saved } from '@/web/actions/jobs'
import { call, newId } from '@/web/kit/call'
import { useAlive } from '@/web/kit/use-alive'
import { formatter, type Formatter, type MemberUnits } from '@/web/words/format'

export interface JobStart {
  jobId: string
  number: number
  plan: Plan
  ledger: LogRow[]
  catalogue: Catalogue
  units: MemberUnits
  member: { name: string; role: string }
}
type SaveState =
  | { kind: 'saved' | 'typing' | 'saving' | 'merged' }
  | { kind: 'fault'; fault: Fault }
  | { kind: 'clash'; number: number; theirs: Plan; clashes: Clash[]; by: string; summary: string }

export interface JobContext {
  jobId: string
  number: number
  plan: Plan
  catalogue: Catalogue
  ledger: LogRow[]
  waiting: number
  logFault: Fault | null
  reckoning: Reckoning
  fmt: Formatter
  save: SaveState
  mayPlan: boolean
  /** Measures, also while somebody else does. */
  mayTape: boolean
  mayLog: boolean
  member: JobStart['member']
  edit: (change: (plan: Plan) => Plan) => void
  undo: () => Promise<void>
  settle: (keep: 'mine' | 'theirs') => void
  log: (payload: LogPayload) => void
  take: (saved: Saved) => void
  /** Stretches solved just now: what hangs on them is reckoned anew, and the shop keeps them. */
  solved: (rows: readonly { key: string; value: SolvedStretch }[]) => void
  /** Marks of the scans that the job has now, by panel. */
  scansAre: (marks: Readonly<Record<string, string>>) => void
  /** The best ways out that were solved, by panel: they stand beside the finding. */
  waysFound: ReadonlyMap<string, readonly WayOut[]>
  foundWays: (panelId: string, ways: readonly WayOut[]) => void
  /** The figure whose working is open, and the figures it hangs on where they are not the job's own. */
  shown: { id: string; among: ReadonlyMap<string, Figure> | null } | null
  show: (figureId: string | null, among?: ReadonlyMap<string, Figure> | null) => void
}

const Context = createContext<JobContext | null>(null)
export function useJob(): JobContext {
  const job = useContext(Context)
  if (!job) throw new Error('outside a job')
  return job
}

const SAVE_PAUSE_MS = 700

export function JobProvider({ start, children }: { start: JobStart; children: ReactNode }) {
  const [plan, setPlan] = useState(start.plan)
  const [save, setSave] = useState<SaveState>({ kind: 'saved' })
  const [number, setNumber] = useState(start.number)
  const [shown, setShown] = useState<JobContext['shown']>(null)
  const show = useCallback<JobContext['show']>((id, among = null) => setShown(id === null ? null : { id, among }), [])
  // What the server has: the ground of the next save. Refs, since a save in flight must see the newest of each.
  const base = useRef({ number: start.number, plan: start.plan })
  const latest = useRef(start.plan)
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null)
  const busy = useRef(false)
  // A save calls for the next one itself, so it is reached through a ref.
  const pushRef = useRef<() => Promise<void>>(async () => {})

  const adopt = useCallback((saved: { number: number; plan: Plan }, sent: Plan) => {
    const typed = latest.current
    base.current = { number: saved.number, plan: saved.plan }
    setNumber(saved.number)
    if (typed === sent) latest.current = saved.plan
    else {
      const merged = mergePlans(sent, typed, saved.plan)
      latest.current = merged.clean ? merged.plan : typed
    }
    setPlan(latest.current)
  }, [])

  const push = useCallback(async () => {
    if (busy.current || latest.current === base.current.plan) return
    const sent = latest.current
    const valid = Plan.safeParse(sent)
    if (!valid.success) return setSave({ kind: 'fault', fault: firstFault(valid.error) })
    busy.current = true
    setSave({ kind: 'saving' })
    const out = await call(saveJob, { jobId: start.jobId, basedOn: base.current.number, plan: sent })
    busy.current = false
    if (!out.ok) {
      setSave({ kind: 'fault', fault: out.error })
      if (out.error.code === 'offline') timer.current = setTimeout(() => void pushRef.current(), 4000)
      return
    }
    if (out.value.kind === 'clash') return setSave(out.value)
    adopt(out.value.kind === 'unchanged' ? { number: out.value.number, plan: sent } : out.value, sent)
    if (latest.current !== base.current.plan) {
      setSave({ kind: 'typing' })
      timer.current = setTimeout(() => void pushRef.current(), SAVE_PAUSE_MS)
    } else setSave({ kind: out.value.kind === 'merged' ? 'merged' : 'saved' })
  }, [adopt, start.jobId])
  useEffect(() => {
    pushRef.current = push
  }, [push])

  const edit = useCallback((change: (plan: Plan) => Plan) => {
    latest.current = change(latest.current)
    setPlan(latest.current)
    setSave({ kind: 'typing' })
    if (timer.current) clearTimeout(timer.current)
    timer.current = setTimeout(() => void pushRef.current(), SAVE_PAUSE_MS)
  }, [])

  const take = useCallback(
    (saved: Saved) => {
      if (saved.kind === 'clash') return setSave(saved)
      if (saved.kind !== 'unchanged') adopt(saved, latest.current)
      setSave({ kind: 'saved' })
    },
    [adopt],
  )
  const undo = useCallback(async () => {
    if (timer.current) clearTimeout(timer.current)
    await pushRef.current()
    const out = await call(undoJob, { jobId: start.jobId })
    if (out.ok) take(out.value)
    else setSave({ kind: 'fault', fault: out.error })
  }, [start.jobId, take])

  const settle = useCallback(
    (keep: 'mine' | 'theirs') => {
      if (save.kind !== 'clash') return
      // Only the clashing parts are decided; what else either side changed stays.
      const merged = mergePlans(base.current.plan, latest.current, save.theirs, { prefer: keep })
      base.current = { number: save.number, plan: save.theirs }
      setNumber(save.number)
      if (merged.clean) latest.current = merged.plan
      setPlan(latest.current)
      setSave({ kind: 'typing' })
      void pushRef.current()
    },
    [save],
  )

  useEffect(() => {
    const leave = (event: BeforeUnloadEvent) => {
      if (latest.current !== base.current.plan) event.preventDefault()
    }
    const key = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement
      if ((event.ctrlKey || event.metaKey) && event.key === 'z' && !event.shiftKey && !typing) {
        event.preventDefault()
        void undo()
      }
    }
    window.addEventListener('beforeunload', leave)
    window.addEventListener('keydown', key)
    return () => {
      window.removeEventListener('beforeunload', leave)
      window.removeEventListener('keydown', key)
    }
  }, [undo])

  const { ledger, waiting, logFault, log } = useLedger(start)
  const fmt = useMemo(() => formatter(start.units), [start.units])
  const [known, setKnown] = useState<SolvedTable>(start.catalogue.solved ?? {})
  const [scans, setScans] = useState<Readonly<Record<string, string>>>(start.catalogue.scans ?? {})
  const scansAre = useCallback<JobContext['scansAre']>((marks) => setScans((was) => (JSON.stringify(was) === JSON.stringify(marks) ? was : marks)), []) // prettier-ignore
  const catalogue = useMemo(() => ({ ...start.catalogue, solved: known, scans }), [start.catalogue, known, scans])
  const solved = useCallback<JobContext['solved']>((rows) => {
    setKnown((was) => ({ ...was, ...Object.fromEntries(rows.map((r) => [r.key, r.value])) }))
    void call(keepStretch, { rows })
  }, [])
  const [waysFound, setWaysFound] = useState<JobContext['waysFound']>(new Map())
  const foundWays = useCallback<JobContext['foundWays']>((panelId, ways) => setWaysFound((was) => new Map(was).set(panelId, ways)), []) // prettier-ignore
  const reckoning = useMemo(() => reckon(plan, catalogue, ledger), [plan, catalogue, ledger])
  const alive = useAlive()
  const mayPlan = alive && ['owner', 'lead', 'desk'].includes(start.member.role)
  const mayTape = alive && start.member.role !== 'desk'
  const mayLog = alive && start.member.role !== 'desk'
  const value: JobContext = {
    mayLog,
    jobId: start.jobId,
    number,
    plan,
    catalogue,
    ledger,
    waiting,
    logFault,
    reckoning,
    fmt,
    save,
    mayPlan,
    mayTape,
    member: start.member,
    edit,
    undo,
    settle,
    log,
    take,
    solved,
    scansAre,
    waysFound,
    foundWays,
    shown,
    show,
  }
  return <Context value={value}>{children}</Context>
}

const SENT_KEPT_MS = 60_000

/**
 * A page that was being rendered while an entry arrived does not show it yet. So what was sent in the last minute is
 * kept too, and sent again by a page that lacks it; the server knows its id and applies it once.
 */
function remember(key: string, entries: readonly LogEntry[]) {
  try {
    localStorage.setItem(
      `${key}/sent`,
      JSON.stringify({ at: Date.now(), entries: [...lately(key), ...entries].slice(-50) }),
    )
  } catch {}
}
function lately(key: string): LogEntry[] {
  try {
    const { at, entries } = JSON.parse(localStorage.getItem(`${key}/sent`) ?? '{}') as {
      at?: number
      entries?: LogEntry[]
    }
    return at && entries && Date.now() - at < SENT_KEPT_MS ? entries : []
  } catch {
    return []
  }
}

/** The bay's entries: shown at once, kept on this device until the server has them, sent as often as it takes. */
function useLedger(start: JobStart) {
  const key = `cuirass/outbox/${start.jobId}`
  const [confirmed, setConfirmed] = useState(start.ledger)
  const [outbox, setOutbox] = useState<LogEntry[]>([])
  const [logFault, setLogFault] = useState<Fault | null>(null)
  const box = useRef<LogEntry[]>([])
  const busy = useRef(false)
  const keep = useCallback(
    (entries: LogEntry[]) => {
      box.current = entries
      setOutbox(entries)
      try {
        localStorage.setItem(key, JSON.stringify(entries))
      } catch {}
    },
    [key],
  )
  const flush = useCallback(async () => {
    if (busy.current || box.current.length === 0) return
    busy.current = true
    const sent = box.current.slice(0, 50)
    const out = await call(logEntries, { jobId: start.jobId, entries: sent })
    busy.current = false
    if (!out.ok) {
      setLogFault(out.error)
      return
    }
    const outcome = new Map(out.value.map((o) => [o.id, o.outcome]))
    const good = sent.filter((e) => ['done', 'again'].includes(outcome.get(e.id) ?? ''))
    const refused = out.value.find((o) => !['done', 'again'].includes(o.outcome))
    setLogFault(refused ? { code: refused.outcome } : null)
    setConfirmed((rows) => [
      ...rows,
      ...good.filter((e) => !rows.some((r) => r.id === e.id)).map((e) => ({ ...e, by: start.member.name })),
    ])
    remember(key, good)
    keep(box.current.filter((e) => !outcome.has(e.id)))
  }, [keep, key, start.jobId, start.member.name])
  useEffect(() => {
    try {
      const kept = [...(JSON.parse(localStorage.getItem(key) ?? '[]') as LogEntry[]), ...lately(key)].filter(
        (e) => !start.ledger.some((r) => r.id === e.id),
      )
      // eslint-disable-next-line react-hooks/set-state-in-effect -- the device's own store is known only here
      if (kept.length > 0) keep(kept)
    } catch {}
    void flush()
    const again = setInterval(() => void flush(), 5000)
    const online = () => void flush()
    window.addEventListener('online', online)
    return () => {
      clearInterval(again)
      window.removeEventListener('online', online)
    }
  }, [flush, keep, key, start.ledger])
  const log = useCallback(
    (payload: LogPayload) => {
      keep([...box.current, { id: newId(), at: new Date().toISOString(), payload }])
      void flush()
    },
    [flush, keep],
  )
  const ledger = useMemo(
    () => [
      ...confirmed,
      ...outbox.filter((e) => !confirmed.some((r) => r.id === e.id)).map((e) => ({ ...e, by: start.member.name })),
    ],
    [confirmed, outbox, start.member.name],
  )
  return { ledger, waiting: outbox.length, logFault, log }
}
