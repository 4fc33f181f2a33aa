'use client'

import { unplacedText } from '@/web/words/unplaced'
import { fleetTable } from '@/core/engines/roll/fleet-table'
import { writeCsv } from '@/web/kit/csv'
import Link from 'next/link'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import type { Figure } from '@/core/model/figure/figure'
import { fleetFigures } from '@/core/stages/roll/fleet-figures'
import type { FleetFile as File } from '@/web/actions/reads'
import { read } from '@/web/kit/read'
import { FilterBox } from '@/web/kit/fields'
import { FigureButton } from '@/web/kit/figure-button'
import { WorkingSheet, type Place } from '@/web/kit/working'
import { formatter, type MemberUnits } from '@/web/words/format'
import { busy, type FleetRow } from './fleet-row'
import { FleetRoll } from './fleet-roll'
import { FleetHead } from './fleet-head'

const LOOK_MS = 1000

const NAMES: Record<string, string> = {
  'fleet/used': 'Film it takes',
  'fleet/bound': 'Least possible on one endless roll',
  'fleet/above': 'Above the least possible',
  'fleet/yield': 'Film that becomes pieces',
}

/** What the numbers of a layout come from: the file that was sent, or the layout itself. */
const PLACES: Record<string, Place> = {
  pieces: { label: 'pieces that are placed', href: null },
  stock: { label: 'the widest roll', href: null },
  layout: { label: 'layout', href: null },
}

/** One layout of a fleet: how far it is, then each roll with what lies on it. */
export function FleetResult({ file: first, units, mayStart }: { file: File; units: MemberUnits; mayStart: boolean }) {
  const fmt = useMemo(() => formatter(units), [units])
  const [filter, setFilter] = useState('')
  const queries = useQueryClient()
  // While it runs only its head is asked for again and again; the whole is read once it has ended.
  const { data: head } = useQuery({
    queryKey: ['fleet', first.id, 'head'],
    queryFn: ({ signal }) => read<FleetRow>(`/api/fleets/${first.id}/head`, signal),
    initialData: first,
    refetchInterval: ({ state }) => (state.data && busy(state.data) ? LOOK_MS : false),
  })
  const ended = !busy(head)
  const { data: whole } = useQuery({
    queryKey: ['fleet', first.id, 'whole'],
    queryFn: ({ signal }) => read<File>(`/api/fleets/${first.id}`, signal),
    initialData: first,
    enabled: ended && busy(first),
    staleTime: 0,
  })
  const file = useMemo(() => ({ ...whole, ...head }), [whole, head])
  const look = () => queries.invalidateQueries({ queryKey: ['fleet', first.id, 'head'] })
  const { result, request } = file
  const sizes = useMemo(() => new Map(request.pieces.map((p) => [p.id, p])), [request])
  const [shown, setShown] = useState<string | null>(null)
  const figures = useMemo(
    () => new Map<string, Figure>((result ? fleetFigures(request, result) : []).map((f) => [f.id, f])),
    [request, result],
  )
  /** While it is being laid out a number stands as it is; of a result it opens its working. */
  const number = (id: string, meanwhile: string) => {
    const f = figures.get(id)
    return f ? (
      <FigureButton f={f} name={NAMES[id] ?? id} fmt={fmt} as={as(f)} onShow={() => setShown(id)} />
    ) : (
      meanwhile
    )
  }
  const as = (f: Figure) => (f.unit === 'mm' && typeof f.value === 'number' ? fmt.longLength(f.value) : undefined)
  const used = result?.stock.filter((s) => s.placements.length > 0) ?? []
  const wanted = filter.trim().toLowerCase()
  const csv = () => `data:text/csv;charset=utf-8,${encodeURIComponent(writeCsv(fleetTable(request.stock, used)))}`
  return (
    <main className="sheet" id="main">
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>{file.name}</h1>
        <span className="label">
          {file.pieces} pieces, by {file.by}, {fmt.moment(file.at)}
        </span>
        <span className="flex-fill" />
        <Link className="btn btn-outline-primary" href="/fleet">
          All layouts
        </Link>
      </div>
      <FleetHead file={file} number={number} fmt={fmt} result={result} mayStart={mayStart} look={look} csv={csv} />
      {result && result.unplaced.length > 0 && (
        <p className="caution">
          {result.unplaced.length} {result.unplaced.length === 1 ? 'piece is' : 'pieces are'} not placed:{' '}
          {result.unplaced
            .slice(0, 12)
            .map((u) => `${u.piece} (${unplacedText(u.why)})`)
            .join(', ')}
          {result.unplaced.length > 12 ? ` and ${result.unplaced.length - 12} more` : ''}. Allow more new rolls, or
          split what is too wide.
        </p>
      )}
      {result && (
        <section className="plate" aria-label="Rolls">
          <div className="d-flex gap-3 align-items-center mb-2">
            <h2 className="mb-0">
              {used.length} {used.length === 1 ? 'roll' : 'rolls'}
            </h2>
            <FilterBox label="Find a vehicle or piece" width={260} value={filter} onText={setFilter} />
          </div>
          {used.map((s) => {
            const stock = request.stock.find((x) => x.id === s.id)
            if (!stock) return null
            return <FleetRoll key={s.id} s={s} stock={stock} fmt={fmt} sizes={sizes} wanted={wanted} />
          })}
        </section>
      )}
      <WorkingSheet
        f={shown === null ? undefined : figures.get(shown)}
        fmt={fmt}
        nameOf={(id) => NAMES[id] ?? id}
        placeOf={(at) => PLACES[at] ?? { label: at, href: null }}
        onShow={setShown}
      />
    </main>
  )
}
