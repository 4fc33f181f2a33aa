import { type Figure, type FigureInput, input, figure } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Drop } from './drops'
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
    figure({
      id: id('drops'),
      value: drops.length,
      unit: 'count',
      formula: call('fewest_strips', 'printable', 'side', 'overlap'),
      inputs: [width, length, overlap],
    }),
    figure({
      id: id('film'),
      value: filmMm,
      unit: 'mm',
      formula: drops.map((d) => `{drop_${d.number}}`).join(' + '),
      inputs: drops.map((d) => input(`drop_${d.number}`, d.lengthMm, 'mm', 'measured', 'panels')),
    }),
    ...seamsMm.map((mm, i) =>
      figure({
        id: id(`seam-${i + 1}`),
        value: mm,
        unit: 'mm',
        formula: call('best_place', 'printable'),
        inputs: [width],
      }),
    ),
    ...drops.flatMap((d) => sizeOfDrop(d, { of: `drops/${film.id}/${side.side}`, bleed, overlap, bleedMm })),
  ]
}

/** Width and length of one drop. */
function sizeOfDrop(
  d: Drop,
  c: { of: `drops/${string}/${SideDrops['side']}`; bleed: FigureInput; overlap: FigureInput; bleedMm: number },
): Figure[] {
  return [
    figure({
      id: `${c.of}/width-${d.number}`,
      value: d.widthMm,
      unit: 'mm',
      formula: '{to} − {from}',
      inputs: [
        input('to', d.toMm, 'mm', 'measured', 'panels'),
        input('from', d.fromMm, 'mm', 'measured', 'panels'),
        ...(d.fromMm < 0 ? [c.bleed] : []),
        c.overlap,
      ],
    }),
    figure({
      id: `${c.of}/length-${d.number}`,
      value: d.lengthMm,
      unit: 'mm',
      formula: '{side_there} + 2 × {bleed}',
      inputs: [input('side_there', d.lengthMm - 2 * c.bleedMm, 'mm', 'measured', 'panels'), c.bleed],
    }),
  ]
}
