'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { USED_KINDS } from '@/core/model/log/schema'
import { useJob } from '@/web/job/job-state'
import { NumberInput } from '@/web/kit/quantity-input'
import { word } from '@/web/words/names'
import { FilmUsed } from './film-used'
import { StartTimer } from './timers'

const BY_METRE: readonly string[] = ['filament', 'wire', 'masking', 'sealing', 'holding']

/** Film and everything else that is used up, and a timer by hand. */
export function SupplyView() {
  return (
    <div className="bay-supply">
      <FilmUsed />
      <Consumables />
      <StartTimer />
    </div>
  )
}

function Consumables() {
  const { log, ledger } = useJob()
  const [of, setOf] = useState<(typeof USED_KINDS)[number]>('filament')
  const [amount, setAmount] = useState<number | null>(null)
  const used = new Map<string, number>()
  for (const { payload } of ledger)
    if (payload.kind === 'consumable_used') used.set(payload.of, (used.get(payload.of) ?? 0) + payload.amount)
  return (
    <section className="plate d-flex gap-2 align-items-center flex-wrap" aria-label="Used up">
      <Form.Select
        aria-label="What was used up"
        value={of}
        style={{ width: 200 }}
        onChange={(e) => setOf(e.target.value as typeof of)}
      >
        {USED_KINDS.map((k) => (
          <option key={k} value={k}>
            {word('supply', k)}
          </option>
        ))}
      </Form.Select>
      <span style={{ width: 110 }}>
        <NumberInput
          className="form-control"
          aria-label={BY_METRE.includes(of) ? 'Metres' : 'How many'}
          value={amount}
          digits={1}
          optional
          min={0.1}
          max={10000}
          onValue={setAmount}
        />
      </span>
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
