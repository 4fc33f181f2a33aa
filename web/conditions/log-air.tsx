'use client'

import Button from 'react-bootstrap/Button'
import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import { logClimate } from '@/web/actions/shop'
import { useJob } from '@/web/job/job-state'
import { call, newId } from '@/web/kit/call'
import { firstInvalid } from '@/web/kit/first-invalid'
import { NumberInput } from '@/web/kit/quantity-input'
import { useOnce } from '@/web/kit/use-once'
import { faultText } from '@/web/words/faults'
import { TempField } from './temp-field'

/** A reading of the shop's air put down: air, humidity, and a surface where one was read. */
export function LogAir() {
  const router = useRouter()
  const { fmt } = useJob()
  const [airC, setAir] = useState<number | null>(null)
  const [humidity, setHumidity] = useState<number | null>(null)
  const [surfaceC, setSurface] = useState<number | null>(null)
  const [said, setSaid] = useState('')
  const [id, setId] = useState(newId)
  const box = useRef<HTMLDivElement>(null)
  const send = useOnce(async () => {
    const bad = firstInvalid(box.current)
    if (bad !== null) return setSaid(`${bad}: cannot be read. Nothing is logged yet.`)
    if (airC === null) return setSaid('Read the air first.')
    if (airC < -20 || airC > 60) return setSaid('No shop has that air. Check the figure.')
    const out = await call(logClimate, { id, at: new Date().toISOString(), airC, humidity, surfaceC })
    if (!out.ok) return setSaid(faultText(out.error))
    setId(newId())
    setAir(null)
    setHumidity(null)
    setSurface(null)
    setSaid('Logged.')
    router.refresh()
  })
  return (
    <div ref={box} className="d-flex gap-2 align-items-end flex-wrap mt-2">
      <div style={{ width: 90 }}>
        <label className="form-label" htmlFor="read-air">
          Air °{fmt.units.tempUnit}
        </label>
        <TempField id="read-air" value={airC} onValue={setAir} />
      </div>
      <div style={{ width: 110 }}>
        <label className="form-label" htmlFor="read-humidity">
          Humidity %
        </label>
        <NumberInput
          id="read-humidity"
          className="form-control"
          aria-label="Humidity in per cent"
          optional
          min={0.01}
          max={1}
          scale={100}
          value={humidity}
          onValue={setHumidity}
        />
      </div>
      <div style={{ width: 110 }}>
        <label className="form-label" htmlFor="read-surface">
          Surface °{fmt.units.tempUnit}
        </label>
        <TempField id="read-surface" value={surfaceC} onValue={setSurface} />
      </div>
      <Button onClick={() => void send()}>Log reading</Button>
      <span className="label" role="status">
        {said}
      </span>
    </div>
  )
}
