'use client'

import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react'
import { handedOver } from '@/core/stages/handover/handover'
import type { LogRow } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import type { Figure } from '@/core/model/figure/figure'
import type { FoundWay } from '@/core/engines/stretch/ways'
import { reckon, type Reckoning } from '@/core/reckon/reckon'
import { stockAfter } from '@/core/model/log/cut-pieces'
import { may, planPartsOf } from '@/core/model/rights/rights'
import type { SolvedStretch, SolvedTable } from '@/core/model/catalogue/solved-stretch'
import { keepStretch } from '@/web/actions/stretch'
import { call } from '@/web/kit/call'
import { useHydrated } from '@/web/kit/use-hydrated'
import { formatter, type Formatter, type MemberUnits } from '@/web/words/format'
import { useLedger, type Ledger } from './use-ledger'
import { usePlan, type PlanStore } from './use-plan'

export interface JobStart {
  jobId: string
  number: number
  plan: Plan
  handedOver?: Plan | null
  ledger: LogRow[]
  catalogue: Catalogue
  units: MemberUnits
  member: { id: string; name: string; role: string }
}

export interface JobContext extends PlanStore, Ledger {
  jobId: string
  /** The plan that the vehicle was handed over with; null before. */
  handedOverPlan: Plan | null
  catalogue: Catalogue
  reckoning: Reckoning
  fmt: Formatter
  /** What this member may change, by the same table that the server keeps to. */
  mayPlan: boolean
  /** Measures, also while somebody else does. */
  mayTape: boolean
  mayWalkaround: boolean
  mayLog: boolean
  member: JobStart['member']
  /** Stretches solved just now: what hangs on them is reckoned anew, and the shop keeps them. */
  solved: (rows: readonly { key: string; value: SolvedStretch }[]) => void
  /** Marks of the scans that the job has now, by panel. */
  scansAre: (marks: Readonly<Record<string, string>>) => void
  /** The best ways out that were solved, by panel: they stand beside the finding. */
  waysFound: ReadonlyMap<string, readonly FoundWay[]>
  foundWays: (panelId: string, ways: readonly FoundWay[]) => void
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

/** A job is reckoned where it is shown: the server sends what it hangs on, and never reckons a page itself. */
export function JobProvider({ start, children }: { start: JobStart; children: ReactNode }) {
  const alive = useHydrated()
  if (alive) return <OpenJob start={start}>{children}</OpenJob>
  return (
    <main className="sheet" id="main" aria-busy="true">
      <h1>{start.plan.vehicle.name}</h1>
      <p className="label">Reckoning the job…</p>
    </main>
  )
}

function OpenJob({ start, children }: { start: JobStart; children: ReactNode }) {
  const { jobId, member } = start
  const planStore = usePlan(start)
  const ledgerStore = useLedger(start)
  const [shown, setShown] = useState<JobContext['shown']>(null)
  const show = useCallback<JobContext['show']>((id, among = null) => setShown(id === null ? null : { id, among }), [])
  const fmt = useMemo(() => formatter(start.units), [start.units])
  const [known, setKnown] = useState<SolvedTable>(start.catalogue.solved ?? {})
  const [scans, setScans] = useState<Readonly<Record<string, string>>>(start.catalogue.scans ?? {})
  const scansAre = useCallback<JobContext['scansAre']>(
    (marks) => setScans((was) => (JSON.stringify(was) === JSON.stringify(marks) ? was : marks)),
    [],
  )
  const keeps = may(member.role, 'solve')
  const solved = useCallback<JobContext['solved']>(
    (rows) => {
      setKnown((was) => ({ ...was, ...Object.fromEntries(rows.map((r) => [r.key, r.value])) }))
      if (keeps) void call(keepStretch, { rows })
    },
    [keeps],
  )
  const [waysFound, setWaysFound] = useState<JobContext['waysFound']>(new Map())
  const foundWays = useCallback<JobContext['foundWays']>(
    (panelId, ways) => setWaysFound((was) => new Map(was).set(panelId, ways)),
    [],
  )
  // The rack as it was sent, less what was cut here since.
  const stock = useMemo(() => {
    const sent = new Set(start.ledger.map((row) => row.id))
    return stockAfter(start.catalogue.stock, ledgerStore.ledger, (row) => !sent.has(row.id))
  }, [start.catalogue.stock, start.ledger, ledgerStore.ledger])
  const catalogue = useMemo(
    () => ({ ...start.catalogue, stock, solved: known, scans }),
    [start.catalogue, stock, known, scans],
  )
  const { plan, reckoned } = planStore
  const { ledger } = ledgerStore
  // Handed over while the page is open: the plan as it stands at that moment is what was handed over.
  const isOver = useMemo(() => handedOver(ledger) !== null, [ledger])
  const [frozen, setFrozen] = useState<Plan | null>(start.handedOver ?? null)
  const [wasOver, setWasOver] = useState(isOver)
  if (isOver !== wasOver) {
    setWasOver(isOver)
    setFrozen(isOver ? (start.handedOver ?? plan) : null)
  }
  const reckoning = useMemo(() => reckon(reckoned, catalogue, ledger), [reckoned, catalogue, ledger])
  const parts = planPartsOf(member.role)
  const value: JobContext = {
    ...planStore,
    ...ledgerStore,
    jobId,
    handedOverPlan: isOver ? frozen : null,
    catalogue,
    reckoning,
    fmt,
    mayPlan: may(member.role, 'plan'),
    mayTape: parts === null || parts.includes('panels'),
    mayWalkaround: parts === null || parts.includes('walkaround'),
    mayLog: may(member.role, 'log'),
    member,
    solved,
    scansAre,
    waysFound,
    foundWays,
    shown,
    show,
  }
  return <Context value={value}>{children}</Context>
}
