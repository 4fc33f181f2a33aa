'use client'

import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import { useRouter } from 'next/navigation'
import { useMemo, useRef, useState } from 'react'
import { climateOf } from '@/core/engines/conditions/climate'
import { parseTemp } from '@/core/kit/units'
import type { Plan } from '@/core/model/plan/schema'
import { logClimate } from '@/web/actions/shop'
import { climateMarks } from '@/web/charts/climate-marks'
import { useJob } from '@/web/job/job-state'
import { call, newId } from '@/web/kit/call'
import { firstInvalid } from '@/web/kit/first-invalid'
import { useOnce } from '@/web/kit/use-once'
import { NumberInput } from '@/web/kit/quantity-input'
import { faultText } from '@/web/words/faults'
import { ConditionsOfTheDay } from './conditions-of-the-day'

const SERIES = { air: 'air', surface: 'surface', dew: 'dew point' } as const

/** The shop's air over time, and what it asks of the vehicle: warming, drying, when it must be in. */
export function Conditions() {
  const { plan, edit, catalogue, fmt, mayTape } = useJob()
  const main = plan.film.sheets.find((s) => s.id === plan.film.mainId)
  const marks = useMemo(() => climateMarks(catalogue.climate, main?.airC ?? null), [catalogue.climate, main])
  const { last } = climateOf(plan, catalogue.climate)
  const set = (part: Partial<Plan['conditions']>) => edit((p) => ({ ...p, conditions: { ...p.conditions, ...part } }))
  const temp = (c: number) => fmt.text(fmt.temp(c))
  return (
    <section className="plate mb-3" id="conditions" aria-label="Conditions">
      <h2>Conditions</h2>
      <div className="row g-3">
        <div className="col-xl-7">
          {catalogue.climate.length === 0 ? (
            <p className="label">No reading of the shop’s air yet.</p>
          ) : (
            <figure className="mb-0">
              <svg
                viewBox={`0 0 ${marks.width} ${marks.height}`}
                width="100%"
                role="img"
                aria-label={`Air of the shop, ${catalogue.climate.length} readings; last ${last ? temp(last.airC) : ''}`}
              >
                {marks.band && (
                  <rect
                    x={44}
                    width={marks.width - 54}
                    y={marks.band.y}
                    height={marks.band.height}
                    fill="var(--band-2)"
                    opacity={0.5}
                  />
                )}
                {marks.ticks.map((t) => (
                  <g key={t.c}>
                    <line x1={44} x2={marks.width - 10} y1={t.y} y2={t.y} stroke="var(--rule)" />
                    <text x={38} y={t.y + 4} textAnchor="end" fontSize={12} fill="var(--ink)">
                      {fmt.temp(t.c).text}
                    </text>
                  </g>
                ))}
                {marks.days.map((d) => (
                  <text key={d.at} x={d.x} y={marks.height - 4} textAnchor="middle" fontSize={11} fill="var(--soft)">
                    {fmt.moment(d.at, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })}
                  </text>
                ))}
                {marks.lines.map((l) => (
                  <g key={l.key}>
                    <path
                      d={l.d}
                      fill="none"
                      stroke="var(--ink)"
                      strokeWidth={l.key === 'air' ? 2.2 : 1.6}
                      strokeDasharray={l.dash}
                    />
                    {l.points.map((p) => (
                      <circle key={p.at} cx={p.x} cy={p.y} r={l.key === 'air' ? 3.2 : 2.2} fill="var(--ink)">
                        <title>{`${SERIES[l.key]} ${temp(p.c)}, ${fmt.moment(p.at)}`}</title>
                      </circle>
                    ))}
                  </g>
                ))}
              </svg>
              <figcaption className="label">
                Full line: air. Dashes: surface. Dots: dew point.
                {main ? ` Shaded: the air that ${main.name} asks for.` : ''} Last read{' '}
                {last ? `${fmt.moment(last.at)} by ${last.by}` : ''}.
              </figcaption>
            </figure>
          )}
          {mayTape && <LogAir />}
        </div>
        <ConditionsOfTheDay set={set} />
      </div>
    </section>
  )
}

/** A temperature in the member's unit; empty is none. */
export function TempField({
  id,
  value,
  onValue,
  label,
}: {
  id: string
  value: number | null
  onValue: (c: number | null) => void
  label?: string
}) {
  const { fmt } = useJob()
  const [draft, setDraft] = useState<string | null>(null)
  const parsed = draft === null || draft.trim() === '' ? null : parseTemp(draft, fmt.units.tempUnit)
  const bad = parsed !== null && (!parsed.ok || parsed.value < -40 || parsed.value > 90)
  return (
    <>
      <Form.Control
        id={id}
        aria-describedby={bad ? `${id}-fault` : undefined}
        className="num"
        inputMode="decimal"
        autoComplete="off"
        aria-label={label}
        aria-invalid={bad || undefined}
        value={draft ?? (value === null ? '' : fmt.temp(value).text)}
        onFocus={(e) => e.target.select()}
        onChange={(e) => {
          setDraft(e.target.value)
          if (e.target.value.trim() === '') return onValue(null)
          const read = parseTemp(e.target.value, fmt.units.tempUnit)
          if (read.ok && read.value >= -40 && read.value <= 90) onValue(read.value)
        }}
        onBlur={() => !bad && setDraft(null)}
      />
      {bad && (
        <span id={`${id}-fault`} className="text-danger d-block small" role="alert">
          {parsed.ok ? 'Between −40 and 90 °C.' : faultText(parsed.error)}
        </span>
      )}
    </>
  )
}

/** A reading of the shop's air put down: air, humidity, and a surface where one was read. */
function LogAir() {
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
