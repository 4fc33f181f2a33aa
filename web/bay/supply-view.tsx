'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import { BY_METRE, type SupplyKind } from '@/core/model/edge/supply-data'
import { useJob } from '@/web/job/job-state'
import { SupplyAmount } from '@/web/rack/supply-amount'
import { word } from '@/web/words/names'
import { FilmUsed } from './film-used'
import { ReadLabel } from './read-label'
import { StartTimer } from './timers'

/** Film and everything else that is used up, and a timer by hand. */
export function SupplyView() {
  return (
    <div className="d-flex flex-column gap-2 overflow-y-auto">
      <ReadLabel />
      <FilmUsed />
      <Consumables />
      <StartTimer />
    </div>
  )
}

function Consumables() {
  const { log, ledger } = useJob('log', 'ledger')
  const [of, setOf] = useState<SupplyKind>('filament')
  const [amount, setAmount] = useState<number | null>(null)
  const used = new Map<SupplyKind, number>()
  for (const { payload } of ledger)
    if (payload.kind === 'consumable_used') used.set(payload.of, (used.get(payload.of) ?? 0) + payload.amount)
  return (
    <section className="plate d-flex gap-2 align-items-center flex-wrap" aria-label="Used up">
      <SupplyAmount
        label="What was used up"
        kind={of}
        amount={amount}
        onKind={setOf}
        onAmount={setAmount}
        least={0.1}
      />
      <Button
        variant="plain"
        disabled={!amount}
        onClick={() => {
          if (amount) log({ kind: 'consumable_used', of, amount })
          setAmount(null)
        }}
      >
        {BY_METRE.includes(of) ? 'm used' : 'used'}
      </Button>
      <span>
        {[...used]
          .map(([k, n]) => `${word('supply', k)} ${Math.round(n * 10) / 10}${BY_METRE.includes(k) ? ' m' : ''}`)
          .join(' · ')}
      </span>
    </section>
  )
}
