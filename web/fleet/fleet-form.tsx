'use client'

import { FilePicker } from '@/web/kit/file-picker'
import Button from 'react-bootstrap/Button'
import { useRouter } from 'next/navigation'
import { zodResolver } from '@hookform/resolvers/zod'
import { useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { startFleet, startFleetFile } from '@/web/actions/fleet'
import { newId } from '@/web/kit/call'
import { FilterBox } from '@/web/kit/fields'
import { useHydrated } from '@/web/kit/use-hydrated'
import { type Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/faults'
import { JobsToLayOut } from './jobs-to-lay-out'
import { FleetSettings, FleetWish } from './fleet-settings'

/** The film of which most is on the rack. */
function mostOnShelf(films: FilmSheet[], stock: StockItem[]): string {
  const left = (f: FilmSheet) => stock.filter((s) => s.filmId === f.id).reduce((sum, s) => sum + s.leftMm, 0)
  return [...films].sort((a, b) => left(b) - left(a))[0]?.id ?? ''
}

/** Many vehicles laid out together: what is asked for, how far it is, what came of it. */
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
  const [counts, setCounts] = useState<Record<string, number>>({})
  const form = useForm<FleetWish>({
    resolver: zodResolver(FleetWish),
    defaultValues: {
      filmId: mostOnShelf(films, stock),
      name: '',
      shelf: true,
      newRolls: 4,
      cutting: 'guillotine',
      stages: 3,
      gapMm: 0,
      seconds: 20,
    },
  })
  const filmId = useWatch({ control: form.control, name: 'filmId' })
  const [said, setSaid] = useState('')
  const [sending, setSending] = useState(false)
  const film = films.find((f) => f.id === filmId)
  const widthMm = Math.max(...(film?.widthsMm ?? [1520]))
  const onShelf = stock.filter((s) => s.filmId === filmId && s.leftMm > 0)
  const shown = jobs.filter((j) => `${j.name} ${j.vehicle}`.toLowerCase().includes(filter.trim().toLowerCase()))
  const picked = Object.entries(counts).filter(([, n]) => n > 0)
  const begin = async (work: () => ReturnType<typeof startFleet>) => {
    setSending(true)
    setSaid('')
    const out = await work().catch(() => ({ ok: false as const, error: { code: 'no_answer' as const } }))
    setSending(false)
    if (!out.ok) return setSaid(faultText(out.error))
    onAsked()
    router.push(`/fleet/${out.value.id}`)
  }
  const start = form.handleSubmit((wish) =>
    begin(() =>
      startFleet({
        ...wish,
        id: newId(),
        name:
          wish.name ||
          `${picked.length === 1 ? (jobs.find((j) => j.id === picked[0]?.[0])?.vehicle ?? '1 job') : `${picked.length} jobs`} ` +
            `in ${film?.name ?? ''}`.slice(0, 120),
        cars: picked.map(([jobId, count]) => ({ jobId, count })),
        widthMm,
      }),
    ),
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
        <FleetSettings
          form={form}
          films={films}
          fmt={fmt}
          shelf={{ items: onShelf.length, lots: new Set(onShelf.map((s) => s.lot)).size }}
        />
        <div className="d-flex gap-3 align-items-center flex-wrap mt-2">
          <FilterBox label="Filter the jobs" value={filter} onText={setFilter} />
          <span className="label">{picked.length} picked</span>
        </div>
        <JobsToLayOut shown={shown} counts={counts} setCounts={setCounts} />
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
