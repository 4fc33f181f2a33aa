'use client'

import { useId, useState, type InputHTMLAttributes } from 'react'
import { parseLength, type LengthUnit } from '@/core/kit/units'
import { err, ok, type Fault, type Result } from '@/core/kit/result'
import { faultText } from '@/web/words/faults'
import './quantity-input.scss'

interface Common extends Omit<InputHTMLAttributes<HTMLInputElement>, 'value' | 'onChange' | 'min' | 'max'> {
  min?: number
  max: number
  onValue: (value: number | null) => void
  /** May be left empty. */
  optional?: boolean
  'aria-label': string
  /** The same figure typed again counts too: what was assumed is then taken as it stands. */
  confirms?: boolean
  /** Focused when it appears. */
  autoFocus?: boolean
  /** What is wrong with the figure beside what its own text says: it stands, and is held back. */
  heldFault?: Fault | null
}

interface Core extends Common {
  value: number | null
  shown: string
  parse: (text: string) => Result<number>
  /** What was understood, for text that carries a unit or a fraction of its own. */
  echo?: (value: number) => string
}

/**
 * A cell that reads what was typed while it is typed: a good value goes out at once, a bad one says why and goes
 * nowhere.
 */
function SmartInput({
  value,
  shown,
  parse,
  echo,
  confirms = false,
  min = 0,
  max,
  onValue,
  optional = false,
  heldFault = null,
  className,
  ...rest
}: Core) {
  const [draft, setDraft] = useState<string | null>(null)
  const id = useId()
  const read = (text: string): Result<number | null> => {
    if (text.trim() === '' && optional) return ok(null)
    const parsed = parse(text)
    if (!parsed.ok) return parsed
    if (parsed.value < min || (min === 0 && !optional && parsed.value === 0))
      return err({ code: 'too_small', facts: { minimum: min === 0 ? 'more than 0' : min } })
    return parsed.value > max
      ? err({ code: 'too_big', facts: { maximum: `${max / 1000 >= 1 ? `${max / 1000} m` : max}` } })
      : parsed
  }
  const now = draft === null ? null : read(draft)
  const fault =
    now && !now.ok
      ? faultText(now.error).replace(/^Too small: at least more than 0\.$/, 'More than 0 is needed.')
      : draft === null && heldFault
        ? `Not saved. ${faultText({ code: heldFault.code, facts: heldFault.facts ?? {} })}`
        : null
  return (
    <>
      <input
        {...rest}
        type="text"
        inputMode="decimal"
        autoComplete="off"
        className={`num ${className ?? ''}`}
        value={draft ?? shown}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? id : undefined}
        title={fault ?? undefined}
        onFocus={(e) => {
          e.target.select()
          rest.onFocus?.(e)
        }}
        onChange={(e) => {
          setDraft(e.target.value)
          const next = read(e.target.value)
          if (next.ok && next.value !== value) onValue(next.value)
        }}
        onBlur={(e) => {
          if (confirms && now?.ok && now.value === value) onValue(now.value)
          if (!now || now.ok) setDraft(null)
          rest.onBlur?.(e)
        }}
        onKeyDown={(e) => {
          if (e.key === 'Escape') setDraft(null)
          rest.onKeyDown?.(e)
        }}
      />
      {draft !== null && echo && now?.ok && now.value !== null && /[a-z"'/″′½¼¾⅛⅜⅝⅞]/i.test(draft) && (
        <span className="parsed">= {echo(now.value)}</span>
      )}
      {fault && (
        <span id={id} className="text-danger d-block small px-1" role="alert">
          {fault}
        </span>
      )}
    </>
  )
}

export function LengthInput({
  mm,
  unit,
  format,
  ...rest
}: Common & { mm: number | null; unit: LengthUnit; format: (mm: number) => string }) {
  return (
    <SmartInput
      {...rest}
      value={mm}
      shown={mm === null ? '' : format(mm)}
      parse={(t) => parseLength(t, unit)}
      echo={(v) => `${format(v)} ${unit}`}
    />
  )
}

export function NumberInput({
  value,
  digits = 0,
  scale = 1,
  ...rest
}: Common & { value: number | null; digits?: number; scale?: number }) {
  const parse = (t: string): Result<number> =>
    /^\d+([.,]\d+)?$/.test(t.trim()) ? ok(Number(t.trim().replace(',', '.')) / scale) : err({ code: 'bad_number' })
  return (
    <SmartInput {...rest} value={value} shown={value === null ? '' : (value * scale).toFixed(digits)} parse={parse} />
  )
}
