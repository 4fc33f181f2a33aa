'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import { cardsOf, currentCard, nextPart, whoIsAt, type Card, type Hands } from '@/core/engines/run-sheet/cards'
import { guardsAfter, guardsBefore, type Guard } from '@/core/engines/run-sheet/guards'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import type { Step } from '@/core/engines/run-sheet/step'
import { numberOf } from '@/core/model/figure/figure'
import type { LogRow } from '@/core/model/log/schema'
import { runningTimers } from '@/core/model/log/timers'
import { useJob } from '@/web/job/job-state'
import { CAUTIONS, stepHint, stepShort, stepTitle } from '@/web/words/steps'
import { GuardDialog } from './guard-dialog'
import { HelpCard } from './help-card'
import { PanelCard } from './panel-card'
import { useGuards } from './use-guards'
import { useHands } from './use-hands'

/** What now: one card with its big act, the next one below it. */
export function NowView({ onHeat }: { onHeat: () => void }) {
  const { reckoning } = useJob('reckoning')
  const hands = useHands()
  const [picked, setPicked] = useState<string | null>(null)
  const [listed, setListed] = useState(false)
  const cards = cardsOf(plannedSteps(reckoning.steps))
  const card = cards.find((c) => c.id === picked) ?? currentCard(cards, hands)
  if (!card) return <p className="fs-3 m-3">Every step is done.</p>
  // What somebody else is at is not what comes next here.
  const next = cards.slice(cards.indexOf(card) + 1).find((c) => c.state !== 'done' && isFree(c, hands))
  const pick = (id: string | null) => {
    setPicked(id)
    setListed(false)
  }
  if (listed) return <CardList cards={cards} current={card} hands={hands} onPick={pick} />
  return (
    <div className="d-flex flex-column gap-2">
      <NowCard key={card.id} card={card} onDone={() => pick(null)} onHeat={onHeat} />
      <div className="bay-next d-flex gap-2">
        <Button
          variant="plain"
          className="flex-fill justify-content-start"
          disabled={!next}
          onClick={() => next && pick(next.id)}
        >
          <span className="label">Next</span> {next ? cardTitle(next) : 'nothing more'}
        </Button>
        <Button variant="plain" onClick={() => setListed(true)}>
          All {cards.filter((c) => c.state === 'done').length}/{cards.length}
        </Button>
      </div>
    </div>
  )
}

const isFree = (card: Card, hands: Hands): boolean => {
  const who = whoIsAt(card, hands)
  return card.state !== 'running' || who === null || who === hands.me
}

const cardTitle = (card: Card): string =>
  card.parts.length > 1 ? (card.parts[0]?.name ?? '') : card.parts[0] ? stepTitle(card.parts[0]) : ''

function CardList({
  cards,
  current,
  hands,
  onPick,
}: {
  cards: readonly Card[]
  current: Card
  hands: Hands
  onPick: (id: string) => void
}) {
  return (
    <ol className="bay-list" aria-label="All steps" tabIndex={0}>
      {cards.map((c) => (
        <li key={c.id}>
          <Button variant="plain" aria-pressed={c.id === current.id} onClick={() => onPick(c.id)}>
            <span
              className="rivet"
              data-state={c.state === 'done' ? 'settled' : c.state === 'running' ? 'open' : 'missing'}
            />
            <span className="flex-fill text-start">{cardTitle(c)}</span>
            <span>
              {c.state === 'to_do' ? '' : c.state}
              {c.state === 'running' && !isFree(c, hands) && `, ${whoIsAt(c, hands)}`}
            </span>
          </Button>
        </li>
      ))}
    </ol>
  )
}

/** The running card: title, its parts to tick, numbers, drawing, cautions, and the act. */
function NowCard({ card, onDone, onHeat }: { card: Card; onDone: () => void; onHeat: () => void }) {
  const { fmt, reckoning } = useJob('fmt', 'reckoning')
  const minutes = numberOf(reckoning.figures.get(`panel/${card.id}/minutes`)) ?? card.parts[0]?.minutes ?? 0
  const part = nextPart(card)
  const shown = part ?? card.parts.at(-1)
  if (!shown) return null
  return (
    <section className="plate now-card" aria-label="Now">
      <div className="now-title">
        <h2>{cardTitle(card)}</h2>
        {card.parts.length > 1 && <Parts card={card} part={part} />}
      </div>
      <div className="d-flex flex-wrap column-gap-3">
        <Big label="Work" text={fmt.text(fmt.minutes(minutes))} />
        <Big label="People" text={String(Math.max(...card.parts.map((p) => p.people)))} />
        {shown.range && (
          <Big label="Surface" text={`${fmt.temp(shown.range.min).text}–${fmt.text(fmt.temp(shown.range.max))}`} />
        )}
        {shown.waitMin > 0 && <Big label="Then wait" text={fmt.text(fmt.minutes(shown.waitMin))} />}
        <HelpCard key={shown.id} step={shown} />
      </div>
      {card.panelId && card.parts.length > 1 ? (
        <PanelCard panelId={card.panelId} />
      ) : (
        <p className="m-0">{stepHint(shown, fmt)}</p>
      )}
      {card.parts.length > 1 && <p className="m-0 small-screens-off">{stepHint(shown, fmt)}</p>}
      <p className="now-caution">{shown.cautions.map((c) => CAUTIONS[c] ?? '').join(' ')}</p>
      <Acts card={card} part={part} onDone={onDone} onHeat={onHeat} />
    </section>
  )
}

/** The parts of a panel's card; each can be ticked by itself. */
function Parts({ card, part }: { card: Card; part: Step | null }) {
  const { log } = useJob('log')
  const finish = useFinish()
  return (
    <div className="parts" role="group" aria-label="Parts">
      {card.parts.map((s) => (
        <Button
          key={s.id}
          variant="plain"
          aria-pressed={s.state === 'done'}
          data-now={s === part}
          onClick={() => {
            if (s.state === 'done') return log({ kind: 'step_done_taken_back', stepId: s.id })
            finish([s])
          }}
        >
          {stepShort(s)} {s.state === 'done' ? '✓' : ''}
        </Button>
      ))}
    </div>
  )
}

/** Logs parts as begun and done, and starts the wait that follows the last of them. */
function useFinish(): (parts: readonly Step[]) => void {
  const { log } = useJob('log')
  return (parts) => {
    for (const s of parts) {
      if (s.startedAt === null) log({ kind: 'step_started', stepId: s.id })
      log({ kind: 'step_done', stepId: s.id })
    }
    const last = parts.at(-1)
    if (last && last.waitMin > 0)
      log({
        kind: 'timer_started',
        timerId: last.id,
        label: `After ${stepTitle(last)}`.slice(0, 120),
        minutes: last.waitMin,
      })
  }
}

/**
 * Start on the left, done on the right: a second tap never falls on the next step's start. What was ticked last can be
 * taken back. What speaks against going on is said, and gone past with a reason.
 */
function Acts({
  card,
  part,
  onDone,
  onHeat,
}: {
  card: Card
  part: Step | null
  onDone: () => void
  onHeat: () => void
}) {
  const { log, reckoning, ledger } = useJob('log', 'reckoning', 'ledger')
  const finish = useFinish()
  const guards = useGuards()
  const [asked, setAsked] = useState<{ guards: readonly Guard[]; go: () => void } | null>(null)
  const last = lastDone(ledger)
  const lastStep = reckoning.steps.find((s) => s.id === last && s.state === 'done')
  const past = (found: readonly Guard[], go: () => void) => (found.length > 0 ? setAsked({ guards: found, go }) : go())
  const start = () => part && past(guardsBefore(part, guards()), () => log({ kind: 'step_started', stepId: part.id }))
  const open = card.parts.filter((s) => s.state !== 'done')
  const done = () =>
    past(
      open.flatMap((s) => guardsAfter(s, guards())),
      () => {
        finish(open)
        onDone()
      },
    )
  const takeBack = (stepId: string) => {
    log({ kind: 'step_done_taken_back', stepId })
    if (runningTimers(ledger).some((t) => t.timerId === stepId)) log({ kind: 'timer_ended', timerId: stepId })
  }
  const heats = part?.code === 'post_heat'
  return (
    <>
      <div className="step-buttons">
        {heats && part.state === 'running' ? (
          <Button variant="outline-light" className="btn-go" onClick={onHeat}>
            Heat and read
          </Button>
        ) : (
          <Button
            variant="outline-light"
            className="btn-go"
            disabled={!part || part.state !== 'to_do' || card.state === 'done'}
            onClick={start}
          >
            Start
          </Button>
        )}
        <Button
          variant="outline-light"
          className={heats && part.state === 'running' ? 'btn-plain done' : 'btn-go'}
          disabled={card.state !== 'running'}
          onClick={done}
        >
          Done
        </Button>
      </div>
      {lastStep && (
        <Button variant="plain" className="align-self-end fs-6" onClick={() => takeBack(lastStep.id)}>
          Not done after all: {stepTitle(lastStep)}
        </Button>
      )}
      {asked && (
        <GuardDialog
          guards={asked.guards}
          onBack={() => setAsked(null)}
          onGoOn={(reason) => {
            for (const { guard, stepId } of asked.guards) log({ kind: 'guard_passed', guard, stepId, reason })
            asked.go()
            setAsked(null)
          }}
        />
      )}
    </>
  )
}

/** The step that was ticked last and stands. */
function lastDone(ledger: readonly LogRow[]): string | null {
  const done: string[] = []
  for (const { payload } of ledger) {
    if (payload.kind === 'step_done') done.push(payload.stepId)
    if (payload.kind === 'step_done_taken_back')
      done.splice(done.lastIndexOf(payload.stepId), done.includes(payload.stepId) ? 1 : 0)
  }
  return done.at(-1) ?? null
}

const Big = ({ label, text }: { label: string; text: string }) => (
  <span>
    <span className="label">{label}</span> <b className="fs-5">{text}</b>
  </span>
)
