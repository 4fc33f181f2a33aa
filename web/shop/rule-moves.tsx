'use client'

import Link from 'next/link'
import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import { useFormContext } from 'react-hook-form'
import type { JobMoves } from '@/web/threads/jobs'
import { previewRules } from '@/web/actions/rules'
import { call } from '@/web/kit/call'
import { useOnce } from '@/web/kit/use-once'
import { faultText } from '@/web/words/faults'
import { word } from '@/web/words/names'
import { readShop, type ShopValues } from './shop-values'

/** Edges of one job that are told one by one; the rest is counted. */
const TOLD = 8

/** Before rules are saved: which edges of which open jobs they would move. */
export function RuleMoves() {
  const { getValues } = useFormContext<ShopValues>()
  const [moves, setMoves] = useState<JobMoves[] | null>(null)
  const [said, setSaid] = useState('')
  const look = useOnce(async () => {
    setMoves(null)
    const read = readShop(getValues())
    if (!read.ok) return setSaid('Some fields of this page cannot be taken: mend them first.')
    const { winter, edgeLeave, edgeCut } = read.value
    const out = await call(previewRules, { winter, edgeLeave, edgeCut })
    setSaid(out.ok ? '' : faultText(out.error))
    if (out.ok) setMoves(out.value)
  })
  const total = moves?.reduce((sum, m) => sum + m.moves.length, 0) ?? 0
  return (
    <div className="mt-3" aria-live="polite">
      <Button size="sm" variant="outline-primary" onClick={() => void look()}>
        What would these rules move?
      </Button>
      {said !== '' && <p className="text-danger mb-0">{said}</p>}
      {moves !== null && total === 0 && <p className="mb-0">Nothing: no edge of an open job is decided otherwise.</p>}
      {moves !== null && total > 0 && (
        <ul className="mb-0 mt-2">
          {moves.map((m) => (
            <li key={m.jobId}>
              <Link href={`/jobs/${m.jobId}/edges`}>{m.name}</Link>: {m.moves.length}{' '}
              {m.moves.length === 1 ? 'edge' : 'edges'}
              <ul>
                {m.moves.slice(0, TOLD).map((e, i) => (
                  <li key={i}>
                    {e.panel}, {e.at} ({word('edge', e.meets)}): {word('cutSide', e.from.cut)}, {e.from.leaveMm} mm →{' '}
                    <b>
                      {word('cutSide', e.to.cut)}, {e.to.leaveMm} mm
                    </b>
                  </li>
                ))}
                {m.moves.length > TOLD && <li>and {m.moves.length - TOLD} more</li>}
              </ul>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
