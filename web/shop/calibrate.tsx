'use client'

import { useEffect, useRef, useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import Spinner from 'react-bootstrap/Spinner'
import Table from 'react-bootstrap/Table'
import type { Calibration, TrialReading } from '@/core/engines/heat/calibrate-gun'
import type { Result } from '@/core/kit/result'
import { MATERIALS } from '@/core/model/vehicle/kinds'
import { NumberInput } from '@/web/kit/quantity-input'
import { faultText } from '@/web/words/faults'
import { word } from '@/web/words/names'
import type { CalibrateAsk } from '@/web/workers/calibrate.worker'

type Row = { [K in keyof TrialReading]: TrialReading[K] | null }
const EMPTY: Row = { material: 'steel', thicknessMm: null, paceMmS: null, afterS: 5, tempC: null }
const COLUMNS = [
  ['paceMmS', 'Pace, mm/s', 100],
  ['afterS', 'Read after, s', 120],
  ['tempC', 'Reading, °C', 300],
] as const

/** A gun measured in the shop: sweeps at a known pace, read after the gun is away; the fit, and what it misses by. */
export function Calibrate({
  displayC,
  sigmaMm,
  onTake,
}: {
  displayC: number
  sigmaMm: number
  onTake: (found: { airC: number; coefficient: number; sigmaMm: number }) => void
}) {
  const [rows, setRows] = useState<Row[]>([{ ...EMPTY }, { ...EMPTY }])
  const [found, setFound] = useState<Result<Calibration> | 'busy' | null>(null)
  const worker = useRef<Worker | null>(null)
  useEffect(() => () => worker.current?.terminate(), [])
  const readings = rows.flatMap((r): TrialReading[] =>
    r.paceMmS === null || r.tempC === null || r.afterS === null || r.material === null
      ? []
      : [{ material: r.material, thicknessMm: r.thicknessMm, paceMmS: r.paceMmS, afterS: r.afterS, tempC: r.tempC }],
  )
  const set = (i: number, part: Partial<Row>) => setRows((all) => all.map((r, k) => (k === i ? { ...r, ...part } : r)))
  const fit = () => {
    worker.current?.terminate()
    const own = new Worker(new URL('../workers/calibrate.worker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    setFound('busy')
    own.onmessage = ({ data }: MessageEvent<Result<Calibration>>) => setFound(data)
    own.postMessage({ displayC, sigmaMm, readings } satisfies CalibrateAsk)
  }
  return (
    <div className="plate my-2" role="group" aria-label="Measure this gun">
      <p className="label">
        On a test panel with film: sweep at an even pace, take the gun away, wait, read the middle. Two paces at least;
        footprint {sigmaMm} mm.
      </p>
      <Table>
        <thead>
          <tr>
            <th>On</th>
            {COLUMNS.map(([, label]) => (
              <th key={label}>{label}</th>
            ))}
            <th>By the fit</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r, i) => (
            <tr key={i}>
              <td>
                <Form.Select
                  size="sm"
                  aria-label={`Material, trial ${i + 1}`}
                  value={r.material ?? 'steel'}
                  onChange={(e) => set(i, { material: e.target.value as TrialReading['material'] })}
                >
                  {MATERIALS.filter((m) => m !== 'unknown').map((m) => (
                    <option key={m} value={m}>
                      {word('material', m)}
                    </option>
                  ))}
                </Form.Select>
              </td>
              {COLUMNS.map(([field, label, max]) => (
                <td key={field}>
                  <NumberInput
                    className="form-control form-control-sm"
                    aria-label={`${label}, trial ${i + 1}`}
                    value={r[field]}
                    optional
                    digits={1}
                    min={field === 'paceMmS' ? 1 : 0}
                    max={max}
                    onValue={(v) => set(i, { [field]: v })}
                  />
                </td>
              ))}
              <td>
                {found && found !== 'busy' && found.ok ? `${found.value.predictedC[i]?.toFixed(0) ?? '–'} °C` : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <div className="d-flex gap-2 align-items-center flex-wrap">
        <Button size="sm" variant="outline-secondary" onClick={() => setRows((all) => [...all, { ...EMPTY }])}>
          One more trial
        </Button>
        <Button size="sm" disabled={readings.length < 2 || found === 'busy'} onClick={fit}>
          Fit
        </Button>
        <span role="status">
          {found === 'busy' ? (
            <>
              <Spinner size="sm" aria-hidden /> Fitting…
            </>
          ) : found === null ? null : found.ok ? (
            `Air ${found.value.airC.toFixed(0)} °C at the film (display ${displayC}), ${found.value.coefficient.toFixed(0)} W/m²K; ` +
            `off by ${found.value.residualC.toFixed(1)} °C.`
          ) : (
            faultText(found.error)
          )}
        </span>
        {found && found !== 'busy' && found.ok && (
          <Button
            size="sm"
            variant="outline-primary"
            onClick={() =>
              onTake({
                airC: Math.round(found.value.airC),
                coefficient: Math.round(found.value.coefficient),
                sigmaMm,
              })
            }
          >
            Take it
          </Button>
        )}
      </div>
    </div>
  )
}
