'use client'

import { useMemo } from 'react'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { lotResidue } from '@/core/model/film/strip-test'
import { SortableTable, type SortableColumn } from '@/web/kit/sortable-table'
import type { Formatter } from '@/web/words/format'
import { Damage } from './damage'
import { StripTests } from './strip-test'
import { Swatch } from './swatch'

interface Row extends StockItem {
  film: FilmSheet
}

/** Every roll and rest of the films shown: lot, width, what is left, what of it is damaged. */
export function RackStock({
  films,
  stock,
  fmt,
  filter,
  mayChange,
  mayTest,
}: {
  films: FilmSheet[]
  stock: StockItem[]
  fmt: Formatter
  filter: string
  mayChange: boolean
  mayTest: boolean
}) {
  const rows = useMemo(
    () =>
      films.flatMap((film) => stock.filter((item) => item.filmId === film.id).map((item): Row => ({ ...item, film }))),
    [films, stock],
  )
  const columns = useMemo(
    (): SortableColumn<Row>[] => [
      { header: 'Label', accessorKey: 'label', cell: ({ row: { original: s } }) => <b>{s.label}</b> },
      {
        header: 'Film',
        accessorFn: (s) => `${s.film.name} ${s.film.maker}`,
        cell: ({ row: { original: s } }) => (
          <span className="d-inline-flex gap-2 align-items-center">
            <Swatch hex={s.film.colour.hex} />
            {s.film.name}
          </span>
        ),
      },
      { header: 'Kind', accessorKey: 'kind' },
      { header: 'Lot', accessorKey: 'lot' },
      {
        header: 'Width',
        accessorKey: 'widthMm',
        cell: ({ row: { original: s } }) => fmt.text(fmt.length(s.widthMm)),
        meta: { numbers: true },
      },
      {
        header: 'Left',
        accessorKey: 'leftMm',
        cell: ({ row: { original: s } }) => <b>{fmt.text(fmt.longLength(s.leftMm))}</b>,
        meta: { numbers: true },
      },
      {
        id: 'bar',
        header: 'Of a full roll',
        accessorFn: (s) => s.leftMm / Math.max(...s.film.rollLengthsMm),
        enableGlobalFilter: false,
        cell: ({ row: { original: s } }) => (
          <span
            aria-hidden
            className="left-bar d-inline-block align-middle"
            style={{
              width: `${Math.min(100, (s.leftMm / Math.max(...s.film.rollLengthsMm)) * 100)}%`,
              background: s.film.colour.hex,
            }}
          />
        ),
      },
      {
        header: 'Damage',
        accessorFn: (s) => s.damage.length,
        enableGlobalFilter: false,
        cell: ({ row: { original: s } }) => <Damage item={s} fmt={fmt} may={mayChange} />,
      },
      {
        header: 'Tension left in it',
        accessorFn: (s) => lotResidue([s], s.filmId, s.lot)?.residue ?? -1,
        enableGlobalFilter: false,
        cell: ({ row: { original: s } }) => <StripTests item={s} fmt={fmt} may={mayTest} />,
      },
    ],
    [fmt, mayChange, mayTest],
  )
  if (rows.length === 0) return <p className="plate">No roll or rest of these films is here.</p>
  return (
    <SortableTable
      label="Rolls and rests"
      rows={rows}
      columns={columns}
      rowKey={(s) => s.id}
      filter={filter}
      none={`No roll or rest matches “${filter}”.`}
    />
  )
}
