'use client'

import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table'
import { useState, type ReactNode } from 'react'
import Table from 'react-bootstrap/Table'
import { PlainButton } from './plain-button'

const ARIA = { asc: 'ascending', desc: 'descending' } as const
const MARK = { asc: ' ▲', desc: ' ▼' } as const

/** A column: what is shown, and (by `accessorFn` or `accessorKey`) what it is sorted and filtered by. */
export type SortableColumn<T> = ColumnDef<T, string | number | null> & {
  meta?: { numbers?: boolean }
}

/**
 * A cell as its column draws it. It is called, not mounted: columns that are made anew leave what is typed in their
 * cells alone.
 */
const drawn = <C,>(draw: ReactNode | ((context: C) => ReactNode), context: C): ReactNode =>
  typeof draw === 'function' ? draw(context) : draw

/** A list that its reader sorts by any column and filters as one types. `filter`: the text of a box outside. */
export function SortableTable<T>({
  rows,
  columns,
  rowKey,
  filter = '',
  none,
  label,
}: {
  rows: readonly T[]
  columns: SortableColumn<T>[]
  rowKey: (row: T) => string
  filter?: string
  /** Said where the filter leaves nothing. */
  none: string
  label: string
}) {
  const [sorting, setSorting] = useState<SortingState>([])
  // eslint-disable-next-line react-hooks/incompatible-library -- the table library keeps its own state
  const table = useReactTable({
    data: rows as T[],
    columns,
    getRowId: rowKey,
    state: { sorting, globalFilter: filter.trim() },
    onSortingChange: setSorting,
    globalFilterFn: 'includesString',
    getColumnCanGlobalFilter: () => true,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  })
  const shown = table.getRowModel().rows
  const numbers = (column: { columnDef: object }) => (column.columnDef as SortableColumn<T>).meta?.numbers === true
  if (shown.length === 0) return <p className="plate">{none}</p>
  return (
    <div className="plate scroll-x" role="region" aria-label={label} tabIndex={0}>
      <Table>
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              {group.headers.map((head) => {
                const sorted = head.column.getIsSorted()
                return (
                  <th
                    key={head.id}
                    scope="col"
                    className={numbers(head.column) ? 'n' : undefined}
                    aria-sort={sorted ? ARIA[sorted] : 'none'}
                  >
                    {head.column.getCanSort() ? (
                      <PlainButton className="sort" onClick={head.column.getToggleSortingHandler()}>
                        {drawn(head.column.columnDef.header, head.getContext())}
                        <span aria-hidden>{sorted ? MARK[sorted] : ''}</span>
                      </PlainButton>
                    ) : (
                      drawn(head.column.columnDef.header, head.getContext())
                    )}
                  </th>
                )
              })}
            </tr>
          ))}
        </thead>
        <tbody>
          {shown.map((row) => (
            <tr key={row.id}>
              {row.getVisibleCells().map((cell) => (
                <td key={cell.id} className={numbers(cell.column) ? 'n' : undefined}>
                  {drawn(cell.column.columnDef.cell, cell.getContext())}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  )
}
