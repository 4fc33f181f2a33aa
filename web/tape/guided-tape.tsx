'use client'

import Button from 'react-bootstrap/Button'
import { useMemo, useState } from 'react'
import { parseLength } from '@/core/kit/units'
import type { Plan } from '@/core/model/plan/schema'
import { otherSideId } from '@/core/model/vehicle/mirror'
import { MAX_PANEL_MM, type TIGHTNESS } from '@/core/model/vehicle/schema'
import { answerSeal, answerTape, questionsOf, sameAsOtherSide, type TapeQuestion } from '@/core/stages/tape/tape-answer'
import { tapeList, walkingOrder } from '@/core/stages/tape/tape-list'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { faultText } from '@/web/words/faults'
import { PanelLarge } from './panel-large'
import { questionHint, questionName } from './question-words'
import { Keypad } from './keypad'
import { GuidedAnswers } from './guided-answers'
import { SealAnswers } from './seal-answers'
import { OnceRound } from './once-round'

interface Item {
  panelId: string
  field: string
}

/** One big question at a time round the car: for gloves, one hand and ten seconds. */
export function GuidedTape({
  plan,
  edit,
  fmt,
  onClose,
}: {
  plan: Plan
  edit: (change: (plan: Plan) => Plan) => void
  fmt: Formatter
  onClose: () => void
}) {
  const [most, setMost] = useState(true)
  // The round is fixed when it begins: answers do not reshuffle what is still to come.
  const [round, setRound] = useState(() => roundOf(plan, true))
  const [at, setAt] = useState(0)
  const [typed, setTyped] = useState('')
  const inch = fmt.units.lengthUnit === 'in'
  const item = round[at]
  const panel = item && plan.panels.find((p) => p.id === item.panelId)
  const question =
    panel && questionsOf(panel, { inches: fmt.units.lengthUnit === 'in' }).find((q) => q.field === item.field)
  const twin = panel && plan.panels.find((p) => p.id === otherSideId(panel.id) && p.id !== panel.id)
  const left = useMemo(() => round.slice(at).length, [round, at])

  const begin = (only: boolean) => {
    setMost(only)
    setRound(roundOf(plan, only))
    setAt(0)
    setTyped('')
  }
  const next = () => {
    setTyped('')
    setAt((i) => i + 1)
  }
  const back = () => {
    setTyped('')
    setAt((i) => Math.max(0, i - 1))
  }
  const parsed = typed === '' ? null : parseLength(typed, fmt.units.lengthUnit)
  const zero = question && ['crown', 'crown_down', 'body_line', 'gap'].includes(question.ask)
  const tooBig = parsed?.ok && (parsed.value > MAX_PANEL_MM || (parsed.value <= 0 && !zero))
  const good = parsed?.ok && !tooBig
  const enter = (mm: number) => {
    if (!item) return
    edit((p) => answerTape(p, item.panelId, item.field, mm, question?.overMm ?? null))
    next()
  }
  const feel = (tightness: (typeof TIGHTNESS)[number]) => {
    if (!item) return
    edit((p) => answerSeal(p, item.panelId, item.field, tightness))
    next()
  }
  const sameAsTwin = (panelId: string) => {
    edit((p) => sameAsOtherSide(p, panelId))
    setTyped('')
    setAt((i) => {
      const j = round.findIndex((r, k) => k > i && r.panelId !== panelId)
      return j < 0 ? round.length : j
    })
  }
  const press = (key: string) =>
    setTyped((t) =>
      key === '⌫'
        ? t.slice(0, -1)
        : /^\d+\/\d+$/.test(key)
          ? `${t.replace(/ ?\d+\/\d+$/, '').trim()} ${key}`.trim()
          : t + key,
    )

  if (!item || !panel || !question)
    return (
      <OnceRound
        nothingAsked={round.length === 0}
        most={most}
        more={roundOf(plan, false).length > 0}
        onMore={() => begin(false)}
        onBack={at > 0 ? back : null}
        onClose={onClose}
      />
    )
  return (
    <section
      className="bay guided"
      aria-label="Guided tape"
      onKeyDown={(e) => {
        if (e.target instanceof HTMLButtonElement && (e.key === 'Enter' || e.key === ' ')) return
        if (question.words) return
        if (/^[\d.,/ '"a-z]$/i.test(e.key)) press(e.key)
        else if (e.key === 'Backspace') press('⌫')
        else if (e.key === 'Enter' && good) enter(parsed.value)
      }}
    >
      <div className="d-flex gap-2 align-items-center flex-wrap">
        <span className="label">
          {at + 1} of {round.length}
          {most ? ', what matters most' : ''}
        </span>
        <progress value={at} max={round.length} aria-label={`${left} questions left`} />
        <Button variant="plain" className="ms-auto" onClick={onClose}>
          Leave
        </Button>
      </div>
      <div className="guided-body">
        <div>
          <h2 className="mb-1">{panel.name}</h2>
          <p className="guided-ask" aria-live="polite">
            {questionName(question, fmt)}
          </p>
          <p className="label">{questionHint(question, fmt)}</p>
          <p className="big my-2" data-testid="guided-typed">
            {question.words ? (
              <span className="label">
                {question.words.chosen ? word('tightness', question.words.chosen) : 'nobody looked'}
              </span>
            ) : typed === '' ? (
              <span className="label">
                {question.assumed ? 'assumed' : 'taped'} {fmt.text(fmt.length(question.mm))}
              </span>
            ) : (
              <>
                {typed} <span className="unit">{/[a-z"']/i.test(typed) ? '' : fmt.units.lengthUnit}</span>
              </>
            )}
          </p>
          <p role="status" className="guided-said">
            {parsed && !parsed.ok && parsed.error.code !== 'half_typed'
              ? faultText(parsed.error)
              : tooBig
                ? 'No panel has that size. Check the figure.'
                : good && /[a-z"'/]/i.test(typed)
                  ? `= ${fmt.text(fmt.length(parsed.value))}`
                  : ''}
          </p>
          <div className="guided-drawing">
            <PanelLarge panel={panel} edit={edit} fmt={fmt} disabled only={question.field} />
          </div>
        </div>
        <div>
          {question.words ? (
            <SealAnswers words={question.words} fmt={fmt} onAnswer={feel} />
          ) : (
            <Keypad inch={inch} press={press} />
          )}
          <GuidedAnswers
            good={good ? parsed.value : null}
            enter={enter}
            fmt={fmt}
            question={question}
            twin={twin}
            next={next}
            at={at}
            back={back}
            onTwin={() => sameAsTwin(panel.id)}
          />
        </div>
      </div>
    </section>
  )
}

/** The usual ones until somebody gauges or feels them: asked for by whoever asks for all. */
const LATER: readonly TapeQuestion['ask'][] = ['gap', 'seal']
/** Figures that together hold nine tenths of what is at stake. */
const MOST = 0.9

/** What to ask, in walking order round the car. */
function roundOf(plan: Plan, onlyMost: boolean): Item[] {
  const list = tapeList(plan)
  const total = list.reduce((s, i) => s + i.stakeMm2, 0)
  let run = 0
  const wanted = new Set(
    list
      .filter((i) => {
        const keep = !onlyMost || (i.stakeMm2 > 0 && run < total * MOST)
        run += i.stakeMm2
        return keep
      })
      .map((i) => `${i.panelId}/${i.field}`),
  )
  return walkingOrder(plan.panels.filter((p) => p.wrap)).flatMap((p) =>
    questionsOf(p)
      .filter((q) => wanted.has(`${p.id}/${q.field}`) || (!onlyMost && LATER.includes(q.ask) && q.assumed))
      .map((q) => ({ panelId: p.id, field: q.field })),
  )
}
