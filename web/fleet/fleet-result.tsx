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
import { FigureButton, WorkingSheet, type Place } from '@/web/kit/working'
import { formatter, type MemberUnits } from '@/web/words/format'
import { busy, Cancel, gapText, Progress, type FleetRow } from './fleet-row'

const LOOK_MS = 1000
const PX_PER_MM = 0.075
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
      <div className="bench-head">
        <h1>{file.name}</h1>
        <span className="label">
          {file.pieces} pieces, by {file.by}, {fmt.moment(file.at)}
        </span>
        <span className="spacer" />
        <Link className="btn btn-outline-primary" href="/fleet">
          All layouts
        </Link>
      </div>
      <section className="plate mb-3 d-flex gap-4 flex-wrap align-items-baseline" aria-label="How it stands">
        <Progress row={file} />
        <span>
          <span className="label">Takes</span>{' '}
          <b className="fs-4" data-testid="fleet-used">
            {number('fleet/used', file.usedMm === null ? '–' : fmt.text(fmt.longLength(file.usedMm)))}
          </b>
        </span>
        <span>
          <span className="label">Proven: no plan on one endless roll takes less than</span>{' '}
          <b>{number('fleet/bound', file.boundMm === null ? '–' : fmt.text(fmt.longLength(file.boundMm)))}</b>
        </span>
        <span>
          <span className="label">Above that</span> <b>{number('fleet/above', gapText(file, fmt))}</b>
          {result?.proven ? ', proven the least' : ''}
        </span>
        {result && (
          <span>
            <span className="label">Becomes pieces</span> <b>{number('fleet/yield', '–')}</b>
          </span>
        )}
        <Cancel row={file} may={mayStart} onAsked={() => void look()} />
        {result && (
          <span className="ms-auto d-flex gap-3">
            <a href={csv()} download={`fleet-${file.id.slice(0, 8)}.csv`}>
              Cut list (CSV)
            </a>
            <a
              href={`data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(result))}`}
              download={`fleet-${file.id.slice(0, 8)}.json`}
            >
              Layout (JSON)
            </a>
          </span>
        )}
      </section>
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
            return (
              <div key={s.id} className="mb-2">
                <b>{s.id}</b>{' '}
                <span className="label">
                  {stock.lot ? `lot ${stock.lot}, ` : ''}
                  {fmt.text(fmt.longLength(s.used_mm))} of {fmt.text(fmt.longLength(stock.length_mm))},{' '}
                  {s.placements.length} pieces
                </span>
                <div className="scroll-x" role="region" tabIndex={0} aria-label={`Pieces on ${s.id}`}>
                  <svg
                    className="daylight"
                    width={Math.min(stock.length_mm, s.used_mm + 300) * PX_PER_MM + 4}
                    height={stock.width_mm * PX_PER_MM + 4}
                    role="img"
                    aria-label={`${s.placements.length} pieces on ${s.id}`}
                  >
                    <rect
                      x={1}
                      y={1}
                      width={Math.min(stock.length_mm, s.used_mm + 300) * PX_PER_MM}
                      height={stock.width_mm * PX_PER_MM}
                      fill="#fbf8ef"
                      stroke="var(--ink)"
                    />
                    {s.placements.map((p) => {
                      const size = sizes.get(p.piece)
                      if (!size) return null
                      const [w, l] =
                        p.turn_deg === 90 ? [size.height_mm, size.width_mm] : [size.width_mm, size.height_mm]
                      const hit = wanted !== '' && p.piece.toLowerCase().includes(wanted)
                      return (
                        <g key={`${p.piece}#${p.copy}`}>
                          <rect
                            x={1 + p.y_mm * PX_PER_MM}
                            y={1 + p.x_mm * PX_PER_MM}
                            width={l * PX_PER_MM}
                            height={w * PX_PER_MM}
                            fill={hit ? 'var(--brass)' : 'var(--soft)'}
                            fillOpacity={hit ? 0.75 : 0.18}
                            stroke="var(--ink)"
                            strokeWidth={0.7}
                          >
                            <title>{`${p.piece}, ${fmt.text(fmt.longLength(p.y_mm))} from the end`}</title>
                          </rect>
                          <Name
                            text={p.piece}
                            x={1 + p.y_mm * PX_PER_MM}
                            y={1 + p.x_mm * PX_PER_MM}
                            width={l * PX_PER_MM}
                            height={w * PX_PER_MM}
                          />
                        </g>
                      )
                    })}
                  </svg>
                </div>
              </div>
            )
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

/** The vehicle's number and the piece, as far as they fit. */
function Name({ text, x, y, width, height }: { text: string; x: number; y: number; width: number; height: number }) {
  const [car = '', piece = ''] = text.split(' / ')
  const number = /^\d+/.exec(car)?.[0] ?? ''
  const label = piece ? `${number} ${piece}` : text
  const room = Math.floor((width - 6) / 5)
  if (height < 11 || room < 3) return null
  return (
    <text x={x + 3} y={y + 10} fontSize={9} style={{ fontStretch: '78%' }} fill="var(--ink)" pointerEvents="none">
      {label.length > room ? `${label.slice(0, room - 1)}…` : label}
    </text>
  )
}
