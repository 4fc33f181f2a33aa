'use client'

import Table from 'react-bootstrap/Table'
import Button from 'react-bootstrap/Button'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { cutFromId } from '@/core/engines/roll/cut-from'
import { restsOf } from '@/core/engines/roll/rests'
import type { FilmLayout } from '@/core/engines/roll/film-layout'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { receiveStock } from '@/web/actions/shop'
import { call, newId } from '@/web/kit/call'
import { word } from '@/web/words/names'
import { faultText } from '@/web/words/faults'

/** What is left over of what is cut, large enough to keep; after cutting each goes back to the rack by one click. */
export function Rests({ layout }: { layout: FilmLayout }) {
  const { fmt, mayPlan, catalogue, ledger } = useJob('fmt', 'mayPlan', 'catalogue', 'ledger')
  const router = useRouter()
  const [kept, setKept] = useState<Record<string, string>>({})
  const rests = restsOf(layout)
  if (rests.length === 0) return null
  // The roll it is left over of, also where that was only named when it was cut.
  const fromOf = (rest: (typeof rests)[number]) => {
    const roll = layout.rolls.find((x) => x.id === rest.rollId)
    const id = roll ? cutFromId(layout, roll, ledger) : null
    return catalogue.stock.find((s) => s.id === id) ?? rest.stock
  }
  const back = async (key: string, rest: (typeof rests)[number]) => {
    const stock = fromOf(rest)
    if (!stock) return
    const label = `${stock.label}-${key}`
    const out = await call(receiveStock, {
      id: newId(),
      movementId: newId(),
      filmId: layout.film.id,
      kind: 'rest',
      label,
      lot: stock.lot,
      widthMm: Math.floor(rest.widthMm),
      lengthMm: Math.floor(rest.lengthMm),
    })
    setKept({ ...kept, [key]: out.ok ? `On the rack as ${label}.` : faultText(out.error) })
    if (out.ok) router.refresh()
  }
  return (
    <details className="mb-2">
      <summary>
        {rests.length} {rests.length === 1 ? 'rest' : 'rests'} worth keeping, the largest{' '}
        {fmt.text(fmt.length(rests[0]?.widthMm ?? 0))} × {fmt.text(fmt.length(rests[0]?.lengthMm ?? 0))}
      </summary>
      <Table className="mt-1">
        <thead>
          <tr>
            <th>Rest</th>
            <th className="n">Across</th>
            <th className="n">Along</th>
            <th className="n">Area</th>
            <th>Takes a</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {rests.map((r) => (
            <tr key={r.key}>
              <td>{fromOf(r) ? `${fromOf(r)?.label}-${r.key}, lot ${fromOf(r)?.lot}` : `new-${r.key}`}</td>
              <td className="n">{fmt.text(fmt.length(r.widthMm))}</td>
              <td className="n">{fmt.text(fmt.length(r.lengthMm))}</td>
              <td className="n">
                <Fig id={`roll/${layout.film.id}/rest:${r.key}/area`} />
              </td>
              <td>{r.takes.map((k) => word('panel', k, fmt.units.locale).toLowerCase()).join(', ') || '–'}</td>
              <td>
                {kept[r.key] ??
                  (fromOf(r) && r.cut ? (
                    <Button
                      variant="link"
                      size="sm"
                      className="p-0"
                      disabled={!mayPlan}
                      onClick={() => void back(r.key, r)}
                    >
                      Back to the rack
                    </Button>
                  ) : (
                    <span className="label">once cut</span>
                  ))}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </details>
  )
}
