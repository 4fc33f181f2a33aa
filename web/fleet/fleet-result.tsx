'use client'

import Link from 'next/link'
import { useEffect, useMemo, useState } from 'react'
import { fleetResult } from '@/web/actions/fleet'
import { call } from '@/web/kit/call'
import { FilterBox } from '@/web/kit/fields'
import { formatter, type Formatter, type MemberUnits } from '@/web/words/format'
import { busy, Cancel, gapText, Progress } from './fleet'

type File = Extract<Awaited<ReturnType<typeof fleetResult>>, { ok: true }>['value']
const LOOK_MS = 1000
const PX_PER_MM = 0.075

/** One layout of a fleet: how far it is, then each roll with what lies on it. */
export function FleetResult({ file: first, units, mayStart }: { file: File; units: MemberUnits; mayStart: boolean }) {
  const fmt = useMemo(() => formatter(units), [units])
  const [file, setFile] = useState(first)
  const [filter, setFilter] = useState('')
  const look = async (id: string) => {
    const out = await call(fleetResult, { id })
    if (out.ok) setFile(out.value)
  }
  const going = busy(file)
  useEffect(() => {
    if (!going) return
    const timer = setInterval(() => void look(first.id), LOOK_MS)
    return () => clearInterval(timer)
  }, [going, first.id])
  const { result, request } = file
  const sizes = useMemo(() => new Map(request.pieces.map((p) => [p.id, p])), [request])
  const used = result?.stock.filter((s) => s.placements.length > 0) ?? []
  const wanted = filter.trim().toLowerCase()
  const csv = () => {
    const rows = used.flatMap((s) => {
      const stock = request.stock.find((x) => x.id === s.id)
      return s.placements.map((p) => [s.id, stock?.lot ?? '', p.piece, p.copy, p.x_mm, p.y_mm, p.turn_deg].map((c) => `"${String(c).replace(/"/g, '""')}"`).join(',')) // prettier-ignore
    })
    return `data:text/csv;charset=utf-8,${encodeURIComponent(['roll,lot,piece,copy,across_mm,along_mm,turn_deg', ...rows].join('\r\n'))}`
  }
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
            {file.usedMm === null ? '–' : fmt.text(fmt.longLength(file.usedMm))}
          </b>
        </span>
        <span>
          <span className="label">Proven: no plan on one endless roll takes less than</span>{' '}
          <b>{file.boundMm === null ? '–' : fmt.text(fmt.longLength(file.boundMm))}</b>
        </span>
        <span>
          <span className="label">Above that</span> <b>{gapText(file, fmt)}</b>
          {result?.proven ? ', proven the least' : ''}
        </span>
        <Cancel row={file} may={mayStart} onAsked={() => void look(file.id)} />
        {result && <Working file={file} fmt={fmt} />}
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
          {result.unplaced.slice(0, 12).map((u) => `${u.piece} (${u.why})`).join(', ')}
          {result.unplaced.length > 12 ? ` and ${result.unplaced.length - 12} more` : ''}. Allow more new rolls, or split what is too wide.
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
                  {fmt.text(fmt.longLength(s.used_mm))} of {fmt.text(fmt.longLength(stock.length_mm))}, {s.placements.length} pieces
                </span>
                <div className="scroll-x" role="region" tabIndex={0} aria-label={`Pieces on ${s.id}`}>
                  <svg width={Math.min(stock.length_mm, s.used_mm + 300) * PX_PER_MM + 4} height={stock.width_mm * PX_PER_MM + 4} role="img" aria-label={`${s.placements.length} pieces on ${s.id}`}>
                    <rect x={1} y={1} width={Math.min(stock.length_mm, s.used_mm + 300) * PX_PER_MM} height={stock.width_mm * PX_PER_MM} fill="#fbf8ef" stroke="var(--ink)" />
                    {s.placements.map((p) => {
                      const size = sizes.get(p.piece)
                      if (!size) return null
                      const [w, l] = p.turn_deg === 90 ? [size.height_mm, size.width_mm] : [size.width_mm, size.height_mm]
                      const hit = wanted !== '' && p.piece.toLowerCase().includes(wanted)
                      return (
                        <g key={`${p.piece}#${p.copy}`}>
                          <rect x={1 + p.y_mm * PX_PER_MM} y={1 + p.x_mm * PX_PER_MM} width={l * PX_PER_MM} height={w * PX_PER_MM} fill={hit ? 'var(--brass)' : 'var(--soft)'} fillOpacity={hit ? 0.75 : 0.18} stroke="var(--ink)" strokeWidth={0.7}>
                            <title>{`${p.piece}, ${fmt.text(fmt.longLength(p.y_mm))} from the end`}</title>
                          </rect>
                          <Name text={p.piece} x={1 + p.y_mm * PX_PER_MM} y={1 + p.x_mm * PX_PER_MM} width={l * PX_PER_MM} height={w * PX_PER_MM} />
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
    </main>
  )
} // prettier-ignore

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

/** How the figures of a result come about. */
function Working({ file, fmt }: { file: File; fmt: Formatter }) {
  const { request, result, boundMm } = file
  if (!result || boundMm === null) return null
  const used = result.stock.filter((s) => s.used_mm > 0)
  const placed = new Map<string, number>()
  for (const p of result.stock.flatMap((s) => s.placements)) placed.set(p.piece, (placed.get(p.piece) ?? 0) + 1)
  const bareMm2 = request.pieces.reduce((sum, p) => sum + (placed.get(p.id) ?? 0) * p.width_mm * p.height_mm, 0)
  const filmMm2 = used.reduce((sum, s) => sum + s.used_mm * (request.stock.find((x) => x.id === s.id)?.width_mm ?? 0), 0)
  const widest = Math.max(...request.stock.map((s) => s.width_mm))
  const long = (mm: number) => fmt.text(fmt.longLength(mm))
  return (
    <details className="w-100 order-last">
      <summary>How these figures come about</summary>
      <dl className="mb-0">
        <dt>Takes</dt>
        <dd>
          On each roll to the far edge of its last piece: {used.map((s) => long(s.used_mm)).join(' + ') || '0'} = {long(result.used_mm)}
        </dd>
        <dt>Proven least</dt>
        <dd>
          A line across the roll never crosses pieces that are wider together than the roll ({fmt.text(fmt.length(widest))}), and each piece is crossed over
          its whole length: by the dearest such lines no plan of these pieces is shorter than {long(boundMm)}. Their bare area alone would fill{' '}
          {long(bareMm2 / widest)}.
        </dd>
        <dt>Above that</dt>
        <dd>
          {long(result.used_mm)} ÷ {long(boundMm)} − 1 = {gapText(file, fmt)}.
          {used.length > 1 ? ` The least is that of one endless roll; ${used.length} rolls have ends of their own.` : ''}
        </dd>
        <dt>Film that becomes pieces</dt>
        <dd>
          {fmt.text(fmt.area(bareMm2))} of {fmt.text(fmt.area(filmMm2))}: {filmMm2 > 0 ? fmt.text(fmt.percent(bareMm2 / filmMm2)) : '–'}
        </dd>
      </dl>
    </details>
  )
} // prettier-ignore
