'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { CHROME_CLASS } from '@/core/model/film/film-data'
import type { HeatPoint } from '@/core/engines/heat/heat-points'
import { suspicionOf, type Suspicion } from '@/core/engines/heat/suspicion'
import { isDone, readingVerdict, type Verdict } from '@/core/engines/heat/verdict'
import { parseTemp } from '@/core/kit/units'
import { useJob } from '@/web/job/job-state'
import { serverNow } from '@/web/kit/clock'
import { faultText } from '@/web/words/faults'
import { word } from '@/web/words/names'
import { SUSPICION } from '@/web/words/trouble'
import { Keypad } from './keypad'
import { ThermometerLine } from './thermometer-line'
import { useHasThermometer, useThermometer } from './use-thermometer'
import type { StatedPoint } from './stated-point'

/** What was read last stays in sight when the next place comes. */
export interface LastReading {
  c: number
  verdict: Verdict
}

/** The thermometer while one panel is read: switched on, and looking at tape or spray where the film is a mirror. */
export interface Instrument {
  scene: string | null
  dulled: boolean
}

/** The thermometer's figure for one place or several in a sweep; whether the gun was away is said, never assumed. */
export function Reading({
  points,
  title,
  state: { state, until },
  awaySince,
  instrument,
  last,
  onInstrument,
  onLast,
  onPace,
  onNext,
}: {
  points: readonly HeatPoint[]
  title: string
  state: StatedPoint
  awaySince: number | null
  instrument: Instrument
  last: LastReading | null
  onInstrument: (next: Instrument) => void
  onLast: (last: LastReading) => void
  onPace: () => void
  onNext: () => void
}) {
  const { fmt, log, reckoning } = useJob('fmt', 'log', 'reckoning')
  const hasThermometer = useHasThermometer()
  const { scene, dulled } = instrument
  const thermometer = useThermometer(scene)
  const [text, setText] = useState('')
  const [doubt, setDoubt] = useState<{ c: number; gunAway: boolean; why: Suspicion } | null>(null)
  const [point] = points
  if (!point) return null
  const film = reckoning.parts.films.get(reckoning.laid.find((p) => p.id === point.pieceId)?.filmId ?? '')
  const read = parseTemp(text, fmt.units.tempUnit)
  const c = read.ok && read.value >= -40 && read.value <= 400 ? Math.round(read.value * 10) / 10 : null
  const keep = (tempC: number, gunAway: boolean) => {
    for (const p of points) log({ kind: 'reading', pieceId: p.pieceId, pointId: p.id, tempC, gunAway })
    const verdict = readingVerdict({ tempC, gunAway }, point)
    onLast({ c: tempC, verdict })
    setText('')
    setDoubt(null)
    // A reading that counts moves on to the next place; too cool or too hot stays here.
    if (isDone(verdict)) onNext()
  }
  const enter = (gunAway: boolean, shown = c) => {
    const c = shown
    if (c === null || !film) return
    const newest = point.readings.at(-1)
    const before = newest ? { tempC: newest.tempC, seconds: (serverNow() - Date.parse(newest.at)) / 1000 } : null
    const secondsAway = awaySince === null ? null : (serverNow() - awaySince) / 1000
    const why = suspicionOf({ tempC: c, gunAway, secondsAway, before, film, dulled })
    return why ? setDoubt({ c, gunAway, why }) : keep(c, gunAway)
  }
  const mirror = film !== undefined && CHROME_CLASS.includes(film.kind)
  /** Switched on as things stand: the place as the band wants it, the gun away since the pacer ended. */
  const switchOn = (isDulled = dulled) => {
    const away = awaySince === null ? -1 : (serverNow() - awaySince) / 1000
    const query = new URLSearchParams({
      film: String(point.range.min + (point.range.max - point.range.min) * 0.6),
      away: away.toFixed(1),
      mirror: String(mirror),
      dulled: String(isDulled),
    })
    onInstrument({ scene: `/api/thermometer?${query.toString()}`, dulled: isDulled })
  }
  if (doubt)
    return (
      <Doubt
        temp={fmt.text(fmt.temp(doubt.c))}
        why={doubt.why}
        isInstrument={thermometer !== null}
        onAgain={() => {
          setDoubt(null)
          setText('')
        }}
        onKeep={() => keep(doubt.c, doubt.gunAway)}
        onTape={() => {
          if (thermometer !== null) {
            setDoubt(null)
            return switchOn(true)
          }
          onInstrument({ ...instrument, dulled: true })
          keep(doubt.c, doubt.gunAway)
        }}
      />
    )
  return (
    <div className="bay-reading d-flex flex-column gap-2 min-h-0">
      <ReadingLine
        title={title}
        note={[
          `${word('pointState', state)}${until && state === 'due' ? ` until ${fmt.clock(until)}` : ''}`,
          ...(mirror && dulled ? ['read on tape'] : []),
        ].join(', ')}
        unit={fmt.units.tempUnit}
        text={text}
        isWrong={text !== '' && c === null}
        onText={setText}
        onEnter={() => enter(true)}
      />
      {text !== '' && c === null ? (
        <p className="reading-said verdict" role="alert" data-verdict="too_hot">
          {read.ok ? 'Between −40 and 400 °C.' : faultText(read.error, fmt)}
        </p>
      ) : (
        <p className="reading-said verdict" role="status" data-verdict={last?.verdict ?? 'none'}>
          {last
            ? `${fmt.text(fmt.temp(last.c))}: ${word('verdict', last.verdict)}`
            : awaySince !== null
              ? 'Gun away: wait, then read.'
              : '\u00a0'}
        </p>
      )}
      {thermometer ? (
        <ThermometerLine
          state={thermometer}
          fmt={fmt}
          onTake={(tempC) => enter(true, tempC)}
          onOff={() => onInstrument({ ...instrument, scene: null })}
        />
      ) : (
        <Keypad
          onDigit={(d) => setText((t) => (t.length < 5 ? t + d : t))}
          onBack={() => setText((t) => t.slice(0, -1))}
        />
      )}
      <div className="reading-acts">
        <Button variant="plain" onClick={onPace}>
          Pace the gun
        </Button>
        {hasThermometer && thermometer === null && (
          <Button variant="plain" onClick={() => switchOn()}>
            Thermometer
          </Button>
        )}
        <Button variant="plain" disabled={c === null} onClick={() => enter(false)}>
          Gun still on
        </Button>
        <Button variant="go" className="btn-go" disabled={c === null} onClick={() => enter(true)}>
          Gun away: log
        </Button>
      </div>
    </div>
  )
}

/** Which place is read, and the figure as it is typed. */
function ReadingLine({
  title,
  note,
  unit,
  text,
  isWrong,
  onText,
  onEnter,
}: {
  title: string
  note: string
  unit: string
  text: string
  isWrong: boolean
  onText: (text: string) => void
  onEnter: () => void
}) {
  return (
    <div className="reading-line">
      <span>
        <b>{title}</b> <span className="label">{note}</span>
      </span>
      <Form.Control
        className="big"
        aria-label={`Thermometer, °${unit}`}
        inputMode="none"
        autoComplete="off"
        maxLength={8}
        placeholder={`°${unit}`}
        value={text}
        aria-invalid={isWrong ? true : undefined}
        onChange={(e) => onText(e.target.value)}
        onKeyDown={(e) => e.key === 'Enter' && onEnter()}
      />
    </div>
  )
}

/** A reading that cannot be, or hardly: read again, or it counts all the same. */
function Doubt({
  temp,
  why,
  isInstrument,
  onAgain,
  onKeep,
  onTape,
}: {
  temp: string
  why: Suspicion
  /** The thermometer is switched on: it reads again by itself. */
  isInstrument: boolean
  onAgain: () => void
  onKeep: () => void
  /** A mirror is read on tape or spray. */
  onTape: () => void
}) {
  return (
    <div className="plate bay-doubt" role="alertdialog" aria-label="Is that so?">
      <p className="fs-4">
        {temp}? {SUSPICION[why]}
      </p>
      <div className="step-buttons">
        <Button variant="go" className="btn-go" onClick={onAgain}>
          Read again
        </Button>
        {why === 'mirror_reflects' ? (
          <Button variant="plain" onClick={onTape}>
            {isInstrument ? 'Tape is on: read again' : 'Read on tape: log it'}
          </Button>
        ) : (
          <Button variant="plain" onClick={onKeep}>
            Log it all the same
          </Button>
        )}
      </div>
    </div>
  )
}
