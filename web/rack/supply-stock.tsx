'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Table from 'react-bootstrap/Table'
import { BY_METRE, type SupplyKind } from '@/core/model/edge/supply-data'
import type { SupplyLevels } from '@/core/engines/edge/supply-list'
import { USED_KINDS } from '@/core/model/log/kinds'
import { moveSupply } from '@/web/actions/supplies'
import { call } from '@/web/kit/call'
import { useActId } from '@/web/kit/use-act-id'
import { useOnce } from '@/web/kit/use-once'
import { faultText } from '@/web/words/faults'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { SupplyAmount } from './supply-amount'

/** Tapes, blades and the like on the shelf: what came in, what was counted; jobs take off what they use. */
export function SupplyStock({ levels, fmt, mayChange }: { levels: SupplyLevels; fmt: Formatter; mayChange: boolean }) {
  const router = useRouter()
  const [kind, setKind] = useState<SupplyKind>('filament')
  const [amount, setAmount] = useState<number | null>(null)
  const act = useActId()
  const [said, setSaid] = useState('')
  const shown = USED_KINDS.filter((k) => levels[k] !== undefined)
  const text = (k: SupplyKind) => {
    const level = levels[k] ?? 0
    return BY_METRE.includes(k) ? fmt.text(fmt.longLength(level * 1000)) : String(Math.round(level * 10) / 10)
  }
  const move = useOnce(async (reason: 'received' | 'counted') => {
    if (amount === null) return
    const movement = { kind, amount, reason }
    const out = await call(moveSupply, { ...movement, id: act.idFor(movement) })
    setSaid(
      out.ok
        ? `${word('supply', kind)}: ${reason === 'received' ? 'put on the shelf' : 'counted'}.`
        : faultText(out.error),
    )
    if (!out.ok) return
    act.taken()
    setAmount(null)
    router.refresh()
  })
  return (
    <section className="plate my-3" aria-label="Supplies">
      <h2 className="h6">Tapes, blades and the like</h2>
      {shown.length === 0 ? (
        <p className="label">Nothing is counted yet: put in what is on the shelf, and jobs take off what they use.</p>
      ) : (
        <Table className="w-auto">
          <tbody>
            {shown.map((k) => (
              <tr key={k}>
                <th scope="row">{word('supply', k)}</th>
                <td className={`n ${(levels[k] ?? 0) <= 0 ? 'text-danger' : ''}`}>{text(k)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {mayChange && (
        <div className="d-flex gap-2 align-items-center flex-wrap">
          <SupplyAmount
            small
            label="Which supply"
            kind={kind}
            amount={amount}
            onKind={setKind}
            onAmount={setAmount}
            least={0}
          />
          <span className="label">{BY_METRE.includes(kind) ? 'm' : ''}</span>
          <Button size="sm" disabled={!amount} onClick={() => void move('received')}>
            Came in
          </Button>
          <Button size="sm" variant="outline-primary" disabled={amount === null} onClick={() => void move('counted')}>
            Counted: so much is there
          </Button>
          <span role="status">{said}</span>
        </div>
      )}
    </section>
  )
}
