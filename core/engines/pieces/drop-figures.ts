import { type Figure, input, figure } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import { SideDrops } from './side-drops'

/** The figures of the drops of one side, each with its working. */
export function dropFigures(film: FilmSheet, side: SideDrops, plan: Plan): Figure[] {
  if (!side.plan.ok) return []
  const id = (f: string) => `drops/${film.id}/${side.side}/${f}` as const
  const { drops, seamsMm, filmMm } = side.plan.value
  const { bleedMm, printableMm } = plan.layout.drops
  const overlap = input('overlap', film.overlapMm, 'mm', filmStanding(film, 'overlapMm'), `film/${film.id}/overlapMm`)
  const bleed = input('bleed', bleedMm, 'mm', 'common_practice', 'layout/drops')
  const width = input(
    'printable',
    printableMm ?? Math.max(...film.widthsMm) - 2 * plan.layout.trimMm,
    'mm',
    printableMm === null ? filmStanding(film, 'widthsMm') : 'measured',
    printableMm === null ? `film/${film.id}/widthsMm` : 'layout/drops',
  )
  const length = input('side', side.run === 'upright' ? side.sideMm : side.heightMm, 'mm', 'measured', 'panels')
  return [
    figure(id('drops'), drops.length, 'count', call('fewest_strips', 'printable', 'side', 'overlap'), [
      width,
      length,
      overlap,
    ]),
    figure(
      id('film'),
      filmMm,
      'mm',
      drops.map((d) => `{drop_${d.number}}`).join(' + '),
      drops.map((d) => input(`drop_${d.number}`, d.lengthMm, 'mm', 'measured', 'panels')),
    ),
    ...seamsMm.map((mm, i) => figure(id(`seam-${i + 1}`), mm, 'mm', call('best_place', 'printable'), [width])),
    ...drops.flatMap((d) => [
      figure(id(`width-${d.number}`), d.widthMm, 'mm', '{to} − {from}', [
        input('to', d.toMm, 'mm', 'measured', 'panels'),
        input('from', d.fromMm, 'mm', 'measured', 'panels'),
        ...(d.fromMm < 0 ? [bleed] : []),
        overlap,
      ]),
      figure(id(`length-${d.number}`), d.lengthMm, 'mm', '{side_there} + 2 × {bleed}', [
        input('side_there', d.lengthMm - 2 * bleedMm, 'mm', 'measured', 'panels'),
        bleed,
      ]),
    ]),
  ]
}
