import { useCallback, useEffect, useMemo, useState } from 'react'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import { NO_SOLUTIONS, solutionTables, type SolutionTables } from '@/core/model/catalogue/solution-tables'
import type { Solution } from '@/core/model/catalogue/solutions'
import { hoursOf } from '@/core/model/shop/default-shop'
import { usedOn } from '@/core/engines/edge/supply-list'
import { NO_RECORD } from '@/core/model/log/learned'
import { stockAfter } from '@/core/model/log/cut-pieces'
import type { Changes } from '@/web/actions/live'
import { read } from '@/web/kit/read'
import { useChanges } from '@/web/live/use-changes'
import type { JobStart } from './job-start'
import type { Ledger } from './use-ledger'
import type { PlanStore } from './use-plan'

interface ShopSide {
  /** What the page was rendered with last. */
  start: JobStart
  /** Up to which change number it tells. */
  head: number
  catalogue: Catalogue
  /** Entries that the rack's lengths count already. */
  counted: ReadonlySet<string>
  /** Entries that the levels of supplies count already. */
  suppliesCounted: ReadonlySet<string>
}

const withTables = (was: SolutionTables | undefined, more: SolutionTables): SolutionTables => ({
  stretch: { ...was?.stretch, ...more.stretch },
  ways: { ...was?.ways, ...more.ways },
  layout: { ...was?.layout, ...more.layout },
  heat: { ...was?.heat, ...more.heat },
  fault: { ...was?.fault, ...more.fault },
})

/** What the server says is new put into what was there; `confirmed`: entries that it had before. */
function withChanges(
  was: ShopSide,
  { entries, stock, films, supplies, record, shop, solutions, scans, head }: Changes,
  confirmed: ReadonlySet<string>,
): ShopSide {
  const { catalogue } = was
  const counted = new Set([...confirmed, ...entries.map((row) => row.id)])
  return {
    ...was,
    head: Math.max(was.head, head),
    catalogue: {
      ...catalogue,
      ...(stock ? { stock } : {}),
      films: same(catalogue.films, films),
      hours: same(catalogue.hours, hoursOf(shop)),
      shop: same(catalogue.shop ?? shop, shop),
      record: same(catalogue.record ?? NO_RECORD, record),
      supplies: same(catalogue.supplies ?? {}, supplies),
      scans: same(catalogue.scans ?? {}, scans),
      ...(solutions.length > 0
        ? { solutions: withTables(catalogue.solutions, { ...NO_SOLUTIONS, ...solutionTables(solutions) }) }
        : {}),
    },
    counted: stock ? counted : was.counted,
    suppliesCounted: counted,
  }
}

/** What the shop brings to an open job, kept as it is on the server: rack, films, solutions; plan and ledger with it. */
export function useShopSide(start: JobStart, plan: PlanStore, ledger: Ledger) {
  const ofStart = (): ShopSide => ({
    start,
    head: start.shopHead,
    catalogue: start.catalogue,
    counted: new Set(start.ledger.map((row) => row.id)),
    suppliesCounted: new Set(start.ledger.map((row) => row.id)),
  })
  const [side, setSide] = useState(ofStart)
  if (start !== side.start) setSide(renderedAnew(side, start, ofStart()))
  const { receive } = plan
  const { receiveRows, confirmed } = ledger
  const took = (changes: Changes) => {
    receiveRows(changes.entries)
    if (changes.revision) receive(changes.revision)
    setSide((was) => withChanges(was, changes, confirmed))
  }
  // Another plan may hang on what was solved long ago: asked for once it is saved.
  useChanges(start.jobId, start.shopHead, { took, brought: receiveRows, asked: plan.number - start.number })
  const scansAre = useCallback(
    (scans: Readonly<Record<string, string>>) =>
      setSide((was) => ({ ...was, catalogue: { ...was.catalogue, scans: same(was.catalogue.scans ?? {}, scans) } })),
    [],
  )
  // The rack as it was sent, less what was cut here since.
  const { catalogue: sent, counted, suppliesCounted } = side
  const stock = useMemo(
    () => stockAfter(sent.stock, ledger.ledger, (row) => !counted.has(row.id)),
    [sent.stock, ledger.ledger, counted],
  )
  const supplies = useMemo(
    () => suppliesAfter(sent.supplies ?? {}, ledger.ledger, suppliesCounted),
    [sent.supplies, ledger.ledger, suppliesCounted],
  )
  const compared = useCompared(start.jobId)
  // What was told since stands before what was read once.
  const solutions = useMemo(
    () => (compared && sent.solutions ? withTables(compared, sent.solutions) : sent.solutions),
    [compared, sent.solutions],
  )
  const catalogue = useMemo(
    (): Catalogue => ({ ...sent, stock, supplies, ...(solutions ? { solutions } : {}) }),
    [sent, stock, supplies, solutions],
  )
  return { catalogue, scansAre }
}

/** What the plan is compared by, other films and schools: the larger half of its solutions, and no figure waits for it. */
function useCompared(jobId: string): SolutionTables | null {
  const [tables, setTables] = useState<SolutionTables | null>(null)
  useEffect(() => {
    const gone = new AbortController()
    read<Solution[]>(`/api/jobs/${jobId}/compared`, gone.signal)
      .then((list) => setTables({ ...NO_SOLUTIONS, ...solutionTables(list) }))
      // Without an answer films and schools are compared by the rule, and say so.
      .catch(() => {})
    return () => gone.abort()
  }, [jobId])
  return tables
}

/** Levels as they were sent, less what was used here since; of what the shop does not count there is none. */
function suppliesAfter(
  sent: NonNullable<Catalogue['supplies']>,
  rows: Ledger['ledger'],
  counted: ReadonlySet<string>,
): NonNullable<Catalogue['supplies']> {
  const since = usedOn(rows.filter((row) => !counted.has(row.id)))
  if (since.size === 0) return sent
  const left = { ...sent }
  for (const [kind, amount] of since) if (left[kind] !== undefined) left[kind] -= amount
  return left
}

/** A page rendered anew brings what stood then; what the page heard of since stays. */
function renderedAnew(side: ShopSide, start: JobStart, fresh: ShopSide): ShopSide {
  if (fresh.head >= side.head) return fresh
  const { climate, now } = start.catalogue
  return { ...side, start, catalogue: { ...side.catalogue, climate, now } }
}

/** The one before where the two say the same: what hangs on it is not done again. */
const same = <T>(was: T, now: T): T => (JSON.stringify(was) === JSON.stringify(now) ? was : now)
