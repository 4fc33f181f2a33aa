'use client'

import {
  createContext,
  Suspense,
  use,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useState,
  type ReactNode,
} from 'react'
import { createStore, useStore, type StoreApi } from 'zustand'
import { useShallow } from 'zustand/react/shallow'
import { handedOver } from '@/core/stages/handover/handover'
import { keptFor } from '@/core/kit/kept'
import type { BesidePanels, Plan } from '@/core/model/plan/schema'
import type { LogRow } from '@/core/model/log/schema'
import type { FilmSheet } from '@/core/model/film/schema'
import type { Panel } from '@/core/model/vehicle/schema'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import type { Figure } from '@/core/model/figure/figure'
import { filmOf } from '@/core/model/plan/piece-choice'
import { waysKey } from '@/core/engines/stretch/ways-key'
import type { FoundWayOut } from '@/core/model/catalogue/solutions'
import { stretchKey } from '@/core/model/catalogue/stretch-key'
import { reckoner, type Reckoning } from '@/core/reckon/reckoner'
import { may, planPartsOf } from '@/core/model/rights/rights'
import { loadTheRest, whenIdle } from '@/web/kit/late'
import { useHydrated } from '@/web/kit/use-hydrated'
import { formatter, type Formatter } from '@/web/words/format'
import { useLedger, type Ledger } from './use-ledger'
import { usePhotoQueue, type PhotoQueue } from './use-photo-queue'
import { usePlan, type PlanStore } from './use-plan'
import { useShopSide } from './use-shop-side'
import type { JobStart } from './job-start'
import { lateSolvers, SOLVERS_WHEN_LOADED, SolversWanted } from './late-parts'
import { endStandIn, standIn } from './at-this-tablet'

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
  /** Let in here by their PIN without a network: what they log waits until they come in at the server. */
  standsIn: boolean
  /** Whose session the server knows. */
  signedInId: string
  photos: PhotoQueue
  /** Marks of the scans that the job has now, by panel. */
  scansAre: (marks: Readonly<Record<string, string>>) => void
  /** The best ways out that were solved, by panel: they stand beside the finding. */
  waysFound: ReadonlyMap<string, readonly FoundWayOut[]>
  /** The figure whose working is open, and the figures it hangs on where they are not the job's own. */
  shown: { id: string; among: ReadonlyMap<string, Figure> | null } | null
  show: (figureId: string | null, among?: ReadonlyMap<string, Figure> | null) => void
}

const reckon = reckoner(SOLVERS_WHEN_LOADED)

/** Reckons a job time after time; null where that takes the solvers, and they are not loaded yet. */
function timeAfterTime() {
  let before: Reckoning | null = null
  return (plan: Plan, catalogue: Catalogue, ledger: readonly LogRow[]): Reckoning | null => {
    try {
      return (before = reckon(plan, catalogue, ledger, before))
    } catch (fault) {
      if (fault instanceof SolversWanted) return null
      throw fault
    }
  }
}

const mustReckon = (made: Reckoning | null): Reckoning => {
  if (!made) throw new Error('the solvers were loaded, and the job is not reckoned')
  return made
}

const NO_WAYS: JobContext['waysFound'] = new Map()
const keptWaysKey = keptFor(
  (panel: Panel, beside: BesidePanels, film: FilmSheet, scan: string | undefined, films: Catalogue['films']) =>
    waysKey(stretchKey(beside, panel, film, scan), panel.id, films),
)

/** The best ways out of each panel's stretch, as far as they are solved. */
function foundWays({ parts }: Reckoning, { solutions, films, scans }: Catalogue): JobContext['waysFound'] {
  const { plan, beside } = parts
  const solved = solutions?.ways
  if (!solved || Object.keys(solved).length === 0) return NO_WAYS
  const found = new Map<string, readonly FoundWayOut[]>()
  for (const panel of plan.panels) {
    const film = filmOf(plan, panel)
    const ways = film && solved[keptWaysKey(panel, beside, film, scans?.[panel.id], films)]
    if (ways) found.set(panel.id, ways)
  }
  return found
}

const Context = createContext<StoreApi<JobContext> | null>(null)

/**
 * These parts of the open job (all where none is named): what asks is drawn anew when one of them is another, and at no
 * other time.
 */
export function useJob<K extends keyof JobContext>(...parts: K[]): Pick<JobContext, K> {
  const store = useContext(Context)
  if (!store) throw new Error('outside a job')
  return useStore(
    store,
    useShallow((job): Pick<JobContext, K> => {
      if (parts.length === 0) return job
      const picked: Partial<Pick<JobContext, K>> = {}
      for (const part of parts) picked[part] = job[part]
      return picked as Pick<JobContext, K>
    }),
  )
}

/** A job is reckoned where it is shown: the server sends what it hangs on, and never reckons a page itself. */
export function JobProvider({ start, children }: { start: JobStart; children: ReactNode }) {
  const alive = useHydrated()
  const reckoning = (
    <main className="sheet" id="main" aria-busy="true">
      <h1>{start.plan.vehicle.name}</h1>
      <p className="label">Reckoning the job…</p>
    </main>
  )
  useEffect(() => whenIdle(() => void loadTheRest()), [])
  if (!alive) return reckoning
  return (
    <Suspense fallback={reckoning}>
      <OpenAs start={start}>{children}</OpenAs>
    </Suspense>
  )
}

/** As the member that the server knows, or as whoever was let in here while there was no network. */
function OpenAs({ start, children }: { start: JobStart; children: ReactNode }) {
  const [guest] = useState(() => {
    const who = standIn()
    // They came in at the server meanwhile, or somebody else did.
    const isOver = who !== null && (who.id === start.member.id || who.over !== start.member.id)
    if (isOver) endStandIn()
    return isOver ? null : who
  })
  return (
    <OpenJob start={guest ? { ...start, member: guest } : start} signedInId={start.member.id} standsIn={guest !== null}>
      {children}
    </OpenJob>
  )
}

function OpenJob({
  start,
  signedInId,
  standsIn,
  children,
}: {
  start: JobStart
  signedInId: string
  standsIn: boolean
  children: ReactNode
}) {
  const { jobId, member } = start
  const planStore = usePlan(start)
  const ledgerStore = useLedger(start)
  const photos = usePhotoQueue(start)
  const [shown, setShown] = useState<JobContext['shown']>(null)
  const show = useCallback<JobContext['show']>((id, among = null) => setShown(id === null ? null : { id, among }), [])
  const fmt = useMemo(() => formatter(start.units), [start.units])
  const { catalogue, scansAre } = useShopSide(start, planStore, ledgerStore)
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
  // Each part whose inputs are the same is taken over from the reckoning before.
  const [reckonAgain] = useState(timeAfterTime)
  const made = useMemo(() => reckonAgain(reckoned, catalogue, ledger), [reckonAgain, reckoned, catalogue, ledger])
  // Waits for the solvers: what was looked at stays out of sight until then, and nothing old is shown for new.
  const reckoning = made ?? (use(lateSolvers.load()) && mustReckon(reckonAgain(reckoned, catalogue, ledger)))
  const waysFound = useMemo(() => foundWays(reckoning, catalogue), [reckoning, catalogue])
  // A plan is saved by whoever the server knows: who stands in logs, and changes no plan.
  const parts = standsIn ? [] : planPartsOf(member.role)
  const value: JobContext = {
    ...planStore,
    ...ledgerStore,
    jobId,
    handedOverPlan: isOver ? frozen : null,
    catalogue,
    reckoning,
    fmt,
    mayPlan: !standsIn && may(member.role, 'plan'),
    mayTape: parts === null || parts.includes('panels'),
    mayWalkaround: parts === null || parts.includes('walkaround'),
    mayLog: may(member.role, 'log'),
    member,
    standsIn,
    signedInId,
    photos,
    scansAre,
    waysFound,
    shown,
    show,
  }
  const [store] = useState(() => createStore<JobContext>(() => value))
  useLayoutEffect(() => store.setState(value, true))
  return <Context value={store}>{children}</Context>
}
