'use client'

import { FilePicker } from '@/web/kit/file-picker'
import Table from 'react-bootstrap/Table'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useEffect, useMemo, useState } from 'react'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { cancelFleet, fleetHeads, startFleet, startFleetFile } from '@/web/actions/fleet'
import { call, newId } from '@/web/kit/call'
import { FilterBox } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import { useAlive } from '@/web/kit/use-alive'
import { formatter, type Formatter, type MemberUnits } from '@/web/words/format'
import { faultText } from '@/web/words/faults'

export type FleetRow = Extract<Awaited<ReturnType<typeof fleetHeads>>, { ok: true }>['value'][number]
const LOOK_MS = 1000
export const busy = (r: { state: FleetRow['state'] }): boolean => r.state === 'queued' || r.state === 'running'
export const STATES: Record<FleetRow['state'], string> = {
  queued: 'waits for a worker',
  running: 'being laid out',
  done: 'done',
  failed: 'failed',
  cancelled: 'cancelled',
}

/** Many vehicles laid out together: what is asked for, how far it is, what came of it. */
/** What is asked of a fleet's layout. `stages`: any number of cuts for null. */
interface FleetWish {
  shelf: boolean
  newRolls: number
  cutting: 'guillotine' | 'free'
  stages: number | null
  gapMm: number
  seconds: number
}

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
  const [rows, setRows] = useState(first)
  const look = async () => {
    const out = await call(fleetHeads, {})
    if (out.ok) setRows(out.value)
  }
  const going = rows.some(busy)
  useEffect(() => {
    if (!going) return
    const timer = setInterval(() => void look(), LOOK_MS)
    return () => clearInterval(timer)
  }, [going])
  return (
    <main className="sheet" id="main">
      <div className="bench-head">
        <h1>Fleet</h1>
        <span className="label">Many vehicles laid out together over several rolls, each vehicle from one lot</span>
      </div>
      {mayStart && <Ask jobs={jobs} films={films} stock={stock} fmt={fmt} onAsked={() => void look()} />}
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
                    <Cancel row={r} may={mayStart} onAsked={() => void look()} />
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

/** The bound is that of one endless roll; rolls each with an end of their own stand a little above it. */
export const gapText = (r: { usedMm: number | null; boundMm: number | null }, fmt: Formatter): string =>
  r.usedMm !== null && r.boundMm ? fmt.text(fmt.percent(Math.max(0, r.usedMm / r.boundMm - 1))) : '–'

export function Progress({ row }: { row: FleetRow }) {
  return (
    <span role="status">
      {row.cancelAsked && busy(row) ? 'stopping' : STATES[row.state]}
      {row.silent ? ', no word from its worker' : ''}
      {row.attempt > 1 && busy(row) ? `, taken up again (${row.attempt})` : ''}
      {row.state === 'running' && (
        <progress
          className="ms-2"
          value={row.share}
          max={1}
          aria-label={`${row.name}, progress`}
          style={{ width: 90 }}
        />
      )}
      {row.fault && <span className="text-danger d-block">{faultText({ code: row.fault })}</span>}
    </span>
  )
}

export function Cancel({ row, may, onAsked }: { row: FleetRow; may: boolean; onAsked: () => void }) {
  const [said, setSaid] = useState('')
  if (!busy(row) || !may) return null
  const ask = async () => {
    const out = await call(cancelFleet, { id: row.id })
    setSaid(out.ok ? '' : faultText(out.error))
    onAsked()
  }
  return (
    <>
      <Button
        variant="outline-primary"
        size="sm"
        disabled={row.cancelAsked}
        aria-label={`Cancel ${row.name}`}
        onClick={() => void ask()}
      >
        Cancel
      </Button>
      {said !== '' && <span className="text-danger">{said}</span>}
    </>
  )
}

function Ask({
  jobs,
  films,
  stock,
  fmt,
  onAsked,
}: {
  jobs: { id: string; name: string; vehicle: string }[]
  films: FilmSheet[]
  stock: StockItem[]
  fmt: Formatter
  onAsked: () => void
}) {
  const router = useRouter()
  const alive = useAlive()
  const [filter, setFilter] = useState('')
  const [filmId, setFilm] = useState(() => {
    const left = (f: FilmSheet) => stock.filter((s) => s.filmId === f.id).reduce((t, s) => t + s.leftMm, 0)
    return [...films].sort((a, b) => left(b) - left(a))[0]?.id ?? ''
  })
  const [name, setName] = useState('')
  const [counts, setCounts] = useState<Record<string, number>>({})
  const [v, setV] = useState<FleetWish>({
    shelf: true,
    newRolls: 4,
    cutting: 'guillotine',
    stages: 3,
    gapMm: 0,
    seconds: 20,
  })
  const [said, setSaid] = useState('')
  const [sending, setSending] = useState(false)
  const film = films.find((f) => f.id === filmId)
  const widthMm = Math.max(...(film?.widthsMm ?? [1520]))
  const onShelf = stock.filter((s) => s.filmId === filmId && s.leftMm > 0)
  const lotCount = new Set(onShelf.map((s) => s.lot)).size
  const shown = jobs.filter((j) => `${j.name} ${j.vehicle}`.toLowerCase().includes(filter.trim().toLowerCase()))
  const picked = Object.entries(counts).filter(([, n]) => n > 0)
  const begin = async (work: () => ReturnType<typeof startFleet>) => {
    setSending(true)
    setSaid('')
    const out = await work().catch(() => ({ ok: false as const, error: { code: 'offline' } }))
    setSending(false)
    if (!out.ok) return setSaid(faultText(out.error))
    onAsked()
    router.push(`/fleet/${out.value.id}`)
  }
  const start = () =>
    begin(() =>
      startFleet({
        id: newId(),
        name:
          name.trim() ||
          `${picked.length === 1 ? (jobs.find((j) => j.id === picked[0]?.[0])?.vehicle ?? '1 job') : `${picked.length} jobs`} in ${film?.name ?? ''}`.slice(
            0,
            120,
          ),
        filmId,
        cars: picked.map(([jobId, count]) => ({ jobId, count })),
        widthMm,
        ...v,
      }),
    )
  const bring = async (file: File | undefined) => {
    if (!file) return
    const text = await file.text()
    await begin(() => startFleetFile({ id: newId(), name: file.name.slice(0, 120), text }))
  }
  return (
    <details className="plate mb-3" open={jobs.length > 0}>
      <summary>
        <b>Lay out vehicles together</b>
      </summary>
      <fieldset disabled={!alive || sending} className="mt-2">
        <div className="roll-settings">
          <label>
            <span className="label">Film</span>
            <Form.Select size="sm" aria-label="Film" value={filmId} onChange={(e) => setFilm(e.target.value)}>
              {films.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.name}
                </option>
              ))}
            </Form.Select>
          </label>
          <label style={{ width: 200 }}>
            <span className="label">Name</span>
            <Form.Control
              size="sm"
              aria-label="Name"
              maxLength={120}
              value={name}
              onChange={(e) => setName(e.target.value)}
            />
          </label>
          <label>
            <span className="label">Cut</span>
            <Form.Select
              size="sm"
              aria-label="Cut"
              value={v.cutting}
              onChange={(e) => setV({ ...v, cutting: e.target.value as 'guillotine' })}
            >
              <option value="guillotine">by hand, straight cuts</option>
              <option value="free">by machine, any placement</option>
            </Form.Select>
          </label>
          {v.cutting === 'guillotine' && (
            <label>
              <span className="label">Stages of cuts</span>
              <Form.Select
                size="sm"
                aria-label="Stages of cuts"
                value={v.stages ?? ''}
                onChange={(e) => setV({ ...v, stages: e.target.value ? Number(e.target.value) : null })}
              >
                {[2, 3, 4, 5, 6].map((n) => (
                  <option key={n} value={n}>
                    {n}
                  </option>
                ))}
                <option value="">any number</option>
              </Form.Select>
            </label>
          )}
          <label style={{ width: 90 }}>
            <span className="label">Gap</span>
            <LengthInput
              id="fleet-gap"
              className="form-control form-control-sm"
              aria-label="Gap between pieces"
              mm={v.gapMm}
              unit={fmt.units.lengthUnit}
              format={(mm) => fmt.length(mm).text}
              max={100}
              onValue={(mm) => setV({ ...v, gapMm: mm ?? 0 })}
              optional
            />
          </label>
          <label style={{ width: 90 }}>
            <span className="label">Seconds</span>
            <NumberInput
              id="fleet-seconds"
              className="form-control form-control-sm"
              aria-label="Seconds to search"
              value={v.seconds}
              min={1}
              max={300}
              onValue={(n) => n !== null && setV({ ...v, seconds: n })}
            />
          </label>
          <label style={{ width: 110 }}>
            <span className="label">New rolls, at most</span>
            <NumberInput
              id="fleet-new"
              className="form-control form-control-sm"
              aria-label="New rolls, at most"
              value={v.newRolls}
              max={300}
              onValue={(n) => n !== null && setV({ ...v, newRolls: Math.round(n) })}
            />
          </label>
          <label className="d-flex gap-2 align-items-center">
            <Form.Check.Input
              type="checkbox"
              className="mt-0"
              checked={v.shelf}
              onChange={(e) => setV({ ...v, shelf: e.target.checked })}
            />
            the shelf first ({onShelf.length} {onShelf.length === 1 ? 'roll or rest' : 'rolls and rests'}, {lotCount}{' '}
            {lotCount === 1 ? 'lot' : 'lots'})
          </label>
        </div>
        <div className="d-flex gap-3 align-items-center flex-wrap mt-2">
          <FilterBox label="Filter the jobs" value={filter} onText={setFilter} />
          <span className="label">{picked.length} picked</span>
        </div>
        <ul className="list-unstyled mb-2 mt-1 fleet-jobs">
          {shown.map((j) => (
            <li key={j.id} className="d-flex gap-2 align-items-center">
              <label className="d-flex gap-2 align-items-center flex-fill">
                <Form.Check.Input
                  type="checkbox"
                  className="mt-0"
                  checked={(counts[j.id] ?? 0) > 0}
                  onChange={(e) => setCounts({ ...counts, [j.id]: e.target.checked ? 1 : 0 })}
                />
                {j.vehicle} <span className="label">{j.name}</span>
              </label>
              {(counts[j.id] ?? 0) > 0 && (
                <label className="d-flex gap-1 align-items-center">
                  <span className="label">vehicles alike</span>
                  <NumberInput
                    id={`alike-${j.id}`}
                    className="form-control form-control-sm"
                    style={{ width: 70 }}
                    aria-label={`${j.vehicle}, vehicles alike`}
                    value={counts[j.id] ?? 1}
                    min={1}
                    max={200}
                    onValue={(n) => n !== null && setCounts({ ...counts, [j.id]: Math.max(1, Math.round(n)) })}
                  />
                </label>
              )}
            </li>
          ))}
        </ul>
        {jobs.length === 0 && <p>No job is in the yard yet.</p>}
        <div className="d-flex gap-2 align-items-center flex-wrap">
          <Button disabled={picked.length === 0 || filmId === ''} onClick={() => void start()}>
            Lay them out
          </Button>
          <FilePicker label="Layout file as JSON" accept=".json" onFile={(file) => void bring(file)}>
            Bring in a layout file
          </FilePicker>
          <span className="text-danger" role="alert">
            {said}
          </span>
        </div>
      </fieldset>
    </details>
  )
}
