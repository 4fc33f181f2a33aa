'use client'

import type { Fault } from '@/core/kit/result'
import { FilePicker } from '@/web/kit/file-picker'
import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import { zodResolver } from '@hookform/resolvers/zod'
import { useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import Modal from 'react-bootstrap/Modal'
import { useForm, useWatch } from 'react-hook-form'
import { z } from 'zod'
import { MAX_FILE_BYTES } from '@/core/kit/json-guard'
import { VEHICLE_KINDS } from '@/core/model/vehicle/kinds'
import { createJob } from '@/web/actions/jobs'
import { listVehicles, type VehicleHead } from '@/web/actions/vehicles'
import type { MemberUnits } from '@/web/words/format'
import { StartWith, type Start } from './start-with'
import { call, newId } from '@/web/kit/call'
import { firstInvalid } from '@/web/kit/first-invalid'
import { words } from '@/web/words/names'
import { faultText } from '@/web/words/faults'

const Fields = z.object({
  name: z.string().trim().min(1, 'Give the job a name.').max(120, 'At most 120 characters.'),
  vehicle: z.string().trim().min(1, 'Say which vehicle.').max(120, 'At most 120 characters.'),
  kind: z.enum(VEHICLE_KINDS),
  customerRef: z.string().trim().max(120, 'At most 120 characters.'),
  colourName: z.string().trim().min(1, 'Name the body colour.').max(120),
  colourHex: z.string(),
})

type Fields = z.infer<typeof Fields>
const FORM = 'new-job-form'

export function NewJob({ show, onHide, units }: { show: boolean; onHide: () => void; units: MemberUnits }) {
  const { locale } = units
  const router = useRouter()
  const [fault, setFault] = useState<string | null>(null)
  // The same id again after a dead network: the job is made once.
  const [id, setId] = useState(newId)
  const [start, setStart] = useState<Start>({ from: 'style', keys: {} })
  const [vehicles, setVehicles] = useState<VehicleHead[]>([])
  useEffect(() => {
    if (show) void call(listVehicles, {}).then((out) => out.ok && setVehicles(out.value))
  }, [show])
  const { register, handleSubmit, formState, reset, control } = useForm<Fields>({
    resolver: zodResolver(Fields),
    defaultValues: { kind: 'city_car', colourHex: '#b9bdc1', customerRef: '' },
  })
  const kind = useWatch({ control, name: 'kind' })
  const make = async (v: Fields) => {
    const bad = firstInvalid(document.getElementById(FORM))
    if (bad !== null) return setFault(`${bad}: what is typed there cannot be taken. Put it right, or empty the field.`)
    const out = await call(createJob, {
      ...v,
      id,
      start: v.kind === 'other' && start.from === 'style' ? { from: 'nothing' } : start,
    })
    if (!out.ok) return setFault(faultText(out.error))
    setId(newId())
    setStart({ from: 'style', keys: {} })
    reset()
    router.push(`/jobs/${out.value.id}/walkaround`)
  }
  const bring = async (file: File | undefined) => {
    if (!file) return
    if (file.size > MAX_FILE_BYTES) return setFault(faultText({ code: 'too_large', facts: { limit: MAX_FILE_BYTES } }))
    try {
      const response = await fetch('/api/jobs/import', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: await file.text(),
      })
      const out = (await response.json()) as { ok: true; value: { id: string } } | { ok: false; error: Fault }
      if (!out.ok) return setFault(faultText(out.error))
      router.push(`/jobs/${out.value.id}/walkaround`)
    } catch {
      setFault(faultText({ code: 'no_answer' }))
    }
  }
  const field = (name: keyof Fields, label: string, extra: Record<string, unknown> = {}) => (
    <div className="col-sm-6">
      <label className="form-label" htmlFor={`new-${name}`}>
        {label}
      </label>
      <Form.Control
        id={`new-${name}`}
        {...extra}
        {...register(name)}
        aria-invalid={formState.errors[name] ? true : undefined}
      />
      {formState.errors[name] && <p className="text-danger mb-0">{formState.errors[name]?.message}</p>}
    </div>
  )
  return (
    <Modal show={show} onHide={onHide} size="lg" aria-labelledby="new-job-title">
      <Form id={FORM} onSubmit={handleSubmit(make)} noValidate>
        <Modal.Header closeButton>
          <Modal.Title as="h2" id="new-job-title">
            New job
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <div className="row g-3">
            {field('name', 'Job', { autoFocus: true })}
            {field('customerRef', 'Customer reference')}
            {field('vehicle', 'Vehicle')}
            <div className="col-sm-6">
              <label className="form-label" htmlFor="new-kind">
                Body
              </label>
              <Form.Select id="new-kind" {...register('kind')}>
                {words('vehicle', locale).map(([code, text]) => (
                  <option key={code} value={code}>
                    {text}
                  </option>
                ))}
              </Form.Select>
            </div>
            {field('colourName', 'Body colour')}
            {field('colourHex', 'Nearest shade', { type: 'color' })}
          </div>
          <StartWith key={kind} kind={kind} start={start} onStart={setStart} vehicles={vehicles} units={units} />
          {fault && (
            <p className="text-danger mt-3 mb-0" role="alert">
              {fault}
            </p>
          )}
          <p className="label mt-4 mb-1">Or bring in a job file</p>
          <FilePicker label="Job file" accept=".json,application/json" onFile={(file) => void bring(file)}>
            Choose a job file
          </FilePicker>
        </Modal.Body>
        <Modal.Footer>
          <Button variant="outline-secondary" onClick={onHide}>
            Cancel
          </Button>
          <Button type="submit" disabled={formState.isSubmitting}>
            Take it in
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  )
}
