'use client'

import Button from 'react-bootstrap/Button'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { StockItem } from '@/core/model/film/schema'
import { damageFromEnd } from '@/core/engines/roll/roll-plan'
import { setDamage } from '@/web/actions/shop'
import { call } from '@/web/kit/call'
import { LengthInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/faults'

/** Damaged stretches of a roll, as the tape reads them from its open end; layouts skip them. */
export function Damage({ item, fmt, may }: { item: StockItem; fmt: Formatter; may: boolean }) {
  const router = useRouter()
  const [open, setOpen] = useState(false)
  const [from, setFrom] = useState<number | null>(null)
  const [length, setLength] = useState<number | null>(null)
  const [said, setSaid] = useState('')
  const spans = damageFromEnd(item)
  const save = async (damage: StockItem['damage']) => {
    const out = await call(setDamage, { itemId: item.id, damage })
    setSaid(out.ok ? '' : faultText(out.error))
    if (!out.ok) return
    setFrom(null)
    setLength(null)
    router.refresh()
  }
  const core = from !== null && length !== null ? item.leftMm - from - length : null
  const past = core !== null && core < -0.5
  return (
    <span className="d-inline-flex gap-2 align-items-center flex-wrap">
      {spans.map((s, i) => (
        <span key={s.from} className="text-nowrap">
          damaged {fmt.text(fmt.longLength(s.from))} to {fmt.text(fmt.longLength(s.to))}
          {may && (
            <Button
              variant="link"
              size="sm"
              className="py-0"
              aria-label={`Damage ${i + 1} of ${item.label} is none`}
              onClick={() => {
                const at = item.leftMm - s.to
                void save(item.damage.filter((d) => Math.abs(Math.max(0, d.fromCoreMm) - at) > 0.5))
              }}
            >
              take out
            </Button>
          )}
        </span>
      ))}
      {may && !open && (
        <Button
          variant="link"
          size="sm"
          className="p-0"
          aria-label={`Note damage on ${item.label}`}
          onClick={() => setOpen(true)}
        >
          Note damage
        </Button>
      )}
      {open && (
        <>
          {(
            [
              ['from the open end', from, setFrom],
              ['over', length, setLength],
            ] as const
          ).map(([label, mm, set]) => (
            <label key={label} className="d-inline-flex gap-1 align-items-center">
              <span className="label">{label}</span>
              <LengthInput
                id={`damage-${item.id}-${label.slice(0, 4)}`}
                className="form-control form-control-sm"
                style={{ width: 90 }}
                aria-label={`Damage on ${item.label}, ${label}`}
                optional
                mm={mm}
                unit={fmt.units.lengthUnit}
                format={(v) => fmt.length(v).text}
                max={item.leftMm}
                onValue={set}
              />
            </label>
          ))}
          <Button
            variant="outline-primary"
            size="sm"
            disabled={core === null || past || length === 0}
            onClick={() =>
              core !== null &&
              length !== null &&
              void save([...item.damage, { fromCoreMm: Math.max(0, core), lengthMm: length, note: '' }])
            }
          >
            Keep it out of layouts
          </Button>
          <Button variant="link" size="sm" className="p-0" onClick={() => setOpen(false)}>
            Close
          </Button>
          {past && <span className="text-danger">That is past the end of this roll.</span>}
        </>
      )}
      {said !== '' && (
        <span className="text-danger" role="alert">
          {said}
        </span>
      )}
    </span>
  )
}
