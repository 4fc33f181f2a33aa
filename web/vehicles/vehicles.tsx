'use client'

import Link from 'next/link'
import { useMemo, useState } from 'react'
import type { VehicleHead } from '@/web/actions/vehicles'
import { FilterBox } from '@/web/kit/fields'
import { SortableTable, type SortableColumn } from '@/web/kit/sortable-table'
import { formatter, type MemberUnits } from '@/web/words/format'
import { word } from '@/web/words/names'

/** Vehicles measured before, to start the next job from. */
export function Vehicles({ vehicles, units }: { vehicles: VehicleHead[]; units: MemberUnits }) {
  const [text, setText] = useState('')
  const fmt = useMemo(() => formatter(units), [units])
  const columns = useMemo(
    (): SortableColumn<VehicleHead>[] => [
      {
        header: 'Vehicle',
        accessorKey: 'name',
        cell: ({ row: { original: v } }) => <Link href={`/vehicles/${v.id}`}>{v.name}</Link>,
      },
      { header: 'Body', accessorFn: (v) => word('vehicle', v.kind, units.locale) },
      { header: 'Panels', accessorKey: 'panels', meta: { numbers: true } },
      {
        header: 'Figures taped',
        accessorFn: (v) => v.taped / Math.max(1, v.figures),
        cell: ({ row: { original: v } }) => `${v.taped} of ${v.figures}`,
        meta: { numbers: true },
      },
      { header: 'State', accessorKey: 'head', meta: { numbers: true } },
      {
        header: 'Changed',
        accessorKey: 'updatedAt',
        cell: ({ row: { original: v } }) => fmt.moment(v.updatedAt),
      },
    ],
    [fmt, units.locale],
  )
  return (
    <main className="sheet" id="main">
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Vehicles</h1>
        <span className="label">{vehicles.length} measured</span>
        <span className="flex-fill" />
        <FilterBox label="Filter vehicles" width={240} value={text} onText={setText} />
      </div>
      {vehicles.length === 0 && (
        <p className="plate">No vehicle is kept yet. A job’s Tape stage keeps one with “Keep in the library”.</p>
      )}
      {vehicles.length > 0 && (
        <SortableTable
          label="Vehicles"
          rows={vehicles}
          columns={columns}
          rowKey={(v) => v.id}
          filter={text}
          none={`No vehicle matches “${text}”.`}
        />
      )}
    </main>
  )
}
