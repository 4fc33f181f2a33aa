import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Price } from '../../model/finding/price'
import { figure, from, input, type Figure } from '../../model/figure/figure'
import type { FigureId, WayOutPart } from '../../model/figure/figure-id'
import { call } from '../../model/figure/formula'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel } from '../../model/vehicle/schema'
import type { SolvedWayOut } from '../../engines/stretch/way-candidates'

/** Names of a way's figures: `way/<panel>/<n>/worst`, `over`, `seam`, `film`, `minutes`. */
export const wayOutFigureId = (panelId: string, n: number | 'now', part: WayOutPart) =>
  `way/${panelId}/${n}/${part}` as const

/**
 * The figures of a way out with their working. `n` numbers it in its table, or says that it is the panel as it is now;
 * `now` is that panel; `used` and `crew` are the job's film and minutes as they stood when the price was reckoned,
 * which
 * it is the difference to.
 */
export function wayOutFigures({
  panel,
  film,
  way,
  n,
  now,
  price,
  used,
  crew,
}: {
  panel: Panel
  film: FilmSheet
  way: SolvedWayOut
  n: number | 'now'
  now: SolvedWayOut | null
  price: Price | null
  used: Figure | undefined
  crew: Figure | undefined
}): Figure[] {
  const id = (part: WayOutPart) => wayOutFigureId(panel.id, n, part)
  const standing = 'common_practice' as const
  // Another film has its own limit.
  const own = way.change.kind === 'film' ? way.change.sheet : film
  const count = input('triangles', way.triangles, 'count', 'measured', 'data/mesh')
  const bears = filmStanding(own, 'stretchLimit')
  const limit = input('limit', own.stretchLimit, 'fraction', bears, `film/${own.id}/stretchLimit`)
  const most = { value: own.stretchLimit, unit: 'fraction', kind: 'max', standing: bears, at: limit.at } as const
  const worst = figure({
    id: id('worst'),
    value: way.worst,
    unit: 'fraction',
    formula:
      n === 'now' ? call('worst_as_is', 'triangles') : call('worst_with_it', 'triangles', ...(now ? ['as_it_is'] : [])),
    inputs: [count, ...(now ? [input('as_it_is', now.worst, 'fraction', standing, 'data/mesh')] : [])],
    limit: most,
    standing,
  })
  const out = [
    worst,
    figure({
      id: id('over'),
      value: way.overLimitMm2,
      unit: 'mm2',
      formula: call('area_past', 'limit'),
      inputs: [limit, from('worst', worst)],
      standing,
    }),
  ]
  if (way.seamMm > 0) out.push(seamFigure(id('seam'), panel, way))
  if (price && used) out.push(moreThan(id('film'), 'mm', price.filmMm, used))
  if (price && crew) out.push(moreThan(id('minutes'), 'min', price.minutes, crew))
  return out
}

/** What a way out adds to a figure of the job. */
const moreThan = (id: FigureId, unit: 'mm' | 'min', more: number, as: Figure): Figure =>
  figure({
    id,
    value: more,
    unit,
    formula: '{with_it} − {now}',
    inputs: [input('with_it', Number(as.value) + more, unit, as.standing, 'reckoned'), from('now', as)],
  })

/** Seam to be made: along the divisions, along the cuts, and round what is inlaid. */
function seamFigure(id: FigureId, panel: Panel, { change, seamMm }: SolvedWayOut): Figure {
  const side = (key: 'widthMm' | 'heightMm') =>
    input('side', panel[key], 'mm', measureStanding(panel, key), `panels/${panel.id}/${key}`)
  if (change.kind === 'recess') {
    const recess = panel.recesses.find((r) => r.id === change.recessId)
    const mouth = (key: string, field: 'mouthWidthMm' | 'mouthHeightMm') =>
      input(
        key,
        recess?.[field] ?? 0,
        'mm',
        measureStanding(panel, `recesses.${change.recessId}.${field}`),
        `panels/${panel.id}/recesses/${change.recessId}/${field}`,
      )
    return figure({
      id,
      value: seamMm,
      unit: 'mm',
      formula: '2 × ({mouth_width} + {mouth_height})',
      inputs: [mouth('mouth_width', 'mouthWidthMm'), mouth('mouth_height', 'mouthHeightMm')],
    })
  }
  const set = change.kind === 'piece' ? change.set : {}
  const divisions = (set.parts ?? 1) - 1
  const cuts = (set.slits ?? []).map((s, i) =>
    input(
      `cut_${i + 1}`,
      Math.hypot(s.toXMm - s.fromXMm, s.toYMm - s.fromYMm),
      'mm',
      'common_practice',
      `pieces/${panel.id}/slits`,
    ),
  )
  const terms = [...(divisions > 0 ? ['{divisions} × {side}'] : []), ...cuts.map((c) => `{${c.key}}`)].join(' + ')
  const own =
    divisions > 0
      ? [
          input('divisions', divisions, 'count', 'common_practice', `pieces/${panel.id}/parts`),
          side(set.along === 'width' ? 'heightMm' : 'widthMm'),
        ]
      : []
  return figure({ id, value: seamMm, unit: 'mm', formula: terms, inputs: [...own, ...cuts] })
}
