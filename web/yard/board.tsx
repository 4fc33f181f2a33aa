'use client'

import Link from 'next/link'
import { useState } from 'react'
import Alert from 'react-bootstrap/Alert'
import Button from 'react-bootstrap/Button'
import Spinner from 'react-bootstrap/Spinner'
import { boardInput, boardNow } from '@/core/engines/schedule/settled-board'
import { civilToMinutes, minutesToCivil } from '@/core/kit/civil'
import type { Bar, BoardJob, Board as Laid } from '@/core/engines/schedule/shop-schedule'
import type { PinRefusal } from '@/core/engines/schedule/pins'
import type { ShopSettings } from '@/core/model/shop/shop'
import { pinWork } from '@/web/actions/pins'
import { call } from '@/web/kit/call'
import { faultText } from '@/web/words/faults'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { useNow } from '@/web/bay/use-now'
import { BoardDrawing } from './board-drawing'
import { BoardPin } from './board-pin'
import { useBoard, type KeptBoard } from './use-board'

export interface BoardRow extends BoardJob {
  name: string
  stage: string
}

const SPANS = { day: 1, week: 7, fortnight: 14 } as const
type Span = keyof typeof SPANS
const STEP_MIN = 1440
const RESCUE = {
  one_more_person: 'one more person',
  one_more_bay: 'one more bay',
  begin_now: 'the late ones begun at once',
} as const

/** All jobs by bay or by person, day by day: what is done when and by whom; promises that are not kept come first. */
export function Board(given: Omit<BoardProps, 'now'>) {
  const ms = useNow(60_000)
  if (ms === null) return null
  return <BoardAt {...given} now={boardNow(new Date(ms).toISOString(), given.shop.timeZone)} />
}

interface BoardProps {
  /** All of them: what is hidden by a filter takes people and bays all the same. */
  jobs: readonly BoardRow[]
  /** Those that are drawn. */
  shown: ReadonlySet<string>
  shop: ShopSettings
  /** The board as it was laid out behind the screens. */
  settled: KeptBoard | null
  fmt: Formatter
  now: string
  /** Whether work may be set to another moment. */
  mayMove: boolean
}

function BoardAt({ jobs, shown, shop, settled, fmt, now, mayMove }: BoardProps) {
  const [span, setSpan] = useState<Span>('week')
  const [by, setBy] = useState<'bay' | 'person'>('bay')
  const [shift, setShift] = useState(0)
  const { board, isSettled, attempt, restore } = useBoard(boardInput(jobs, shop, now), settled)
  const [picked, setPicked] = useState<Bar | null>(null)
  const [said, setSaid] = useState('')
  const name = (id: string) => jobs.find((j) => j.id === id)?.name ?? id
  const set = async ({ jobId, code }: Bar, at: string | null) => {
    setSaid('')
    setPicked(null)
    if (at !== null) {
      const trial = await attempt({ jobId, pin: { code, at } }).catch(() => null)
      if (!trial) return setSaid(faultText({ code: 'thread_ended' }))
      if (!trial.ok) return setSaid(`${name(jobId)}, ${word('block', code)}: ${REFUSED[trial.why]}`)
    }
    const out = await call(pinWork, { jobId, code, at })
    if (out.ok) return
    // Nothing was kept: the board stands as before.
    restore()
    setSaid(faultText(out.error))
  }
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
          {board !== null && !isSettled && (
            <span className="me-3" title="Laid out quickly; a better one is being looked for">
              settling
            </span>
          )}
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
          {board.broken.map((b) => (
            <Alert key={`${b.jobId}/${b.code}/${b.at}`} variant="warning" className="py-2">
              {name(b.jobId)}: {word('block', b.code)} {b.locked ? 'holds a step that is locked' : 'was set'} to{' '}
              {fmt.text(fmt.wallTime(b.at))}, which these hours, people and bays no longer allow. It is laid out without
              that.
            </Alert>
          ))}
          {said !== '' && (
            <Alert variant="danger" className="py-2" dismissible onClose={() => setSaid('')}>
              {said}
            </Alert>
          )}
          <BoardDrawing
            board={onlyShown(board, shown)}
            nameOf={name}
            shop={shop}
            fmt={fmt}
            from={from}
            days={SPANS[span]}
            by={by}
            now={now}
            picked={picked}
            onPick={setPicked}
            onMove={mayMove ? (bar, at) => void set(bar, at) : undefined}
          />
          {picked && (
            <BoardPin
              key={`${picked.jobId}/${picked.code}/${picked.from}`}
              bar={picked}
              name={name(picked.jobId)}
              fmt={fmt}
              mayMove={mayMove}
              onSet={(at) => void set(picked, at)}
            />
          )}
        </>
      )}
    </section>
  )
}

/** The board with the work of those jobs only; when and by whom it is done hangs on all of them. */
const onlyShown = (board: Laid, shown: ReadonlySet<string>): Laid => ({
  ...board,
  bars: board.bars.filter((b) => shown.has(b.jobId)),
  stays: board.stays.filter((s) => shown.has(s.jobId)),
})

/** Why work cannot begin then. */
const REFUSED: Record<PinRefusal, string> = {
  before_now: 'that moment has passed.',
  before_start: 'the job starts later than that. Change its start on the run sheet.',
  closed_then: 'the shop is closed then.',
  waits_before: 'work of the same job, or a wait after it, is not over by then.',
  others_then: 'people or bays are taken by other work that is set, or by those who are away.',
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
        {board.rescues === null
          ? 'What would keep every promise is being worked out…'
          : board.rescues.length > 0
            ? `What would keep every promise: ${board.rescues.map((r) => RESCUE[r]).join(', or ')}.`
            : 'Neither one more person nor one more bay keeps every promise: begin earlier, or promise later.'}
      </div>
    </Alert>
  )
}
