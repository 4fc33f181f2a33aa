'use client'

import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import Button from 'react-bootstrap/Button'
import Offcanvas from 'react-bootstrap/Offcanvas'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { sellFilm } from '@/web/actions/rack'
import { FilmFacts } from '@/web/film/film-facts'
import { call } from '@/web/kit/call'
import { SortableTable, type SortableColumn } from '@/web/kit/sortable-table'
import { faultText } from '@/web/words/faults'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { Swatch } from './swatch'

export interface RackFilm {
  sheet: FilmSheet
  sold: boolean
  version: number
}

/** The films of the rack: what each is, how much of it is here, its sheet, and what may be done with it. */
export function RackFilms({
  films,
  stock,
  fmt,
  filter,
  mayChange,
  onEdit,
}: {
  films: RackFilm[]
  stock: StockItem[]
  fmt: Formatter
  filter: string
  mayChange: boolean
  onEdit: (start: { start: FilmSheet; basedOn: number }) => void
}) {
  const router = useRouter()
  const [open, setOpen] = useState<FilmSheet | null>(null)
  const [fault, setFault] = useState('')
  const columns = useMemo((): SortableColumn<RackFilm>[] => {
    const own = (film: RackFilm) => stock.filter((s) => s.filmId === film.sheet.id)
    const left = (film: RackFilm) => own(film).reduce((sum, s) => sum + s.leftMm, 0)
    const sell = async (id: string, sold: boolean) => {
      const out = await call(sellFilm, { id, sold })
      setFault(out.ok ? '' : faultText(out.error))
      if (out.ok) router.refresh()
    }
    return [
      {
        header: 'Film',
        accessorFn: (f) => f.sheet.name,
        cell: ({ row: { original: f } }) => (
          <span className="d-inline-flex gap-2 align-items-center">
            <Swatch hex={f.sheet.colour.hex} />
            <b>{f.sheet.name}</b>
            {!f.sold && <span className="label">no longer sold; old jobs still read it</span>}
          </span>
        ),
      },
      { header: 'Maker', accessorFn: (f) => f.sheet.maker },
      { header: 'Kind', accessorFn: (f) => word('film', f.sheet.kind, fmt.units.locale) },
      { header: 'Finish', accessorFn: (f) => f.sheet.finish },
      {
        header: 'Rolls and rests',
        accessorFn: (f) => own(f).length,
        cell: ({ row: { original: f } }) => (own(f).length === 0 ? 'none here' : own(f).length),
        meta: { numbers: true },
      },
      {
        header: 'Left in all',
        accessorFn: left,
        cell: ({ row: { original: f } }) => fmt.text(fmt.longLength(left(f))),
        meta: { numbers: true },
      },
      // Filtered by the labels and lots of its rolls too.
      {
        id: 'actions',
        header: 'Sheet',
        enableSorting: false,
        accessorFn: (f) =>
          own(f)
            .map((s) => `${s.label} ${s.lot}`)
            .join(' '),
        cell: ({ row: { original: f } }) => (
          <Acts
            film={f}
            mayChange={mayChange}
            onRead={setOpen}
            onEdit={onEdit}
            onSell={(sold) => void sell(f.sheet.id, sold)}
          />
        ),
      },
    ]
  }, [fmt, mayChange, onEdit, router, stock])
  return (
    <>
      {fault !== '' && (
        <p className="text-danger" role="alert">
          {fault}
        </p>
      )}
      <SortableTable
        label="Films"
        rows={films}
        columns={columns}
        rowKey={(f) => f.sheet.id}
        filter={filter}
        none={`No film matches “${filter}”.`}
      />
      <Offcanvas
        show={open !== null}
        onHide={() => setOpen(null)}
        placement="end"
        style={{ width: 'min(880px, 100vw)' }}
      >
        <Offcanvas.Header closeButton>
          <Offcanvas.Title as="h2">{open?.name}</Offcanvas.Title>
        </Offcanvas.Header>
        <Offcanvas.Body>{open && <FilmFacts film={open} fmt={fmt} />}</Offcanvas.Body>
      </Offcanvas>
    </>
  )
}

/** What may be done with a film's sheet. */
function Acts({
  film: { sheet, sold, version },
  mayChange,
  onRead,
  onEdit,
  onSell,
}: {
  film: RackFilm
  mayChange: boolean
  onRead: (sheet: FilmSheet) => void
  onEdit: (start: { start: FilmSheet; basedOn: number }) => void
  onSell: (sold: boolean) => void
}) {
  const link = (text: string, label: string, onClick: () => void) => (
    <Button variant="link" size="sm" className="p-0 me-3" aria-label={label} onClick={onClick}>
      {text}
    </Button>
  )
  const copy = { ...sheet, name: `${sheet.name} copy`.slice(0, 120) }
  return (
    <span className="text-nowrap">
      {link('Read', `Sheet of ${sheet.name}`, () => onRead(sheet))}
      {mayChange && (
        <>
          {link('Change', `Change ${sheet.name}`, () => onEdit({ start: sheet, basedOn: version }))}
          {link('Duplicate', `Duplicate ${sheet.name}`, () => onEdit({ start: copy, basedOn: 0 }))}
          {link(
            sold ? 'No longer sold' : 'Sold again',
            sold ? `${sheet.name} is no longer sold` : `${sheet.name} is sold again`,
            () => onSell(!sold),
          )}
        </>
      )}
    </span>
  )
}
