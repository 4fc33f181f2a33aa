'use client'

import { useEffect, useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { canCut, cutFromId, cutSources, offeredId, stillToCutMm, type CutSource } from '@/core/engines/roll/cut-from'
import { cutEntry, cutKey, cutsMade } from '@/core/engines/roll/cutting'
import type { Cut } from '@/core/engines/roll/cuts'
import type { FilmLayout, RollPlan } from '@/core/engines/roll/film-layout'
import { useJob } from '@/web/job/job-state'
import { StepDrawing } from './cutting-drawing'
import { nameOf } from './roll-name'

/** A second tap within this is the same tap. */
const DOUBLE_TAP_MS = 900

/**
 * One planned roll, cut by cut: what to cut it from, what the tape reads, what comes free; cuts ticked and taken
 * back.
 */
export function CuttingRoll({ layout, roll }: { layout: FilmLayout; roll: RollPlan }) {
  const { ledger, log, fmt, catalogue, mayLog } = useJob('ledger', 'log', 'fmt', 'catalogue', 'mayLog')
  const [look, setLook] = useState<number | null>(null)
  const [chosen, setChosen] = useState<string | null>(null)
  const [resting, setResting] = useState(false)
  useEffect(() => {
    if (!resting) return
    const timer = setTimeout(() => setResting(false), DOUBLE_TAP_MS)
    return () => clearTimeout(timer)
  }, [resting])
  const made = cutsMade(ledger)
  const { cuts } = roll.cutting
  const done = (c: Cut) => made.has(cutKey(layout, roll, c))
  const next = cuts.findIndex((c) => !done(c))
  const at = look ?? (next < 0 ? cuts.length - 1 : next)
  const cut = cuts[at]
  if (!cut) return null
  const sources = cutSources(layout, roll, catalogue.stock, ledger)
  const begun = cutFromId(layout, roll, ledger)
  const stockId = chosen ?? offeredId(layout, roll, catalogue.stock, ledger)
  const source = sources.find((s) => s.item.id === stockId)
  const item = source?.item ?? catalogue.stock.find((s) => s.id === stockId)
  const enough = canCut(cut, item)
  const name = (id: string) => layout.pieces.find((p) => p.id === id)?.name ?? id
  const length = (mm: number) => fmt.text(fmt.longLength(mm))
  const tick = () => {
    if (resting || !stockId) return
    log(cutEntry(layout, roll, cut, stockId))
    setLook(null)
    setResting(true)
  }
  // What was cut later hangs on what was cut before: taken back together, the last one first.
  const back = cuts.slice(at).filter(done)
  const takeBack = () => {
    for (const c of [...back].reverse()) log({ kind: 'cut_taken_back', cutKey: cutKey(layout, roll, c) })
    setLook(null)
    setResting(true)
  }
  const blocked =
    !mayLog || resting || done(cut) || (next >= 0 && at !== next) || (!enough && cut.stage === 1) || !stockId
  return (
    <div className="plate cutting">
      <div className="d-flex gap-3 align-items-baseline flex-wrap">
        <h2 className="mb-0">{nameOf(layout, roll.id)}</h2>
        <span className="label">
          {cuts.filter(done).length} of {cuts.length} cuts made
        </span>
        <span className="ms-auto d-flex gap-2 align-items-center">
          <Form.Label htmlFor={`cut-from-${roll.id}`} className="label mb-0 text-nowrap">
            {begun ? 'Going on from' : 'Cut from'}
          </Form.Label>
          <Form.Select
            id={`cut-from-${roll.id}`}
            aria-label="Cut from"
            value={stockId ?? ''}
            onChange={(e) => setChosen(e.target.value || null)}
          >
            <option value="">pick a roll</option>
            {sources.map((s) => (
              <option key={s.item.id} value={s.item.id}>
                {s.item.label}, lot {s.item.lot}, {length(s.soundMm)}
                {s.fit === 'short' ? ', too short' : ''}
              </option>
            ))}
          </Form.Select>
        </span>
      </div>
      <SourceNotes
        layout={layout}
        roll={roll}
        sources={sources}
        source={source}
        enough={enough}
        switched={begun !== null && stockId !== begun}
      />
      <div className="cutting-step">
        <div>
          <p className="label mb-0">
            Cut {cut.number} of {cuts.length}
            {done(cut) ? ', made' : ''}
          </p>
          <p className="big my-1" data-testid="cut-distance">
            {fmt.length(cut.tapeMm).text} <span className="unit">{fmt.length(cut.tapeMm).unit}</span>
          </p>
          <p className="fs-5 mb-1">
            {cut.runs === 'across' ? 'across' : 'lengthwise'},{' '}
            {cut.stage === 1 ? 'from the end of the roll' : 'from the near edge of the part'}
          </p>
          <p className="mb-2">
            {cut.done.length > 0
              ? `Free after it: ${cut.done.map(name).join(', ')}`
              : cut.pieceIds.length > 0
                ? `Takes off: ${cut.pieceIds.map(name).join(', ')}`
                : 'Takes off a strip that is left over'}
          </p>
        </div>
        <StepDrawing layout={layout} roll={roll} cut={cut} done={done} />
      </div>
      <div className="d-flex gap-2 flex-wrap cutting-buttons">
        <Button variant="outline-light" className="btn-plain" disabled={at === 0} onClick={() => setLook(at - 1)}>
          Before
        </Button>
        <Button variant="outline-light" className="btn-go flex-fill" disabled={blocked} onClick={tick}>
          {next < 0
            ? 'All cuts made'
            : done(cut)
              ? 'Made'
              : at !== next
                ? `Cut ${cuts[next]?.number ?? ''} comes first`
                : 'Cut made'}
        </Button>
        {done(cut) && back.length > 0 && (
          <Button variant="outline-light" className="btn-plain" disabled={!mayLog || resting} onClick={takeBack}>
            {back.length === 1 ? 'Not cut after all' : `Take back the last ${back.length} cuts`}
          </Button>
        )}
        <Button
          variant="outline-light"
          className="btn-plain"
          disabled={at >= cuts.length - 1}
          onClick={() => setLook(at + 1)}
        >
          After
        </Button>
      </div>
    </div>
  )
}

/** What there is to say of the roll that is cut from, before the blade is. */
function SourceNotes({
  layout,
  roll,
  sources,
  source,
  enough,
  switched,
}: {
  layout: FilmLayout
  roll: RollPlan
  sources: readonly CutSource[]
  source: CutSource | undefined
  enough: boolean
  switched: boolean
}) {
  const { ledger, fmt } = useJob('ledger', 'fmt')
  const length = (mm: number) => fmt.text(fmt.longLength(mm))
  const needMm = stillToCutMm(layout, roll, ledger)
  if (needMm === 0) return null
  const notes: string[] = []
  if (sources.length === 0) notes.push('No roll of this film and width is on the rack. Put it there first, then cut.')
  else if (!source)
    notes.push(
      `Still to cut: ${length(needMm)}. No single roll is long enough; pick one to begin with, the rest goes on another.`,
    )
  else if (!enough)
    notes.push(
      `${source.item.label} has ${length(source.soundMm)} of sound film left, too little for this cut. ` +
        'Go on from another roll: choose it above.',
    )
  else if (source.fit === 'short')
    notes.push(
      `${source.item.label} has ${length(source.soundMm)} for ${length(needMm)}: part of the plan has to go on another roll.`,
    )
  else if (source.fit === 'no_reserve')
    notes.push(
      `${source.item.label} holds the plan, but not the ${length(layout.reserveMm)} set aside for pieces done twice.`,
    )
  if (source?.otherLot)
    notes.push(
      `Lot ${source.item.lot} is another than that of the other ` +
        `pieces${switched ? ' cut before' : ''}: shades differ between lots. Keep one colour area in one ` +
        'lot, or look at the shade where they meet.',
    )
  return notes.map((note) => (
    <p key={note} className="caution mb-2">
      {note}
    </p>
  ))
}
