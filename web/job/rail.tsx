'use client'

import { useEffect, useRef, useState } from 'react'
import ProgressBar from 'react-bootstrap/ProgressBar'
import { fromShelf } from '@/core/engines/roll/from-shelf'
import { RAIL } from '@/core/model/figure/figure-id'
import type { Reckoning } from '@/core/reckon/reckon'
import { Explain } from '@/web/kit/explain'
import { word } from '@/web/words/names'
import { TERMS, type Term } from '@/web/words/terms'
import { Fig } from './figure'
import { useJob } from './job-state'

/** Film used stands on the roll's page: the rail says what is to be ordered. */
const SHOWN = RAIL.filter((code) => code !== 'film_used')

/** The reckoning beside every stage: the figures that a job is judged by, and how far they have settled. */
export function Rail() {
  const { reckoning, fmt } = useJob('reckoning', 'fmt')
  const was = useSettledFrom(reckoning)
  return (
    <>
      <h2 className="label mb-2">Reckoning</h2>
      <Settling />
      <dl>
        {SHOWN.map((code) => (
          <div key={code}>
            <dt>
              {word('rail', code)}
              {code in TERMS && <Explain term={code as Term} />}
            </dt>
            <dd>
              <Fig id={`rail/${code}`} />
              {was[code] && <small className="d-block">settled, was {fmt.text(fmt.quantity(...was[code]))}</small>}
              {code === 'film_order' && <FromShelf />}
            </dd>
          </div>
        ))}
      </dl>
    </>
  )
}

/** How many of the solutions that this plan hangs on are there. */
function Settling() {
  const { left, of } = useJob('reckoning').reckoning.settling
  if (left === 0) return null
  return (
    <div className="mb-2" role="status">
      <span className="label">
        Settling {of - left} of {of}
      </span>
      <ProgressBar now={of - left} max={of} aria-label="Solved behind the plan" style={{ height: 6 }} />
    </div>
  )
}

type Shown = Parameters<ReturnType<typeof useJob>['fmt']['quantity']>
/** A figure that moved by settling says once what it was, until something else is typed. */
function useSettledFrom({ figures, parts, settling }: Reckoning): Readonly<Record<string, Shown>> {
  const [was, setWas] = useState<Readonly<Record<string, Shown>>>({})
  const before = useRef<{ plan: unknown; values: Map<string, Shown> } | null>(null)
  const { plan } = parts
  useEffect(() => {
    const values = new Map<string, Shown>()
    const moved: Record<string, Shown> = {}
    const begun = before.current?.plan === plan ? before.current.values : null
    for (const code of SHOWN) {
      const f = figures.get(`rail/${code}`)
      if (!f) continue
      const first = begun?.get(code)
      // The value that stood in first is what it moved from.
      if (first) values.set(code, first)
      else if (f.settling) values.set(code, [f.value, f.unit])
      if (first && !f.settling && first[0] !== f.value) moved[code] = first
    }
    before.current = { plan, values }
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what is told hangs on the reckoning before this one
    setWas(moved)
  }, [figures, plan, settling.left])
  return was
}

/** Where nothing is to be ordered: which rolls the film comes from, and what is left of them after it. */
function FromShelf() {
  const { reckoning, catalogue, ledger, fmt } = useJob('reckoning', 'catalogue', 'ledger', 'fmt')
  const rolls = reckoning.layouts.flatMap((l) =>
    reckoning.purchases.get(l.film.id)?.covered ? fromShelf(l, catalogue.stock, ledger) : [],
  )
  return rolls.map((r) => (
    <small key={r.label} className="d-block">
      from the shelf: {r.label}, lot {r.lot}, {fmt.text(fmt.longLength(r.leftAfterMm))} left after
    </small>
  ))
}
