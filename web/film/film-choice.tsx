'use client'

import Button from 'react-bootstrap/Button'
import { useState } from 'react'
import { Conditions } from '@/web/conditions/conditions'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { MethodPlate } from '@/web/method/method-plate'
import { SkinPlate } from '@/web/skin/skin-panel'
import { FitnessTable } from './fitness-table'

/** The rack against this vehicle, the method it is laid by, and the air it is laid in. */
export function FilmChoice() {
  const { plan, catalogue } = useJob('plan', 'catalogue')
  const [scope, setScope] = useState<string[]>([])
  const chosen = plan.film.sheets.find((s) => s.id === plan.film.mainId)
  const accents = plan.panels.filter((p) => p.wrap && p.filmId && p.filmId !== plan.film.mainId).length
  // Films that the shop no longer sells stay readable where a job was made with them.
  const own = plan.film.sheets.filter((s) => !catalogue.films.some((f) => f.id === s.id))
  const films = [...catalogue.films, ...own]
  return (
    <>
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Film</h1>
        <span className="label">
          {chosen ? `chosen: ${chosen.name}` : 'none chosen yet'}
          {accents > 0 ? `, ${accents} ${accents === 1 ? 'panel' : 'panels'} in another` : ''}
        </span>
      </div>
      <Findings stage="film" />
      {plan.panels.length > 0 && (
        <>
          <SkinPlate
            layers={['film', 'contrast', 'surface']}
            start="film"
            selected={scope}
            onSelect={setScope}
            height={240}
          />
          <p className="label mt-n2">
            Pick panels (Shift for more) to see and choose films for them alone.{' '}
            {scope.length > 0 && (
              <Button variant="link" size="sm" className="p-0" onClick={() => setScope([])}>
                Back to the whole vehicle
              </Button>
            )}
          </p>
        </>
      )}
      {films.length === 0 ? (
        <p className="plate">The rack is empty.</p>
      ) : (
        <FitnessTable films={films} retired={own.map((s) => s.id)} scope={scope} />
      )}
      <MethodPlate />
      <Conditions />
    </>
  )
}
