'use client'

import Button from 'react-bootstrap/Button'
import Table from 'react-bootstrap/Table'
import { useMemo, useState } from 'react'
import { type Finding } from '@/core/model/finding/finding'
import { applyChange } from '@/core/model/plan/plan-change'
import { type Stage } from '@/core/model/finding/stage'
import { priceChange, pricedJob } from '@/core/reckon/price'
import { findingText, wayOutText } from '@/web/words/findings'
import { CAUTIONS } from '@/web/words/steps'
import { solvedText } from '@/web/words/stretch-words'
import { Fig } from './figure'
import { signed } from '@/web/words/format'
import { useJob } from './job-state'

const LEVEL = { stop: 'Stop', warn: 'Mind', note: 'Note' } as const
const RANK = { stop: 0, warn: 1, note: 2 } as const

/** What is wrong here and what would fix it. */
export function Findings({ stage, panelId, limit = 6 }: { stage: Stage; panelId?: string; limit?: number }) {
  const { reckoning } = useJob('reckoning')
  const [all, setAll] = useState(false)
  const own = reckoning.findings
    .filter((f) => f.stage === stage && (!panelId || f.panelId === panelId))
    .sort((a, b) => RANK[a.level] - RANK[b.level])
  const shown = all ? own : own.slice(0, limit)
  if (own.length === 0) return null
  return (
    <section aria-label="Findings" className="mb-3">
      {shown.map((f) => (
        <OneFinding key={f.id} f={f} />
      ))}
      {own.length > shown.length && (
        <Button variant="link" size="sm" className="px-0" onClick={() => setAll(true)}>
          Show {own.length - shown.length} more
        </Button>
      )}
    </section>
  )
}

function OneFinding({ f }: { f: Finding }) {
  const { fmt, plan, catalogue, ledger, reckoning, edit, mayPlan, waysFound } = useJob(
    'fmt',
    'plan',
    'catalogue',
    'ledger',
    'reckoning',
    'edit',
    'mayPlan',
    'waysFound',
  )
  const solvedWays =
    f.code === 'stretch_over_limit' && f.waysOut.length === 0 ? waysFound.get(f.panelId ?? '') : undefined
  const ways = solvedWays ?? f.waysOut
  const said = solvedWays?.map((w) => solvedText(w, fmt)) ?? f.waysOut.map((w) => wayOutText(w, fmt))
  const [open, setOpen] = useState(false)
  const priced = useMemo(() => (open ? pricedJob(plan, catalogue, ledger) : null), [open, plan, catalogue, ledger])
  const prices = priced ? ways.map((w) => priceChange(priced, w.change)) : []
  return (
    <div className="finding" data-level={f.level}>
      <span className="level">{LEVEL[f.level]}</span>
      {findingText(f, fmt)}{' '}
      {f.figureId && reckoning.figures.has(f.figureId) && (
        <span className="ms-1 text-nowrap">
          <Fig id={f.figureId} />
        </span>
      )}
      {ways.length > 0 && (
        <Button variant="link" size="sm" className="py-0" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Close' : `${ways.length} ${ways.length === 1 ? 'way' : 'ways'} out`}
        </Button>
      )}
      {open && (
        <Table className="mt-1">
          <thead>
            <tr>
              <th>Way out</th>
              <th className="n">Becomes</th>
              <th className="n">Film</th>
              <th className="n">Crew time</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {ways.map((w, i) => {
              const p = prices[i]
              return (
                <tr key={JSON.stringify(w.change)}>
                  <td>{said[i]}</td>
                  <td className="n">{w.becomes === null ? 'fits' : fmt.text(fmt.percent(w.becomes))}</td>
                  <td className="n">{p && signed(p.filmMm, fmt.text(fmt.longLength(Math.abs(p.filmMm))))}</td>
                  <td className="n">{p && signed(p.minutes, fmt.text(fmt.minutes(Math.abs(p.minutes))))}</td>
                  <td className="n">
                    {mayPlan && (
                      <Button
                        variant="outline-primary"
                        size="sm"
                        onClick={() => edit((was) => applyChange(was, w.change))}
                      >
                        Take it
                      </Button>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </Table>
      )}
    </div>
  )
}

export function Cautions({ codes }: { codes: readonly string[] }) {
  return (
    <>
      {codes.map((c) => (
        <div key={c} className="caution">
          {CAUTIONS[c] ?? c}
        </div>
      ))}
    </>
  )
}
