'use client'

import Button from 'react-bootstrap/Button'
import { useState } from 'react'
import { parseLength } from '@/core/kit/units'
import type { Plan } from '@/core/model/plan/schema'
import { otherSideId } from '@/core/model/vehicle/mirror'
import { MAX_PANEL_MM, type TIGHTNESS } from '@/core/model/vehicle/kinds'
import type { Panel } from '@/core/model/vehicle/schema'
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
import '@/web/kit/gloves.scss'

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
  const [typed, setTyped] = useState('')
  const { most, round, at, begin, go, pastPanel } = useRound(plan, () => setTyped(''))
  const inch = fmt.units.lengthUnit === 'in'
  const item = round[at]
  const panel = item && plan.panels.find((p) => p.id === item.panelId)
  const question = panel && questionsOf(panel, { inches: inch }).find((q) => q.field === item.field)
  const twin = panel && plan.panels.find((p) => p.id === otherSideId(panel.id) && p.id !== panel.id)
  const parsed = typed === '' ? null : parseLength(typed, fmt.units.lengthUnit)
  const tooBig = parsed?.ok && isNoSize(parsed.value, question)
  const good = parsed?.ok && !tooBig
  const enter = (mm: number) => {
    if (!item) return
    edit((p) => answerTape(p, item.panelId, item.field, mm, question?.overMm ?? null))
    go(1)
  }
  const feel = (tightness: (typeof TIGHTNESS)[number]) => {
    if (!item) return
    edit((p) => answerSeal(p, item.panelId, item.field, tightness))
    go(1)
  }
  const sameAsTwin = (panelId: string) => {
    edit((p) => sameAsOtherSide(p, panelId))
    pastPanel(panelId)
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
        onBack={at > 0 ? () => go(-1) : null}
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
        <progress value={at} max={round.length} aria-label={`${round.length - at} questions left`} />
        <Button variant="plain" className="ms-auto" onClick={onClose}>
          Leave
        </Button>
      </div>
      <div className="guided-body">
        <div>
          <GuidedFace
            panel={panel}
            question={question}
            fmt={fmt}
            typed={typed}
            said={
              parsed && !parsed.ok && parsed.error.code !== 'half_typed'
                ? faultText(parsed.error)
                : tooBig
                  ? 'No panel has that size. Check the figure.'
                  : good && /[a-z"'/]/i.test(typed)
                    ? `= ${fmt.text(fmt.length(parsed.value))}`
                    : ''
            }
          />
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
            next={() => go(1)}
            at={at}
            back={() => go(-1)}
            onTwin={() => sameAsTwin(panel.id)}
          />
        </div>
      </div>
    </section>
  )
}

/** What is asked of which panel, and what is typed of it. */
function GuidedFace({
  panel,
  question,
  fmt,
  typed,
  said,
}: {
  panel: Panel
  question: TapeQuestion
  fmt: Formatter
  typed: string
  said: string
}) {
  return (
    <>
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
        {said}
      </p>
    </>
  )
}

/** What may be nothing at all. */
const MAY_BE_ZERO: readonly TapeQuestion['ask'][] = ['crown', 'crown_down', 'body_line', 'gap']
const isNoSize = (mm: number, question: TapeQuestion | undefined): boolean =>
  mm > MAX_PANEL_MM || (mm <= 0 && !(question && MAY_BE_ZERO.includes(question.ask)))

/** The round as it was when it began: answers do not reshuffle what is still to come. `moved`: at each step of it. */
function useRound(plan: Plan, moved: () => void) {
  const [most, setMost] = useState(true)
  const [round, setRound] = useState(() => roundOf(plan, true))
  const [at, setAt] = useState(0)
  const begin = (only: boolean) => {
    setMost(only)
    setRound(roundOf(plan, only))
    setAt(0)
    moved()
  }
  const go = (by: number) => {
    moved()
    setAt((i) => Math.max(0, i + by))
  }
  /** To the first question of another panel. */
  const pastPanel = (panelId: string) => {
    moved()
    setAt((i) => {
      const j = round.findIndex((r, k) => k > i && r.panelId !== panelId)
      return j < 0 ? round.length : j
    })
  }
  return { most, round, at, begin, go, pastPanel }
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
