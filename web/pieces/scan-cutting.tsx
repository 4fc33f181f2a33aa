'use client'

import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import { useMemo, useState, type MouseEvent } from 'react'
import type { Point } from '@/core/kit/plane'
import type { TriMesh } from '@/core/solve/mesh'
import { cropped, facing, girths, guessUnit, main, UNITS, type ScanUnit } from '@/core/solve/mesh/scan'
import type { Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import { WithinNumber } from '@/web/pieces/within-number'
import { faultText } from '@/web/words/faults'
import { ScanPicture } from './scan-picture'
import { shades } from './scan-shades'

/** The scan as it was read: its unit, the way up, the panel's boundary on it, its girths beside the tape. */
export function Cutting({
  raw,
  panel,
  onTake,
  onDrop,
}: {
  raw: Raw
  panel: Panel
  onTake: (mesh: TriMesh, name: string) => void
  onDrop: () => void
}) {
  const { fmt } = useJob('fmt')
  const [unit, setUnit] = useState<ScanUnit>(() => guessUnit(raw.mesh, Math.max(panel.widthMm, panel.heightMm)))
  const [quarter, setQuarter] = useState(panel.heightMm > panel.widthMm * 1.05 ? 1 : 0)
  const [ring, setRing] = useState<Point[]>([])
  const [fault, setFault] = useState('')
  const seen = useMemo(() => facing(raw.mesh, unit, quarter), [raw.mesh, unit, quarter])
  const picture = useMemo(() => shades(seen), [seen])
  const part = useMemo(() => {
    if (ring.length < 3) return { mesh: main(seen), ringed: false }
    const out = cropped(seen, ring)
    return { mesh: out.ok ? out.value : null, ringed: true }
  }, [seen, ring])
  const own = part.mesh ? girths(part.mesh) : null
  const { scale, left, top, width, height } = picture
  const put = (e: MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect()
    const k = width / box.width
    setRing((r) => [
      ...r,
      { x: left + ((e.clientX - box.left) * k) / scale, y: top - ((e.clientY - box.top) * k) / scale },
    ])
  }
  const row = (name: string, scan: number, tape: number) => {
    const off = scan / tape - 1
    return (
      <tr key={name}>
        <td>{name}</td>
        <td className="n">{fmt.text(fmt.length(scan))}</td>
        <td className="n">{fmt.text(fmt.length(tape))}</td>
        <td className="n" style={Math.abs(off) > GIRTH_OFF ? { color: 'var(--stop)', fontWeight: 600 } : undefined}>
          <WithinNumber value={off} text={fmt.text(fmt.percent(Math.abs(off)))} />
        </td>
      </tr>
    )
  }
  const take = () => (part.mesh ? onTake(part.mesh, raw.name) : setFault(faultText({ code: 'nothing_within' })))
  return (
    <div className="plate mt-2">
      <p className="label mb-2">
        {raw.name}: {raw.told}
      </p>
      <div className="d-flex gap-3 flex-wrap">
        <ScanPicture
          ring={ring}
          width={width}
          height={height}
          name={raw.name}
          put={put}
          picture={picture}
          left={left}
          scale={scale}
          top={top}
        />
        <div>
          <label className="d-flex gap-2 align-items-center mb-2">
            <span className="label">The file is in</span>
            <Form.Select
              size="sm"
              className="w-auto"
              aria-label="Unit of the scan"
              value={unit}
              onChange={(e) => {
                setUnit(e.target.value as ScanUnit)
                setRing([])
              }}
            >
              {(Object.keys(UNITS) as ScanUnit[]).map((u) => (
                <option key={u} value={u}>
                  {UNIT_NAMES[u]}
                </option>
              ))}
            </Form.Select>
          </label>
          <div className="d-flex gap-2 mb-2">
            <Button
              variant="outline-primary"
              size="sm"
              onClick={() => {
                setQuarter((q) => (q + 1) % 4)
                setRing([])
              }}
            >
              Turn by a quarter
            </Button>
            <Button
              variant="outline-primary"
              size="sm"
              disabled={ring.length === 0}
              onClick={() => setRing((r) => r.slice(0, -1))}
            >
              Take the last point back
            </Button>
          </div>
          <Table className="mb-2">
            <thead>
              <tr>
                <th>Across its middle</th>
                <th className="n">Scan</th>
                <th className="n">Tape</th>
                <th className="n">Off by</th>
              </tr>
            </thead>
            <tbody>
              {own && [row('Width', own.widthMm, panel.widthMm), row('Height', own.heightMm, panel.heightMm)]}
            </tbody>
          </Table>
          {part.ringed && !part.mesh && <p className="caution">{faultText({ code: 'nothing_within' })}</p>}
          {fault && <p className="caution">{fault}</p>}
          <div className="d-flex gap-2">
            <Button size="sm" disabled={!part.mesh} onClick={take}>
              Lay film on this surface
            </Button>
            <Button variant="link" size="sm" onClick={onDrop}>
              Leave it
            </Button>
          </div>
        </div>
      </div>
    </div>
  )
}

/** Girths further from the tape than this are told, as they are for a taped panel's own surface. */
export const GIRTH_OFF = 0.02
export const UNIT_NAMES: Record<ScanUnit, string> = {
  mm: 'millimetres',
  cm: 'centimetres',
  m: 'metres',
  inch: 'inches',
}

export interface Raw {
  name: string
  mesh: TriMesh
  told: string
}
