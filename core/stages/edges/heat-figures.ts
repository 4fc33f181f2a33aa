import { wallOf } from '../../engines/heat/edge-heat'
import type { HeatPoint } from '../../engines/heat/heat-points'
import { paceFor, paceSeconds } from '../../engines/heat/pace'
import type { SolvedHeat } from '../../model/catalogue/solved-heat'
import { keptFor } from '../../kit/kept'
import { figure, from, input, type Figure, type FigureUnit } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import type { HeatPart } from '../../model/figure/figure-id'
import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import { ROOM } from '../../model/heat/heat-data'
import type { ShopSettings } from '../../model/shop/shop'
import type { Panel } from '../../model/vehicle/schema'
import type { Piece } from '../../engines/pieces/pieces'

interface Given {
  ways: ReadonlyMap<string, SolvedHeat>
  points: readonly HeatPoint[]
  pieces: readonly Piece[]
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  guns: ShopSettings['guns']
}
type Plan = Extract<SolvedHeat, { kind: 'plan' }>

/**
 * How the gun goes along the edges of each panel: pace, hold, pause and how hot they become, with what they were solved
 * from; and how long it moves along all of them, by the solved way or the usual one.
 */
export function heatFigures(given: Given): Figure[] {
  const along = new Map<string, HeatPoint[]>()
  for (const p of given.points) if (p.lengthMm !== null) along.set(p.panelId, [...(along.get(p.panelId) ?? []), p])
  return [...along].flatMap(([panelId, points]) => {
    const panel = given.panels.get(panelId)
    const film = given.films.get(given.pieces.find((p) => p.id === points[0]?.pieceId)?.filmId ?? '')
    if (!panel || !film) return []
    const way = given.ways.get(panelId)
    const solved = way?.kind === 'plan' ? keptFigures(panel, film, way, given.guns) : []
    return [...solved, movingFigure(panel, points, way, solved)]
  })
}

function solvedFigures(panel: Panel, film: FilmSheet, way: Plan, guns: Given['guns']): Figure[] {
  const gun = guns.find((g) => g.id === way.gun)
  if (!gun) return []
  const wallMm = (wallOf(panel.surface, film)[1]?.thicknessM ?? 0) * 1000
  const ofFilm = (key: string, value: number, unit: FigureUnit, field: 'postHeatC' | 'heatLimitC' | 'thicknessUm') =>
    input(key, value, unit, filmStanding(film, field), `film/${film.id}/${field}`)
  const isKnown = panel.surface.thicknessMm !== null && panel.surface.material !== 'unknown'
  const inputs = [
    input('air', gun.airC, 'C', 'measured', 'shop/guns'),
    input('transfer', gun.coefficient, 'w_m2k', 'measured', 'shop/guns'),
    input('footprint', gun.sigmaMm, 'mm', 'measured', 'shop/guns'),
    ofFilm('film', film.thicknessUm / 1000, 'mm', 'thicknessUm'),
    input('wall', wallMm, 'mm', isKnown ? 'measured' : 'assumed', `panels/${panel.id}/surface`),
    input('room', ROOM.airC, 'C', 'assumed', 'data/room'),
    ofFilm('low', film.postHeatC.min, 'C', 'postHeatC'),
    ofFilm('high', film.postHeatC.max, 'C', 'postHeatC'),
    ofFilm('limit', film.heatLimitC, 'C', 'heatLimitC'),
  ]
  const formula = call('gun_solved', ...inputs.map((i) => i.key))
  const of = (part: HeatPart, value: number, unit: FigureUnit, limit: Figure['limit'] = null) =>
    figure(`heat/${panel.id}/${part}`, value, unit, formula, inputs, {
      limit,
      standing: 'assumed',
      source: 'sources#incropera-dewitt',
    })
  const limit = {
    value: film.heatLimitC,
    unit: 'C' as const,
    kind: 'max' as const,
    standing: filmStanding(film, 'heatLimitC'),
    at: `film/${film.id}/heatLimitC`,
  }
  return [
    of('pace', way.paceMmS, 'mm_s'),
    of('hold', way.holdS, 's'),
    ...(way.passes > 1 ? [of('gap', way.gapS, 's')] : []),
    of('peak_low', way.peakC.min, 'C'),
    of('peak_high', way.peakC.max, 'C', limit),
    of('in_band', way.inBand, 'fraction'),
  ]
}

const keptFigures = keptFor(solvedFigures)

/** Each edge is held at its begin, run along from before its begin to past its end, once for each pass. */
const MOVING = '{passes} × ({edges} × {hold} + ({length} + {edges} × ({before} + {past})) ÷ {pace})'
const PAUSES = ' + {edges} × ({passes} − 1) × {gap}'

/** How long the gun moves along the panel's edges, by the way that was solved or the usual one. */
function movingFigure(
  panel: Panel,
  points: readonly HeatPoint[],
  way: SolvedHeat | undefined,
  solved: readonly Figure[],
): Figure {
  const lengths = points.map((p) => p.lengthMm ?? 0)
  const { holdS, mmS, passes, gapS, beforeMm, pastMm } = paceFor(panel, way, 0)
  const seconds = lengths.reduce((sum, mm) => sum + paceSeconds(paceFor(panel, way, mm)), 0)
  const usual = (key: string, value: number, unit: FigureUnit) => input(key, value, unit, 'assumed', 'data/heat')
  const part = (name: 'hold' | 'pace' | 'gap', value: number, unit: FigureUnit) => {
    const known = solved.find((f) => f.id === `heat/${panel.id}/${name}`)
    return known ? from(name, known) : usual(name, value, unit)
  }
  return figure(`heat/${panel.id}/moving`, seconds, 's', passes > 1 ? MOVING + PAUSES : MOVING, [
    usual('passes', passes, 'count'),
    input('edges', lengths.length, 'count', 'common_practice', 'points'),
    input(
      'length',
      lengths.reduce((sum, mm) => sum + mm, 0),
      'mm',
      'common_practice',
      `panels/${panel.id}/edges`,
    ),
    usual('before', beforeMm, 'mm'),
    usual('past', pastMm, 'mm'),
    part('hold', holdS, 's'),
    part('pace', mmS, 'mm_s'),
    ...(passes > 1 ? [part('gap', gapS, 's')] : []),
  ])
}
