'use client'

import { Receive } from '@/web/rack/receive'

import { FilePicker } from '@/web/kit/file-picker'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import { useRouter } from 'next/navigation'
import { FilterBox } from '@/web/kit/fields'
import { useMemo, useState } from 'react'
import { bringFilms, sellFilm } from '@/web/actions/rack'
import { MAX_FILE_BYTES } from '@/core/kit/json-guard'
import { blankSheet } from './film-fields'
import { Damage } from './damage'
import { FilmEditor } from './film-editor'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { FilmFacts } from '@/web/film/film-facts'
import { call } from '@/web/kit/call'
import { formatter, type MemberUnits } from '@/web/words/format'
import { word } from '@/web/words/names'
import { faultText } from '@/web/words/faults'

/** Films with their sheets, rolls and rests with lots and what is left of them. */
export function Rack({
  all,
  stock,
  units,
  mayReceive,
}: {
  all: { sheet: FilmSheet; sold: boolean; version: number }[]
  stock: StockItem[]
  units: MemberUnits
  mayReceive: boolean
}) {
  const fmt = useMemo(() => formatter(units), [units])
  const [filter, setFilter] = useState('')
  const [open, setOpen] = useState<string | null>(null)
  const [editing, setEditing] = useState<{ start: FilmSheet; basedOn: number } | null>(null)
  const [old, setOld] = useState(false)
  const [said, setSaid] = useState('')
  const router = useRouter()
  const films = all.filter((f) => f.sold || old).map((f) => f.sheet)
  const off = all.filter((f) => !f.sold)
  const sold = (id: string) => all.find((f) => f.sheet.id === id)?.sold ?? true
  const bring = async (file: File | undefined) => {
    if (!file) return
    if (file.size > MAX_FILE_BYTES) return setSaid(faultText({ code: 'too_large', facts: { limit: MAX_FILE_BYTES } }))
    const out = await call(bringFilms, { text: await file.text(), csv: /\.csv$/i.test(file.name) })
    setSaid(
      out.ok
        ? `${out.value.added} films added, ${out.value.changed} changed.`
        : `Nothing was taken from the file. ${faultText(out.error)}`,
    )
    if (out.ok) router.refresh()
  }
  const sell = async (id: string, sold: boolean) => {
    const out = await call(sellFilm, { id, sold })
    if (!out.ok) return setSaid(faultText(out.error))
    router.refresh()
  }
  const shown = films.filter((f) =>
    `${f.name} ${f.maker} ${f.kind} ${stock
      .filter((s) => s.filmId === f.id)
      .map((s) => `${s.label} ${s.lot}`)
      .join(' ')}`
      .toLowerCase()
      .includes(filter.trim().toLowerCase()),
  )
  return (
    <main className="sheet" id="main">
      <div className="bench-head">
        <h1>Rack</h1>
        <span className="label">
          {films.length} films, {stock.filter((s) => s.kind === 'roll').length} rolls,{' '}
          {stock.filter((s) => s.kind === 'rest').length} rests
        </span>
        <span className="spacer" />
        <FilterBox label="Filter the rack" width={240} value={filter} onText={setFilter} />
      </div>
      <div className="d-flex gap-2 align-items-center flex-wrap mb-3">
        {mayReceive && (
          <>
            <Button size="sm" onClick={() => setEditing({ start: blankSheet('new-film'), basedOn: 0 })}>
              New film
            </Button>
            <FilePicker label="Films as JSON or CSV" accept=".json,.csv" onFile={(file) => void bring(file)} size="sm">
              Bring in films
            </FilePicker>
          </>
        )}
        <a className="btn btn-outline-primary btn-sm" href="/rack/films.json">
          JSON
        </a>
        <a className="btn btn-outline-primary btn-sm" href="/rack/films.csv">
          CSV
        </a>
        {off.length > 0 && (
          <label className="d-flex gap-1 align-items-center">
            <Form.Check.Input type="checkbox" checked={old} onChange={(e) => setOld(e.target.checked)} /> {off.length}{' '}
            no longer sold
          </label>
        )}
        {said !== '' && (
          <span role="status" style={{ whiteSpace: 'pre-line' }}>
            {said}
          </span>
        )}
      </div>
      {editing && (
        <FilmEditor
          key={`${editing.start.id}/${editing.basedOn}`}
          {...editing}
          taken={all.map((f) => f.sheet.id)}
          fmt={fmt}
          onDone={(saved) => {
            setEditing(null)
            if (saved) {
              setSaid('Saved.')
              router.refresh()
            }
          }}
        />
      )}
      {films.length === 0 && <p className="plate">No film on the rack yet.</p>}
      {films.length > 0 && shown.length === 0 && <p className="plate">Nothing matches “{filter}”.</p>}
      {mayReceive && films.length > 0 && <Receive films={films} units={units} />}
      {shown.map((f) => {
        const own = stock.filter((s) => s.filmId === f.id)
        const full = Math.max(...f.rollLengthsMm)
        return (
          <section key={f.id} className="plate mb-2">
            <div className="d-flex gap-3 align-items-center flex-wrap">
              <span
                aria-hidden
                style={{
                  width: 32,
                  height: 32,
                  background: f.colour.hex,
                  border: '1px solid var(--ink)',
                  borderRadius: 2,
                }}
              />
              <h2 className="mb-0">{f.name}</h2>
              <span className="label">
                {f.maker}, {word('film', f.kind, units.locale)}, {f.finish}
              </span>
              {!sold(f.id) && <span className="label">no longer sold; old jobs still read it</span>}
              {mayReceive && (
                <span className="ms-auto d-flex gap-2">
                  <Button
                    variant="link"
                    size="sm"
                    className="p-0"
                    aria-label={`Change ${f.name}`}
                    onClick={() =>
                      setEditing({ start: f, basedOn: all.find((x) => x.sheet.id === f.id)?.version ?? 1 })
                    }
                  >
                    Change
                  </Button>
                  <Button
                    variant="link"
                    size="sm"
                    className="p-0"
                    aria-label={`Duplicate ${f.name}`}
                    onClick={() => setEditing({ start: { ...f, name: `${f.name} copy`.slice(0, 120) }, basedOn: 0 })}
                  >
                    Duplicate
                  </Button>
                  <Button
                    variant="link"
                    size="sm"
                    className="p-0"
                    aria-label={sold(f.id) ? `${f.name} is no longer sold` : `${f.name} is sold again`}
                    onClick={() => void sell(f.id, !sold(f.id))}
                  >
                    {sold(f.id) ? 'No longer sold' : 'Sold again'}
                  </Button>
                </span>
              )}
              <Button
                variant="link"
                size="sm"
                aria-expanded={open === f.id}
                onClick={() => setOpen(open === f.id ? null : f.id)}
              >
                Sheet
              </Button>
            </div>
            {open === f.id && <FilmFacts film={f} fmt={fmt} />}
            {own.length === 0 && <p className="label mb-0 mt-1">Nothing of it here.</p>}
            {own.length > 0 && (
              <Table bsPrefix="quiet-table" className="mt-1">
                <tbody>
                  {own.map((s) => (
                    <tr key={s.id}>
                      <td style={{ width: 70 }}>
                        <b>{s.label}</b>
                      </td>
                      <td style={{ width: 60 }}>{s.kind}</td>
                      <td style={{ width: 160 }}>lot {s.lot}</td>
                      <td style={{ width: 120 }}>{fmt.text(fmt.length(s.widthMm))} wide</td>
                      <td className="n" style={{ width: 110 }}>
                        <b>{fmt.text(fmt.longLength(s.leftMm))}</b>
                      </td>
                      <td>
                        <span
                          aria-hidden
                          style={{
                            display: 'block',
                            height: 10,
                            width: `${Math.min(100, (s.leftMm / full) * 100)}%`,
                            background: f.colour.hex,
                            border: '1px solid var(--ink)',
                            minWidth: 2,
                          }}
                        />
                      </td>
                      <td style={{ width: 380 }}>
                        <Damage item={s} fmt={fmt} may={mayReceive} />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Table>
            )}
          </section>
        )
      })}
    </main>
  )
}
