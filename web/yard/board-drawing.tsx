'use client'

import { useState, type KeyboardEvent } from 'react'
import type { Bar, Board } from '@/core/engines/schedule/shop-schedule'
import { hoursOf } from '@/core/model/shop/default-shop'
import type { ShopSettings } from '@/core/model/shop/shop'
import { boardMarks, ROW, type BoardMarks } from '@/web/charts/board-marks'
import { useDrag, type Dragged } from '@/web/kit/use-drag'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

const WIDTH = 1180

interface DrawnBoard {
  board: Board
  nameOf: (jobId: string) => string
  shop: ShopSettings
  fmt: Formatter
  from: string
  days: number
  by: 'bay' | 'person'
  now: string
  picked: Bar | null
  onPick: (bar: Bar) => void
  /** Work let go at another moment; absent where nothing may be moved. */
  onMove?: ((bar: Bar, at: string) => void) | undefined
}

/** The board as it is drawn: a column for each day, a row for each bay or person; work can be picked and dragged. */
export function BoardDrawing({ board, nameOf, shop, fmt, from, days, by, now, picked, onPick, onMove }: DrawnBoard) {
  const people = shop.people.map((p) => p.name)
  const hours = hoursOf(shop)
  const marks = boardMarks({ board, hours, from, days, width: WIDTH, by, bays: shop.bays.length, people, now })
  const late = new Set(board.late.map((l) => l.jobId))
  const when = (wall: string) => fmt.text(fmt.wallTime(wall))
  const told = (b: Bar) =>
    [
      `${nameOf(b.jobId)}: ${word('block', b.code)}, ${when(b.from)} to ${when(b.to)}`,
      ...b.people,
      ...(b.pinned ? ['begin is set'] : []),
      ...(b.locked ? ['locked on its run sheet'] : []),
    ].join(', ')
  const rowName = (row: BoardMarks['rows'][number]) =>
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
        <svg viewBox={`0 -22 ${marks.width} ${marks.height + 22}`} role="group" aria-label="Work by day">
          <Days marks={marks} fmt={fmt} />
          {marks.stays.map((s) => (
            <g key={s.jobId} className="stay" data-late={late.has(s.jobId)}>
              <rect x={s.x} y={s.row * ROW + 3} width={s.width} height={ROW - 6} rx={2} />
              <text x={s.x + 5} y={s.row * ROW + 16}>
                {clipped(nameOf(s.jobId), s.width)}
              </text>
            </g>
          ))}
          {marks.bars.map((m) => (
            <WorkBar
              key={m.key}
              mark={m}
              says={told(m.bar)}
              text={by === 'bay' && m.row < marks.rows.length - 1 ? word('block', m.bar.code) : nameOf(m.bar.jobId)}
              isLate={late.has(m.bar.jobId)}
              isPicked={picked?.jobId === m.bar.jobId && picked.code === m.bar.code}
              momentAt={marks.momentAt}
              when={when}
              onPick={() => onPick(m.bar)}
              onMove={onMove && !m.bar.locked && isFirst(board, m.bar) ? (at) => onMove(m.bar, at) : undefined}
            />
          ))}
          {marks.now !== null && <line className="board-now" x1={marks.now} x2={marks.now} y1={-4} y2={marks.height} />}
        </svg>
      </div>
    </div>
  )
}

/** Work on panels is several bars: the first of them is what is set to a moment. */
const isFirst = (board: Board, bar: Bar): boolean =>
  board.bars.every((b) => b.jobId !== bar.jobId || b.code !== bar.code || b.from >= bar.from)

function Days({ marks, fmt }: { marks: BoardMarks; fmt: Formatter }) {
  return (
    <>
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
    </>
  )
}

interface WorkBarProps {
  mark: BoardMarks['bars'][number]
  says: string
  text: string
  isLate: boolean
  isPicked: boolean
  momentAt: BoardMarks['momentAt']
  when: (wall: string) => string
  onPick: () => void
  onMove: ((at: string) => void) | undefined
}

/** One stretch of work: picked by a press, Enter or space; dragged to another moment where it may be. */
function WorkBar({ mark, says, text, isLate, isPicked, momentAt, when, onPick, onMove }: WorkBarProps) {
  const [moved, setMoved] = useState<Dragged | null>(null)
  const ref = useDrag<SVGGElement>({
    enabled: onMove !== undefined,
    onMove: setMoved,
    onEnd: (by) => {
      setMoved(null)
      if (by) onMove?.(momentAt(mark.x + by.dx))
      else onPick()
    },
  })
  const onKey = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return
    event.preventDefault()
    onPick()
  }
  const y = mark.row * ROW
  return (
    <g
      ref={ref}
      className="work"
      data-code={mark.bar.code}
      data-late={isLate}
      data-picked={isPicked || undefined}
      role="button"
      tabIndex={0}
      aria-label={says}
      aria-pressed={isPicked}
      transform={moved ? `translate(${moved.dx} 0)` : undefined}
      style={{ cursor: onMove ? 'grab' : 'pointer', touchAction: onMove ? 'none' : undefined }}
      onClick={onMove ? undefined : onPick}
      onKeyDown={onKey}
    >
      <rect x={mark.x} y={y + 21} width={mark.width} height={ROW - 28} rx={1} />
      {(mark.bar.pinned || mark.bar.locked) && <path className="pin" d={`M${mark.x} ${y + 21}h9l-9 9z`} />}
      <text x={mark.x + 3} y={y + 41}>
        {moved ? when(momentAt(mark.x + moved.dx)) : clipped(text, mark.width)}
      </text>
      <title>{says}</title>
    </g>
  )
}

/** As much of a name as a bar of that width has room for. */
function clipped(text: string, px: number): string {
  const room = Math.floor((px - 6) / 6.2)
  if (room < 3) return ''
  return text.length <= room ? text : `${text.slice(0, room - 1)}…`
}
