'use client'

import { Ask } from '@/web/fleet/fleet-form'

import { busy, gapText, Progress, Cancel, FleetRow } from '@/web/fleet/fleet-row'

import Table from 'react-bootstrap/Table'
import Link from 'next/link'
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { read } from '@/web/kit/read'
import { formatter, type MemberUnits } from '@/web/words/format'

const LOOK_MS = 1000

export function Fleet({
  rows: first,
  jobs,
  films,
  stock,
  units,
  mayStart,
}: {
  rows: FleetRow[]
  jobs: { id: string; name: string; vehicle: string }[]
  films: FilmSheet[]
  stock: StockItem[]
  units: MemberUnits
  mayStart: boolean
}) {
  const fmt = useMemo(() => formatter(units), [units])
  const { data: rows, refetch } = useQuery({
    queryKey: ['fleets'],
    queryFn: ({ signal }) => read<FleetRow[]>('/api/fleets', signal),
    initialData: first,
    refetchInterval: ({ state }) => (state.data?.some(busy) ? LOOK_MS : false),
  })
  return (
    <main className="sheet" id="main">
      <div className="bench-head">
        <h1>Fleet</h1>
        <span className="label">Many vehicles laid out together over several rolls, each vehicle from one lot</span>
      </div>
      {mayStart && <Ask jobs={jobs} films={films} stock={stock} fmt={fmt} onAsked={() => void refetch()} />}
      {rows.length === 0 && <p className="plate">Nothing has been laid out for a fleet yet.</p>}
      {rows.length > 0 && (
        <section className="plate scroll-x" aria-label="Layouts" tabIndex={0}>
          <Table bsPrefix="quiet-table">
            <thead>
              <tr>
                <th>Layout</th>
                <th>By</th>
                <th className="n">Pieces</th>
                <th>State</th>
                <th className="n">Takes</th>
                <th className="n">Above the least</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.id}>
                  <td>
                    <Link href={`/fleet/${r.id}`}>{r.name}</Link>
                  </td>
                  <td>
                    {r.by}, {fmt.moment(r.at)}
                  </td>
                  <td className="n">{r.pieces}</td>
                  <td style={{ minWidth: 190 }}>
                    <Progress row={r} />
                  </td>
                  <td className="n">{r.usedMm === null ? '–' : fmt.text(fmt.longLength(r.usedMm))}</td>
                  <td className="n">{gapText(r, fmt)}</td>
                  <td>
                    <Cancel row={r} may={mayStart} onAsked={() => void refetch()} />
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </section>
      )}
    </main>
  )
}
