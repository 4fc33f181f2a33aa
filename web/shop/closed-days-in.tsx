'use client'

import { useState } from 'react'
import { useFormContext } from 'react-hook-form'
import { readClosedDays, withClosedDays } from '@/web/calendar/closed-days'
import { FilePicker } from '@/web/kit/file-picker'
import { faultText } from '@/web/words/faults'
import type { ShopValues } from './shop-values'

const days = (count: number): string => `${count} ${count === 1 ? 'day' : 'days'}`

/** Closed days out of a calendar file, put among the lines that are typed; nothing is saved by it. */
export function ClosedDaysIn() {
  const { getValues, setValue } = useFormContext<ShopValues>()
  const [said, setSaid] = useState<{ text: string; isFault: boolean } | null>(null)
  const take = async (file: File) => {
    const read = readClosedDays(await file.text(), new Date().toISOString().slice(0, 10))
    if (!read.ok) return setSaid({ text: faultText(read.error), isFault: true })
    const { text, added } = withClosedDays(getValues('closed'), read.value.days)
    setValue('closed', text, { shouldDirty: true, shouldValidate: true })
    const { withTime } = read.value
    const there = read.value.days.length - added
    setSaid({
      text: `${days(added)} added${there > 0 ? `, ${days(there)} stood there already` : ''}${
        withTime > 0 ? `; ${withTime} with a time of day left out` : ''
      }. Save to keep them.`,
      isFault: false,
    })
  }
  return (
    <div className="mb-2">
      <FilePicker
        label="Closed days from a calendar file"
        accept=".ics,text/calendar"
        size="sm"
        variant="outline-secondary"
        onFile={(file) => void take(file)}
      >
        From a calendar file (.ics)
      </FilePicker>
      {said && (
        <p role="status" className={said.isFault ? 'text-danger mb-0' : 'label mb-0'}>
          {said.text}
        </p>
      )}
    </div>
  )
}
