'use client'

import DatePicker from 'react-datepicker'
import { format, isValid, parse } from 'date-fns'
import { enGB, enUS } from 'date-fns/locale'

interface DateFieldProps {
  id?: string
  label?: string
  /** `YYYY-MM-DD`, or `YYYY-MM-DDTHH:MM` with `withTime`: wall time of the shop, in no zone of the browser's. */
  value: string | null
  onValue: (value: string | null) => void
  locale: string
  withTime?: boolean
  size?: 'sm'
  disabled?: boolean
}

const STORED = { date: 'yyyy-MM-dd', moment: "yyyy-MM-dd'T'HH:mm" }
const SHOWN = {
  'en-US': { locale: enUS, date: 'MM/dd/yyyy', moment: 'MM/dd/yyyy h:mm aa', time: 'h:mm aa' },
  'en-GB': { locale: enGB, date: 'dd/MM/yyyy', moment: 'dd/MM/yyyy HH:mm', time: 'HH:mm' },
}

/** A date, or a date with its hour, picked or typed as the member writes it. */
export function DateField({ id, label, value, onValue, locale, withTime = false, size, disabled }: DateFieldProps) {
  const kind = withTime ? 'moment' : 'date'
  const shown = locale === 'en-US' ? SHOWN['en-US'] : SHOWN['en-GB']
  const read = value ? parse(value.slice(0, withTime ? 16 : 10), STORED[kind], new Date(0)) : null
  return (
    <DatePicker
      {...(id ? { id } : {})}
      {...(label ? { ariaLabelledBy: undefined, title: label } : {})}
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
