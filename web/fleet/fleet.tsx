'use client'

import { Ask } from '@/web/fleet/fleet-form'

import { busy, gapText, Progress, Cancel, FleetRow } from '@/web/fleet/fleet-row'

import Link from 'next/link'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { FilterBox } from '@/web/kit/fields'
import { read } from '@/web/kit/read'
import { SortableTable, type SortableColumn } from '@/web/kit/sortable-table'
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
  const [text, setText] = useState('')
  const { data: rows, refetch } = useQuery({
    queryKey: ['fleets'],
    queryFn: ({ signal }) => read<FleetRow[]>('/api/fleets', signal),
    initialData: first,
    refetchInterval: ({ state }) => (state.data?.some(busy) ? LOOK_MS : false),
  })
  const columns = useMemo(
    (): SortableColumn<FleetRow>[] => [
      {
        header: 'Layout',
        accessorKey: 'name',
        cell: ({ row: { original: r } }) => <Link href={`/fleet/${r.id}`}>{r.name}</Link>,
      },
      {
        header: 'By',
        accessorFn: (r) => `${r.at} ${r.by}`,
        cell: ({ row: { original: r } }) => `${r.by}, ${fmt.moment(r.at)}`,
      },
      { header: 'Pieces', accessorKey: 'pieces', meta: { numbers: true } },
      {
        header: 'State',
        accessorFn: (r) => r.state,
        cell: ({ row: { original: r } }) => <Progress row={r} />,
      },
      {
        header: 'Takes',
        accessorFn: (r) => r.usedMm,
        cell: ({ row: { original: r } }) => (r.usedMm === null ? '–' : fmt.text(fmt.longLength(r.usedMm))),
        meta: { numbers: true },
      },
      {
        header: 'Above the least',
        accessorFn: (r) => (r.usedMm === null || r.boundMm === null ? null : r.usedMm / Math.max(1, r.boundMm) - 1),
        cell: ({ row: { original: r } }) => gapText(r, fmt),
        meta: { numbers: true },
      },
      {
        id: 'cancel',
        header: '',
        enableSorting: false,
        cell: ({ row: { original: r } }) => <Cancel row={r} may={mayStart} onAsked={() => void refetch()} />,
      },
    ],
    [fmt, mayStart, refetch],
  )
  return (
    <main className="sheet" id="main">
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Fleet</h1>
        <span className="label">Many vehicles laid out together over several rolls, each vehicle from one lot</span>
        <span className="flex-fill" />
        {rows.length > 0 && <FilterBox label="Filter layouts" value={text} onText={setText} />}
      </div>
      {mayStart && <Ask jobs={jobs} films={films} stock={stock} fmt={fmt} onAsked={() => void refetch()} />}
      {rows.length === 0 && <p className="plate">Nothing has been laid out for a fleet yet.</p>}
      {rows.length > 0 && (
        <SortableTable
          label="Layouts"
          rows={rows}
          columns={columns}
          rowKey={(r) => r.id}
          filter={text}
          none={`No layout matches “${text}”.`}
        />
      )}
    </main>
  )
}
