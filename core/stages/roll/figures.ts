import { groupedBy } from '../../kit/grouped'
import { filmStanding } from '../../model/film/film-data'
import type { FilmLayout } from '../../engines/roll/film-layout'
import type { Purchase } from '../../engines/roll/purchase'
import { buyingFigures } from './buying-figures'
import { restsOf } from '../../engines/roll/rests'
import { areaStanding } from '../../model/vehicle/measure-standing'
import { panelAreaMm2 } from '../../model/vehicle/outline'
import type { Panel } from '../../model/vehicle/schema'
import { figure, from, input, weakest, type Figure, type FigureInput } from '../../model/figure/figure'
import type { FigureId, RollPart } from '../../model/figure/figure-id'
import { call } from '../../model/figure/formula'

/** Figures of one film's layout: film used, bound, yield, reserve, what to order and its price. */
export function filmFigures(layout: FilmLayout, bought: Purchase, panels: ReadonlyMap<string, Panel>): Figure[] {
  const { film } = layout
  const at = (f: string) => `film/${film.id}/${f}`
  const id = (f: RollPart) => `roll/${film.id}/${f}` as const
  // A layout that is kept counts what is cut of it; one laid anew stands beside what was cut before.
  const doneMm = layout.kept === 'current' ? 0 : layout.doneMm
  const used = figure({
    id: id('used'),
    value: layout.usedMm + doneMm,
    unit: 'mm',
    formula:
      doneMm > 0
        ? `{cut_already} + ${layout.rolls.map((_, i) => `{roll_${i + 1}}`).join(' + ') || '0'}`
        : layout.rolls.length > 1
          ? 'Σ inputs'
          : call('far_edge', 'roll_1'),
    inputs: [
      ...(doneMm > 0 ? [input('cut_already', doneMm, 'mm', 'measured', 'log')] : []),
      ...layout.rolls.map((r, i) => input(`roll_${i + 1}`, r.usedMm, 'mm', 'measured', 'layout')),
    ],
    standing: 'common_practice',
  })
  const width = input('width', layout.rollWidthMm, 'mm', filmStanding(film, 'widthsMm'), at('widthsMm'))
  const bound = boundFigure(id('bound'), layout.boundMm, layout.pieces.length, width)
  const laid = input('used', layout.usedMm, 'mm', 'measured', 'layout')
  const above = layout.usedMm > 0 ? [aboveFigure(id('above'), laid, from('bound', bound))] : []
  const area = coveredMm2(layout, panels)
  const film2 = filmAreaMm2(layout)
  const oneWidth = doneMm === 0 && layout.rolls.every((r) => Math.abs(r.widthMm - layout.rollWidthMm) < 1e-6)
  const yieldFigure = figure({
    id: id('yield'),
    value: film2 > 0 ? area / film2 : null,
    unit: 'fraction',
    formula: oneWidth ? '{panels} ÷ ({used} × {width})' : '{panels} ÷ {film}',
    inputs: [
      input('panels', area, 'mm2', weakest(coveredPanels(layout, panels).map((p) => areaStanding(p))), 'panels'),
      ...(oneWidth ? [from('used', used), width] : [input('film', film2, 'mm2', 'measured', 'layout')]),
    ],
  })
  const reserve = reserveFigure(layout)
  return [
    used,
    bound,
    ...above,
    yieldFigure,
    reserve,
    ...buyingFigures({ layout, bought, used, reserve }),
    ...joinFigure(layout),
  ]
}

/** Film that a layout and what was cut before it take, every roll by its own width, mm². */
export const filmAreaMm2 = (layout: FilmLayout): number =>
  layout.rolls.reduce((sum, r) => sum + r.usedMm * r.widthMm, 0) + (layout.kept === 'current' ? 0 : layout.doneMm2)

/** The proven least length of these pieces on one endless roll of this width. */
export const boundFigure = (id: FigureId, boundMm: number, pieces: number, width: FigureInput): Figure =>
  figure({
    id,
    value: boundMm,
    unit: 'mm',
    formula: call('least_length', 'pieces', 'width'),
    inputs: [input('pieces', pieces, 'count', 'measured', 'pieces'), width],
    source: 'docs/sources.md#fekete-schepers-2004, docs/sources.md#scheithauer-1999',
    standing: 'published',
  })

/** What a layout takes above the least there is. */
export const aboveFigure = (id: FigureId, used: FigureInput, bound: FigureInput): Figure => {
  const [u, b] = [Number(used.value), Number(bound.value)]
  return figure({
    id,
    value: b > 0 ? Math.max(0, u / b - 1) : null,
    unit: 'fraction',
    formula: '{used} ÷ {bound} − 1',
    inputs: [used, bound],
  })
}

/** The panels that a layout's pieces cover. */
function coveredPanels(layout: FilmLayout, panels: ReadonlyMap<string, Panel>): Panel[] {
  const ids = new Set(layout.pieces.flatMap((p) => p.covers ?? [p.panelId]))
  return [...ids].flatMap((id) => panels.get(id) ?? [])
}

/** Area of the panels, or of their parts, that this layout and what is cut of it cover, mm². */
function coveredMm2(layout: FilmLayout, panels: ReadonlyMap<string, Panel>): number {
  const placed = new Set(layout.rolls.flatMap((r) => r.placements.map((p) => p.pieceId)))
  if (layout.kept !== 'current') for (const c of layout.cut) if (!layout.spoiled.includes(c)) placed.add(c.id)
  const byPanel = groupedBy(layout.pieces, (p) => p.panelId)
  let sum = 0
  for (const [panelId, pieces] of byPanel) {
    const area = (pieces[0]?.covers ?? [panelId]).reduce((t, id) => {
      const panel = panels.get(id)
      return panel ? t + panelAreaMm2(panel) : t
    }, 0)
    sum += area * (pieces.filter((p) => placed.has(p.id)).length / pieces.length)
  }
  return sum
}

function reserveFigure(layout: FilmLayout): Figure {
  const risky = layout.reserveFor.length > 0
  return figure({
    id: `roll/${layout.film.id}/reserve`,
    value: layout.reserveMm,
    unit: 'mm',
    formula: risky ? call('largest_again', 'again', 'risky') : call('none_risky'),
    inputs: risky
      ? [
          input('risky', layout.reserveFor.length, 'count', 'assumed', 'pieces'),
          input('again', layout.reserveBandsMm.length, 'count', 'assumed', 'layout/reserve'),
        ]
      : [],
  })
}

function joinFigure(layout: FilmLayout): Figure[] {
  if (!layout.join) return []
  return [
    figure({
      id: `roll/${layout.film.id}/join`,
      value: layout.join.lengthMm,
      unit: 'mm',
      formula: layout.join.seams.length > 0 ? 'Σ inputs' : call('meet_nowhere'),
      inputs: layout.join.seams.map((s, i) => input(`edge_${i + 1}`, s.lengthMm, 'mm', 'measured', 'panels')),
      standing: 'common_practice',
    }),
  ]
}

/** What each source of the film takes, costs and leaves. */
export function sourceFigures(layout: FilmLayout): Figure[] {
  const { film } = layout
  return layout.sources.flatMap((s) => {
    const id = (f: RollPart) => `roll/${film.id}/source:${s.id}/${f}` as const
    const used = figure({
      id: id('takes'),
      value: s.usedMm,
      unit: 'mm',
      formula: call('quick_plan', 'pieces', 'width'),
      inputs: [
        input('pieces', layout.pieces.length, 'count', 'measured', 'pieces'),
        input('width', s.widthMm, 'mm', filmStanding(film, 'widthsMm'), `film/${film.id}/widthsMm`),
      ],
      standing: 'common_practice',
    })
    const reserve = input('reserve', layout.reserveMm, 'mm', 'assumed', `figure:roll/${film.id}/reserve`)
    const offered = input(
      'sold',
      film.soldBy.minimumMm,
      'mm',
      filmStanding(film, 'soldBy'),
      `film/${film.id}/${film.offers.length > 0 ? 'offers' : 'soldBy'}`,
    )
    const order = figure({
      id: id('order'),
      value: s.orderMm,
      unit: 'mm',
      formula: s.orderMm > 0 ? call('cheapest_for', 'takes', 'reserve') : call('nothing_to_buy'),
      inputs: s.orderMm > 0 ? [from('takes', used), reserve, offered] : [],
    })
    return [
      used,
      order,
      figure({
        id: id('cost'),
        value: s.cost,
        unit: 'money',
        formula: s.cost > 0 ? call('price_of', 'order') : call('nothing_to_buy'),
        inputs: s.cost > 0 ? [from('order', order)] : [],
      }),
      figure({
        id: id('leaves'),
        value: Math.max(0, s.leavesMm),
        unit: 'mm',
        formula: s.orderMm > 0 ? call('bought_less', 'takes') : call('rolls_less', 'takes'),
        inputs: [from('takes', used)],
      }),
    ]
  })
}

/** Area of each rest worth keeping. */
export const restFigures = (layout: FilmLayout): Figure[] =>
  restsOf(layout).map((r) =>
    figure({
      id: `roll/${layout.film.id}/rest:${r.key}/area`,
      value: r.widthMm * r.lengthMm,
      unit: 'mm2',
      formula: '{across} × {along}',
      inputs: [
        input('across', r.widthMm, 'mm', 'measured', 'layout'),
        input('along', r.lengthMm, 'mm', 'measured', 'layout'),
      ],
    }),
  )

/** What two plans of the same pieces are held against each other by. */
export function compareFigures(layout: FilmLayout): Figure[] {
  const id = (f: RollPart) => `roll/${layout.film.id}/${f}` as const
  const cuts = layout.rolls.map((r, i) => input(`roll_${i + 1}`, r.cutting.cuts.length, 'count', 'measured', 'layout'))
  const rests = restsOf(layout)
  return [
    aboveFigure(
      id('above'),
      input('used', layout.usedMm, 'mm', 'measured', `figure:${id('used')}`),
      input('bound', layout.boundMm, 'mm', 'published', `figure:${id('bound')}`),
    ),
    ...(cuts.some((c) => c.value !== 0)
      ? [
          figure({
            id: id('cuts'),
            value: cuts.reduce((s, c) => s + Number(c.value), 0),
            unit: 'count',
            formula: 'Σ inputs',
            inputs: cuts,
          }),
        ]
      : []),
    figure({
      id: id('rests'),
      value: rests.reduce((s, r) => s + r.widthMm * r.lengthMm, 0),
      unit: 'mm2',
      formula: rests.length > 0 ? 'Σ inputs' : call('no_rests'),
      inputs: rests.map((r) => input(r.key.replace(/\W/g, '_'), r.widthMm * r.lengthMm, 'mm2', 'measured', 'layout')),
    }),
  ]
}
