'use client'

import DatePicker from 'react-datepicker'
import { TZDate } from '@date-fns/tz'
import { format, isValid, parse } from 'date-fns'
import { enGB, enUS } from 'date-fns/locale'
import 'react-datepicker/dist/react-datepicker.css'
import './date-field.scss'

interface DateFieldProps {
  id?: string
  label?: string
  /** `YYYY-MM-DD`, or `YYYY-MM-DDTHH:MM` with `withTime`: wall time of the shop, in no zone of the browser's. */
  value: string | null
  onValue: (value: string | null) => void
  locale: string
  /** The shop's zone: which day and hour it is there now. */
  timeZone?: string
  withTime?: boolean
  size?: 'sm'
  disabled?: boolean
}

const STORED = { date: 'yyyy-MM-dd', moment: "yyyy-MM-dd'T'HH:mm" }
const SHOWN = {
  'en-US': { locale: enUS, date: 'MM/dd/yyyy', moment: 'MM/dd/yyyy h:mm aa', time: 'h:mm aa' },
  'en-GB': { locale: enGB, date: 'dd/MM/yyyy', moment: 'dd/MM/yyyy HH:mm', time: 'HH:mm' },
}

/** The wall time of a zone now, as the picker holds it: without a zone. */
function nowIn(timeZone: string): Date {
  const now = TZDate.tz(timeZone)
  return new Date(now.getFullYear(), now.getMonth(), now.getDate(), now.getHours(), 0)
}

/** A date, or a date with its hour, picked or typed as the member writes it. */
export function DateField({
  id,
  label,
  value,
  onValue,
  locale,
  timeZone,
  withTime = false,
  size,
  disabled,
}: DateFieldProps) {
  const kind = withTime ? 'moment' : 'date'
  const shown = locale === 'en-US' ? SHOWN['en-US'] : SHOWN['en-GB']
  const read = value ? parse(value.slice(0, withTime ? 16 : 10), STORED[kind], new Date(0)) : null
  return (
    <DatePicker
      {...(id ? { id } : {})}
      customInput={<input {...(label ? { 'aria-label': label } : {})} />}
      {...(timeZone ? { openToDate: nowIn(timeZone) } : {})}
      selected={read && isValid(read) ? read : null}
      onChange={(date: Date | null) => onValue(date && isValid(date) ? format(date, STORED[kind]) : null)}
      locale={shown.locale}
      dateFormat={shown[kind]}
      showTimeSelect={withTime}
      timeFormat={shown.time}
      timeIntervals={30}
      placeholderText={shown[kind].replace('h:mm aa', 'time').replace('HH:mm', 'time').toLowerCase()}
      className={`form-control${size ? ` form-control-${size}` : ''}`}
      wrapperClassName="w-100"
      popperPlacement="bottom-start"
      isClearable={!disabled}
      clearButtonTitle="Clear"
      disabled={disabled ?? false}
      autoComplete="off"
    />
  )
}
