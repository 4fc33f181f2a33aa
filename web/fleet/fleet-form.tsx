'use client'

import { FilePicker } from '@/web/kit/file-picker'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { startFleet, startFleetFile } from '@/web/actions/fleet'
import { newId } from '@/web/kit/call'
import { FilterBox } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import { useHydrated } from '@/web/kit/use-hydrated'
import { type Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/faults'

/** Many vehicles laid out together: what is asked for, how far it is, what came of it. */
/** What is asked of a fleet's layout. `stages`: any number of cuts for null. */
export interface FleetWish {
  shelf: boolean
  newRolls: number
  cutting: 'guillotine' | 'free'
  stages: number | null
  gapMm: number
  seconds: number
}

export function Ask({
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
  const alive = useHydrated()
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
          `${picked.length === 1 ? (jobs.find((j) => j.id === picked[0]?.[0])?.vehicle ?? '1 job') : `${picked.length} jobs`} ` +
            `in ${film?.name ?? ''}`.slice(0, 120),
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
