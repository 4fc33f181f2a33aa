'use client'

import { memo, type SelectHTMLAttributes } from 'react'
import { words } from '@/web/words/names'

interface WordSelectProps<T extends string> extends Omit<
  SelectHTMLAttributes<HTMLSelectElement>,
  'onChange' | 'value'
> {
  /** Which list of words; its codes are the values. */
  list: string
  value: T
  locale?: string
  onCode: (code: T) => void
  /** Text for no choice at all, where that is one. */
  none?: string
  /** Codes that cannot be chosen now. */
  without?: readonly string[]
}

/** A choice among the codes of a word list. */
export function WordSelect<T extends string>({
  list,
  value,
  locale = 'en-GB',
  onCode,
  without = NONE,
  none,
  ...rest
}: WordSelectProps<T>) {
  return (
    <select {...rest} value={value} onChange={(e) => onCode(e.target.value as T)}>
      <WordOptions list={list} locale={locale} without={without} none={none} />
    </select>
  )
}

const NONE: readonly string[] = []
/** Untouched while the choice itself changes. */
const WordOptions = memo(function WordOptions({
  list,
  locale,
  without,
  none,
}: Required<Pick<WordSelectProps<string>, 'list' | 'locale' | 'without'>> & { none: string | undefined }) {
  return (
    <>
      {none !== undefined && <option value="">{none}</option>}
      {words(list, locale).map(([code, text]) => (
        <option key={code} value={code} disabled={without.includes(code)}>
          {text}
        </option>
      ))}
    </>
  )
})

/** Every list filters as one types. */
export function FilterBox({
  label,
  value,
  onText,
  width = 220,
}: {
  label: string
  value: string
  onText: (text: string) => void
  width?: number
}) {
  return (
    <input
      type="search"
      className="form-control"
      style={{ width }}
      placeholder={label}
      aria-label={label}
      value={value}
      onChange={(e) => onText(e.target.value)}
    />
  )
}
