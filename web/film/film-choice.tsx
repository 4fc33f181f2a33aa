'use client'

import { useState } from 'react'
import { FilterBox } from '@/web/kit/fields'
import { filmFitness } from '@/core/film/fitness'
import type { FilmSheet } from '@/core/film/schema'
import type { Plan } from '@/core/plan/schema'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'
import { findingText } from '@/web/words/sentences'
import { FilmFacts } from './film-facts'

/** The sheet of a film joins the plan when it is chosen, and leaves it when nothing uses it any more. */
export function chooseFilm(plan: Plan, sheet: FilmSheet): Plan {
  const keep = new Set([sheet.id, ...plan.panels.flatMap((p) => (p.filmId ? [p.filmId] : []))])
  return {
    ...plan,
    film: { mainId: sheet.id, sheets: [...plan.film.sheets.filter((s) => keep.has(s.id) && s.id !== sheet.id), sheet] },
  }
}

/** The rack against this vehicle: what fits, what does not, and why not. */
export function FilmChoice() {
  const { plan, catalogue, edit, fmt, mayPlan } = useJob()
  const [open, setOpen] = useState<string | null>(plan.film.mainId)
  const [filter, setFilter] = useState('')
  const chosen = plan.film.sheets.find((s) => s.id === plan.film.mainId)
  const films = [...catalogue.films, ...plan.film.sheets.filter((s) => !catalogue.films.some((f) => f.id === s.id))]
  const rated = films
    .map((film) => ({
      film,
      unfit: filmFitness(film, { ...plan, film: { ...plan.film, mainId: film.id } }, catalogue.now),
    }))
    .filter(({ film }) =>
      `${film.name} ${film.kind} ${film.colour.name} ${film.finish}`
        .toLowerCase()
        .includes(filter.trim().toLowerCase()),
    )
  return (
    <>
      <div className="bench-head">
        <h1>Film</h1>
        <span className="label">{chosen ? `chosen: ${chosen.name}` : 'none chosen yet'}</span>
        <span className="spacer" />
        <FilterBox label="Filter films" width={200} value={filter} onText={setFilter} />
      </div>
      <Findings stage="film" />
      {films.length === 0 && <p className="plate">The rack is empty.</p>}
      <div className="d-grid gap-2">
        {rated.map(({ film, unfit }) => {
          const worst = unfit.some((u) => u.level === 'stop')
            ? 'stop'
            : unfit.some((u) => u.level === 'warn')
              ? 'warn'
              : null
          const isMain = film.id === plan.film.mainId
          return (
            <article
              key={film.id}
              className="plate"
              style={isMain ? { borderColor: 'var(--brass)', borderWidth: 2 } : undefined}
            >
              <div className="d-flex gap-3 align-items-center flex-wrap">
                <span
                  aria-hidden
                  style={{
                    width: 44,
                    height: 44,
                    background: film.colour.hex,
                    border: '1px solid var(--ink)',
                    borderRadius: 2,
                  }}
                />
                <span style={{ minWidth: 200, flex: 1 }}>
                  <b>{film.name}</b>{' '}
                  <span className="label">
                    {word('film', film.kind, fmt.units.locale)}, {film.finish}, {film.colour.name}
                  </span>
                  <br />
                  <span className="label">
                    {fmt.text(fmt.money(film.soldBy.price))}{' '}
                    {film.soldBy.unit === 'roll' || film.soldBy.unit === 'sheet'
                      ? `per ${film.soldBy.unit}`
                      : 'per metre'}{' '}
                    · {film.widthsMm.map((w) => fmt.text(fmt.length(w))).join(', ')} wide
                    {film.directional ? ' · directional' : ''}
                  </span>
                </span>
                <span
                  className="label"
                  style={{ color: worst === 'stop' ? 'var(--stop)' : worst === 'warn' ? 'var(--warn)' : 'var(--good)' }}
                >
                  {worst === 'stop' ? 'Not on this vehicle' : worst === 'warn' ? 'With reservations' : 'Suits'}
                </span>
                <button
                  type="button"
                  className="btn btn-link btn-sm"
                  aria-expanded={open === film.id}
                  onClick={() => setOpen(open === film.id ? null : film.id)}
                >
                  Sheet
                </button>
                {isMain ? (
                  <b style={{ color: 'var(--brass)' }}>Chosen</b>
                ) : (
                  <button
                    type="button"
                    className="btn btn-outline-primary btn-sm"
                    disabled={!mayPlan}
                    onClick={() => edit((p) => chooseFilm(p, film))}
                  >
                    Choose {film.name}
                  </button>
                )}
              </div>
              {unfit.length > 0 && (
                <ul className="mb-0 mt-2 ps-3">
                  {unfit.map((u) => (
                    <li key={u.code} style={{ color: u.level === 'stop' ? 'var(--stop)' : undefined }}>
                      {findingText({ code: u.code, facts: { film: film.name, ...u.facts } }, fmt)}
                    </li>
                  ))}
                </ul>
              )}
              {open === film.id && <FilmFacts film={film} fmt={fmt} />}
            </article>
          )
        })}
      </div>
    </>
  )
}
