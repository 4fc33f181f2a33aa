'use client'

import { zodResolver } from '@hookform/resolvers/zod'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { Controller, useForm } from 'react-hook-form'
import { z } from 'zod'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { logClimate } from '@/web/actions/shop'
import { useJob } from '@/web/job/job-state'
import { call } from '@/web/kit/call'
import { useActId } from '@/web/kit/use-act-id'
import { firstInvalid } from '@/web/kit/first-invalid'
import { NumberInput } from '@/web/kit/quantity-input'
import { faultText } from '@/web/words/faults'
import { TempField } from './temp-field'

const Reading = z.object({
  airC: z
    .number('Read the air first.')
    .min(-20, 'No shop has that air. Check the figure.')
    .max(60, 'No shop has that air. Check the figure.'),
  humidity: z.number().nullable(),
  surfaceC: z.number().nullable(),
})
type Reading = z.infer<typeof Reading>
const NOTHING = { airC: null as unknown as number, humidity: null, surfaceC: null }

/** A reading of the shop's air put down: air, humidity, and a surface where one was read. */
export function LogAir() {
  const router = useRouter()
  const { fmt } = useJob('fmt')
  const [said, setSaid] = useState('')
  const act = useActId()
  const { control, handleSubmit, formState, reset } = useForm<Reading>({
    resolver: zodResolver(Reading),
    defaultValues: NOTHING,
  })
  const send = handleSubmit(async (reading, event) => {
    const bad = firstInvalid(event?.target as HTMLFormElement)
    if (bad !== null) return setSaid(`${bad}: cannot be read. Nothing is logged yet.`)
    const out = await call(logClimate, { id: act.idFor(reading), at: new Date().toISOString(), ...reading })
    if (!out.ok) return setSaid(faultText(out.error))
    act.taken()
    reset(NOTHING)
    setSaid('Logged.')
    router.refresh()
  })
  const temperature = (name: 'airC' | 'surfaceC', label: string, id: string, width: number) => (
    <div style={{ width }}>
      <Form.Label htmlFor={id}>
        {label} °{fmt.units.tempUnit}
      </Form.Label>
      <Controller
        control={control}
        name={name}
        render={({ field: { value, onChange } }) => <TempField id={id} value={value} onValue={onChange} />}
      />
    </div>
  )
  return (
    <Form noValidate onSubmit={(e) => void send(e)} className="d-flex gap-2 align-items-end flex-wrap mt-2">
      {temperature('airC', 'Air', 'read-air', 90)}
      <div style={{ width: 110 }}>
        <label className="form-label" htmlFor="read-humidity">
          Humidity %
        </label>
        <Controller
          control={control}
          name="humidity"
          render={({ field: { value, onChange } }) => (
            <NumberInput
              id="read-humidity"
              className="form-control"
              aria-label="Humidity in per cent"
              optional
              min={0.01}
              max={1}
              scale={100}
              value={value}
              onValue={onChange}
            />
          )}
        />
      </div>
      {temperature('surfaceC', 'Surface', 'read-surface', 110)}
      <Button type="submit" disabled={formState.isSubmitting}>
        Log reading
      </Button>
      <span className="label" role="status">
        {formState.errors.airC?.message ?? said}
      </span>
    </Form>
  )
}
