'use client'

import Link from 'next/link'
import { useState } from 'react'
import Alert from 'react-bootstrap/Alert'
import Button from 'react-bootstrap/Button'
import Spinner from 'react-bootstrap/Spinner'
import { civilToMinutes, minutesToCivil } from '@/core/kit/civil'
import { localMinutes } from '@/core/kit/time-zone'
import type { Bar, BoardJob, Board as Laid } from '@/core/engines/schedule/shop-schedule'
import { hoursOf, type ShopSettings } from '@/core/model/shop/shop'
import { boardMarks, ROW } from '@/web/charts/board-marks'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { useNow } from '@/web/bay/use-now'
import { useBoard } from './use-board'

export interface BoardRow extends BoardJob {
  name: string
  stage: string
}

const SPANS = { day: 1, week: 7, fortnight: 14 } as const
type Span = keyof typeof SPANS
const STEP_MIN = 1440
const QUARTER_MIN = 15
const WIDTH = 1180
const RESCUE = { one_more_person: 'one more person', one_more_bay: 'one more bay' } as const

/** All jobs by bay or by person, day by day: what is done when and by whom; promises that are not kept come first. */
export function Board({ jobs, shop, fmt }: { jobs: readonly BoardRow[]; shop: ShopSettings; fmt: Formatter }) {
  const ms = useNow(60_000)
  if (ms === null) return null
  const local = localMinutes(new Date(ms).toISOString(), shop.timeZone) ?? 0
  // A board moves on by quarters of an hour.
  const now = minutesToCivil(Math.ceil(local / QUARTER_MIN) * QUARTER_MIN)
  return <BoardAt jobs={jobs} shop={shop} fmt={fmt} now={now} />
}

function BoardAt({
  jobs,
  shop,
  fmt,
  now,
}: {
  jobs: readonly BoardRow[]
  shop: ShopSettings
  fmt: Formatter
  now: string
}) {
  const [span, setSpan] = useState<Span>('week')
  const [by, setBy] = useState<'bay' | 'person'>('bay')
  const [shift, setShift] = useState(0)
  const board = useBoard({ jobs: jobs.map(({ id, outline }) => ({ id, outline })), shop, now })
  const from = minutesToCivil((civilToMinutes(now) ?? 0) + shift * SPANS[span] * STEP_MIN)
  const undated = jobs.filter((j) => j.outline.startAt === null && j.outline.blocks.length > 0)
  return (
    <section className="plate board mb-3" aria-label="Board">
      <div className="d-flex gap-2 align-items-center flex-wrap mb-2">
        <h2 className="h5 mb-0">Board</h2>
        <span className="btn-group" role="group" aria-label="Span">
          {(Object.keys(SPANS) as Span[]).map((s) => (
            <Button key={s} size="sm" variant="outline-secondary" aria-pressed={span === s} onClick={() => setSpan(s)}>
              {s === 'fortnight' ? 'two weeks' : s}
            </Button>
          ))}
        </span>
        <span className="btn-group" role="group" aria-label="Rows">
          {(['bay', 'person'] as const).map((b) => (
            <Button key={b} size="sm" variant="outline-secondary" aria-pressed={by === b} onClick={() => setBy(b)}>
              by {b}
            </Button>
          ))}
        </span>
        <Button size="sm" variant="outline-secondary" aria-label="Earlier" onClick={() => setShift(shift - 1)}>
          ‹
        </Button>
        <Button size="sm" variant="outline-secondary" disabled={shift === 0} onClick={() => setShift(0)}>
          today
        </Button>
        <Button size="sm" variant="outline-secondary" aria-label="Later" onClick={() => setShift(shift + 1)}>
          ›
        </Button>
        <span className="label ms-auto">
          {undated.length > 0 && `${undated.length} without a start: ${undated.map((j) => j.name).join(', ')}`}
        </span>
      </div>
      {board === null ? (
        <p className="mb-0">
          <Spinner size="sm" aria-hidden /> Laying out the shop’s work…
        </p>
      ) : 'code' in board ? (
        <p className="mb-0">{FAULTS[board.code]}</p>
      ) : (
        <>
          <Promises board={board} jobs={jobs} fmt={fmt} />
          <Drawn board={board} jobs={jobs} shop={shop} fmt={fmt} from={from} span={span} by={by} now={now} />
        </>
      )}
    </section>
  )
}

const FAULTS = {
  no_hours: 'The shop is never open: give its hours on the Shop page.',
  nothing_left: 'No job with work left has a start: set one on its run sheet.',
  does_not_fit: 'Some job cannot be laid out with these people and bays. Look at its skills and the shop’s hours.',
} as const

/** Promises that are not kept, and what would keep all of them. */
function Promises({ board, jobs, fmt }: { board: Laid; jobs: readonly BoardRow[]; fmt: Formatter }) {
  if (board.late.length === 0) return null
  const name = (id: string) => jobs.find((j) => j.id === id)?.name ?? id
  return (
    <Alert variant="warning" className="py-2">
      {board.late.map((l) => (
        <div key={l.jobId}>
          <Link href={`/jobs/${l.jobId}/run-sheet`}>{name(l.jobId)}</Link>: promised{' '}
          {fmt.text(fmt.wallTime(l.promisedAt))}, ready {fmt.text(fmt.wallTime(l.readyAt))}.
        </div>
      ))}
      <div>
        {board.rescues.length > 0
          ? `What would keep every promise: ${board.rescues.map((r) => RESCUE[r]).join(', or ')}.`
          : 'Neither one more person nor one more bay keeps every promise: begin earlier, or promise later.'}
      </div>
    </Alert>
  )
}

function Drawn({
  board,
  jobs,
  shop,
  fmt,
  from,
  span,
  by,
  now,
}: {
  board: Laid
  jobs: readonly BoardRow[]
  shop: ShopSettings
  fmt: Formatter
  from: string
  span: Span
  by: 'bay' | 'person'
  now: string
}) {
  const people = shop.people.map((p) => p.name)
  const marks = boardMarks({
    board,
    hours: hoursOf(shop),
    from,
    days: SPANS[span],
    width: WIDTH,
    by,
    bays: shop.bays.length,
    people,
    now,
  })
  const name = (id: string) => jobs.find((j) => j.id === id)?.name ?? id
  const late = new Set(board.late.map((l) => l.jobId))
  const when = (wall: string) => fmt.text(fmt.wallTime(wall))
  const told = (b: Bar) =>
    [`${name(b.jobId)}: ${word('block', b.code)}, ${when(b.from)} to ${when(b.to)}`, ...b.people].join(', ')
  const rowName = (row: (typeof marks.rows)[number]) =>
    row.kind === 'beside'
      ? 'Film bench'
      : row.kind === 'bay'
        ? (shop.bays[row.index]?.name ?? `Bay ${row.index + 1}`)
        : people[row.index]
  return (
    <div className="board-frame">
      <ol className="board-names" aria-hidden>
        {marks.rows.map((r) => (
          <li key={r.key}>{rowName(r)}</li>
        ))}
      </ol>
      <div className="scroll-x">
        <svg
          viewBox={`0 -22 ${marks.width} ${marks.height + 22}`}
          role="img"
          aria-label={board.bars
            .map((b) => `${name(b.jobId)}, ${word('block', b.code)}: ${fmt.text(fmt.wallTime(b.from))}`)
            .slice(0, 24)
            .join('; ')}
        >
          {marks.days.map((d) => (
            <g key={d.date} className="board-day" data-closed={d.closed}>
              <rect x={d.x} y={0} width={d.width} height={marks.height} />
              {d.open.map((o) => (
                <rect key={o.x} className="open" x={o.x} y={0} width={o.width} height={marks.height} />
              ))}
              <text x={d.x + 4} y={-7}>
                {fmt.day(d.date)}
              </text>
            </g>
          ))}
          {marks.rows.map((r) => (
            <line key={r.key} className="board-row" x1={0} x2={marks.width} y1={r.y + ROW} y2={r.y + ROW} />
          ))}
          {marks.stays.map((s) => (
            <g key={s.jobId} className="stay" data-late={late.has(s.jobId)}>
              <rect x={s.x} y={s.row * ROW + 3} width={s.width} height={ROW - 6} rx={2} />
              <text x={s.x + 5} y={s.row * ROW + 16}>
                {clipped(name(s.jobId), s.width)}
              </text>
            </g>
          ))}
          {marks.bars.map((m) => (
            <g key={m.key} className="work" data-code={m.bar.code} data-late={late.has(m.bar.jobId)}>
              <rect x={m.x} y={m.row * ROW + 21} width={m.width} height={ROW - 28} rx={1} />
              <text x={m.x + 3} y={m.row * ROW + 41}>
                {clipped(
                  by === 'bay' && m.row < marks.rows.length - 1 ? word('block', m.bar.code) : name(m.bar.jobId),
                  m.width,
                )}
              </text>
              <title>{told(m.bar)}</title>
            </g>
          ))}
          {marks.now !== null && <line className="board-now" x1={marks.now} x2={marks.now} y1={-4} y2={marks.height} />}
        </svg>
      </div>
    </div>
  )
}

/** As much of a name as a bar of that width has room for. */
function clipped(text: string, px: number): string {
  const room = Math.floor((px - 6) / 6.2)
  if (room < 3) return ''
  return text.length <= room ? text : `${text.slice(0, room - 1)}…`
}
