'use client'

import Button from 'react-bootstrap/Button'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'
import { findingText } from '@/web/words/findings'
import { chooseFilm, chooseFor } from './choose'
import { FilmFacts } from './film-facts'
import { Row } from '@/web/film/fitness-rows'

/** One film against this vehicle, and why. */
export function FitnessRow({
  row: r,
  retired,
  open,
  onOpen,
  scope,
  each,
  columns,
}: {
  row: Row
  retired: readonly string[]
  /** Whether its sheet is shown. */
  open: boolean
  onOpen: () => void
  /** Panels that it is chosen for, where the row is not of one panel. */
  scope: readonly string[]
  each: boolean
  columns: number
}) {
  const { fmt, mayPlan, edit, plan } = useJob('fmt', 'mayPlan', 'edit', 'plan')
  const targets = r.panelId ? [r.panelId] : scope
  // Figures of no panel are no figures.
  const nothing = plan.panels.length === 0
  return (
    <>
      <tr data-chosen={r.chosen} className="film-row">
        <td style={{ minWidth: 170 }}>
          <span className="swatch" style={{ background: r.film.colour.hex }} aria-hidden />
          <b>{r.film.name}</b>
          <br />
          <span className="label">
            {word('film', r.film.kind, fmt.units.locale)}, {word('finish', r.film.finish)}
            {retired.includes(r.film.id) ? ' · no longer sold' : ''}
          </span>{' '}
          <Button
            variant="link"
            size="sm"
            className="p-0"
            aria-expanded={open}
            aria-label={`Sheet of ${r.film.name}`}
            onClick={onOpen}
          >
            Sheet
          </Button>
          <div className="mt-1">
            {r.chosen ? (
              <b style={{ color: 'var(--brass)' }}>Chosen</b>
            ) : (
              <Button
                variant="outline-primary"
                size="sm"
                disabled={!mayPlan}
                aria-label={
                  targets.length === 0
                    ? `Choose ${r.film.name}`
                    : `Use ${r.film.name} on ${r.panelId ? r.panelName : `${targets.length} panels`}`
                }
                onClick={() =>
                  edit((p) => (targets.length === 0 ? chooseFilm(p, r.film) : chooseFor(p, r.film, targets)))
                }
              >
                {targets.length === 0 ? 'Choose' : 'Use here'}
              </Button>
            )}
          </div>
        </td>
        {each && <td>{r.panelName}</td>}
        <td className="text-nowrap">
          <span className="rivet me-1" data-state={RIVET[r.level]} style={{ verticalAlign: '-2px' }} />
          {VERDICT[r.level]}
        </td>
        <td className="n">{nothing ? '–' : <Fig id={r.worstId} among={r.figures} />}</td>
        <td className="n">{nothing ? '–' : r.warranty === null ? 'none' : `${r.warranty} mo`}</td>
        <td className="n">
          {r.contrast === null ? '–' : <Fig id={`fitness/${r.film.id}/contrast`} among={r.figures} />}
        </td>
        <td className="n">{nothing ? '–' : <Fig id={r.costId} among={r.figures} />}</td>
      </tr>
      <tr className="film-why" data-chosen={r.chosen}>
        <td colSpan={columns}>
          {r.reasons.length === 0 ? (
            <span className="label">nothing against it</span>
          ) : (
            <ul className="mb-0 ps-3">
              <Reasons r={r} whole={open} />
              {!open && r.reasons.length > 3 && <li className="label">and {r.reasons.length - 3} more, in Sheet</li>}
            </ul>
          )}
          {open && <FilmFacts film={r.film} fmt={fmt} />}
        </td>
      </tr>
    </>
  )
}

const RIVET = { fits: 'settled', note: 'settled', warn: 'open', stop: 'broken' } as const

const VERDICT = {
  fits: 'Suits',
  note: 'Suits, with notes',
  warn: 'With reservations',
  stop: 'Not as it stands',
} as const

/** What speaks against a film here: the first three, or all. */
function Reasons({ r, whole }: { r: Row; whole: boolean }) {
  const { fmt } = useJob('fmt')
  return (
    <>
      {r.reasons.slice(0, whole ? 99 : 3).map(({ reason, count }) => (
        <li key={reason.code} style={{ color: reason.level === 'stop' ? 'var(--stop)' : undefined }}>
          {findingText(reason, fmt)}
          {count > 1 && (
            <span className="label">
              {' '}
              and {count - 1} more {count === 2 ? 'panel' : 'panels'}
            </span>
          )}
        </li>
      ))}
    </>
  )
}
