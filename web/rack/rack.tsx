'use client'

import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { MAX_FILE_BYTES } from '@/core/kit/json-guard'
import type { SupplyLevels } from '@/core/engines/edge/supply-list'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { bringFilms } from '@/web/actions/rack'
import { call } from '@/web/kit/call'
import { FilterBox } from '@/web/kit/fields'
import { FilePicker } from '@/web/kit/file-picker'
import { faultText } from '@/web/words/faults'
import { formatter, type MemberUnits } from '@/web/words/format'
import { FilmEditor } from './film-editor'
import { blankSheet } from './film-fields'
import { RackFilms, type RackFilm } from './rack-films'
import { RackStock } from './rack-stock'
import { Receive } from './receive'
import { SupplyStock } from './supply-stock'
import './rack.scss'

/** Films with their sheets, rolls and rests with lots and what is left of them. */
export function Rack({
  all,
  stock,
  units,
  mayReceive,
  mayTest,
  levels,
}: {
  all: RackFilm[]
  stock: StockItem[]
  units: MemberUnits
  mayReceive: boolean
  mayTest: boolean
  levels: SupplyLevels
}) {
  const fmt = useMemo(() => formatter(units), [units])
  const [filter, setFilter] = useState('')
  const [editing, setEditing] = useState<{ start: FilmSheet; basedOn: number } | null>(null)
  const [old, setOld] = useState(false)
  const [said, setSaid] = useState('')
  const router = useRouter()
  const films = all.filter((f) => f.sold || old)
  const sheets = useMemo(() => all.filter((f) => f.sold || old).map((f) => f.sheet), [all, old])
  const off = all.filter((f) => !f.sold)
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
  return (
    <main className="sheet" id="main">
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Rack</h1>
        <span className="label">
          {films.length} films, {stock.filter((s) => s.kind === 'roll').length} rolls,{' '}
          {stock.filter((s) => s.kind === 'rest').length} rests
        </span>
        <span className="flex-fill" />
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
            if (!saved) return
            setSaid('Saved.')
            router.refresh()
          }}
        />
      )}
      {films.length === 0 ? (
        <p className="plate">No film on the rack yet.</p>
      ) : (
        <>
          <RackFilms films={films} stock={stock} fmt={fmt} filter={filter} mayChange={mayReceive} onEdit={setEditing} />
          {mayReceive && <Receive films={sheets} fmt={fmt} />}
          <RackStock films={sheets} stock={stock} fmt={fmt} filter={filter} mayChange={mayReceive} mayTest={mayTest} />
        </>
      )}
      <SupplyStock levels={levels} fmt={fmt} mayChange={mayReceive} />
    </main>
  )
}
