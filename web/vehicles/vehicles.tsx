'use client'

import Table from 'react-bootstrap/Table'
import Link from 'next/link'
import { useMemo, useState } from 'react'
import type { VehicleHead } from '@/web/actions/vehicles'
import { FilterBox } from '@/web/kit/fields'
import { formatter, type MemberUnits } from '@/web/words/format'
import { word } from '@/web/words/names'

/** Vehicles measured before, to start the next job from. */
export function Vehicles({ vehicles, units }: { vehicles: VehicleHead[]; units: MemberUnits }) {
  const [text, setText] = useState('')
  const fmt = useMemo(() => formatter(units), [units])
  const shown = vehicles.filter((v) =>
    `${v.name} ${word('vehicle', v.kind, units.locale)}`.toLowerCase().includes(text.trim().toLowerCase()),
  )
  return (
    <main className="sheet" id="main">
      <div className="bench-head">
        <h1>Vehicles</h1>
        <span className="label">{vehicles.length} measured</span>
        <span className="spacer" />
        <FilterBox label="Filter vehicles" width={240} value={text} onText={setText} />
      </div>
      {vehicles.length === 0 && (
        <p className="plate">No vehicle is kept yet. A job’s Tape stage keeps one with “Keep in the library”.</p>
      )}
      {vehicles.length > 0 && shown.length === 0 && <p className="plate">No vehicle matches “{text}”.</p>}
      {shown.length > 0 && (
        <div className="plate scroll-x">
          <Table bsPrefix="quiet-table">
            <thead>
              <tr>
                <th scope="col">Vehicle</th>
                <th scope="col">Body</th>
                <th scope="col" className="n">
                  Panels
                </th>
                <th scope="col" className="n">
                  Figures taped
                </th>
                <th scope="col" className="n">
                  State
                </th>
                <th scope="col">Changed</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((v) => (
                <tr key={v.id}>
                  <td>
                    <Link href={`/vehicles/${v.id}`}>{v.name}</Link>
                  </td>
                  <td>{word('vehicle', v.kind, units.locale)}</td>
                  <td className="n">{v.panels}</td>
                  <td className="n">
                    {v.taped} of {v.figures}
                  </td>
                  <td className="n">{v.head}</td>
                  <td>{fmt.moment(v.updatedAt)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </div>
      )}
    </main>
  )
}
