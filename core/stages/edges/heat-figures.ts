import { wallOf } from '../../engines/heat/edge-heat'
import type { HeatPoint } from '../../engines/heat/heat-points'
import { usualPace } from '../../engines/heat/pace'
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
    if (way?.kind !== 'plan') return [usualMoving(panel, points)]
    const solved = keptFigures(panel, film, way, given.guns)
    return [...solved, solvedMoving(panel, points, way, solved)]
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

/** Each edge is held at its begin, run along from before its begin to past its end, and that as often as there are passes. */
const MOVING = '{passes} × ({edges} × {hold} + ({length} + {edges} × ({before} + {past})) ÷ {pace})'
const PAUSES = ' + {edges} × ({passes} − 1) × {gap}'

const runOf = (points: readonly HeatPoint[]) => ({
  edges: points.length,
  lengthMm: points.reduce((sum, p) => sum + (p.lengthMm ?? 0), 0),
})

function solvedMoving(panel: Panel, points: readonly HeatPoint[], way: Plan, solved: readonly Figure[]): Figure {
  const part = (name: HeatPart) => solved.find((f) => f.id === `heat/${panel.id}/${name}`)
  const take = (name: HeatPart, value: number, unit: FigureUnit) => {
    const known = part(name)
    return known ? from(name, known) : input(name, value, unit, 'assumed', 'shop/guns')
  }
  return moving(panel, points, { ...way, mmS: way.paceMmS }, [
    take('hold', way.holdS, 's'),
    take('pace', way.paceMmS, 'mm_s'),
    ...(way.passes > 1 ? [take('gap', way.gapS, 's')] : []),
  ])
}

function usualMoving(panel: Panel, points: readonly HeatPoint[]): Figure {
  const pace = usualPace(panel, 0)
  return moving(panel, points, pace, [
    input('hold', pace.holdS, 's', 'assumed', 'data/heat'),
    input('pace', pace.mmS, 'mm_s', 'assumed', 'data/heat'),
    ...(pace.passes > 1 ? [input('gap', pace.gapS, 's', 'assumed', 'data/heat')] : []),
  ])
}

interface Run {
  holdS: number
  mmS: number
  passes: number
  gapS: number
  beforeMm: number
  pastMm: number
}

function moving(panel: Panel, points: readonly HeatPoint[], run: Run, told: Figure['inputs']): Figure {
  const { edges, lengthMm } = runOf(points)
  const runMm = lengthMm + edges * (run.beforeMm + run.pastMm)
  const seconds = run.passes * (edges * run.holdS + runMm / run.mmS) + edges * (run.passes - 1) * run.gapS
  return figure(`heat/${panel.id}/moving`, seconds, 's', run.passes > 1 ? MOVING + PAUSES : MOVING, [
    input('passes', run.passes, 'count', 'assumed', 'data/heat'),
    input('edges', edges, 'count', 'common_practice', 'points'),
    input('length', lengthMm, 'mm', 'common_practice', `panels/${panel.id}/edges`),
    input('before', run.beforeMm, 'mm', 'assumed', 'data/heat'),
    input('past', run.pastMm, 'mm', 'assumed', 'data/heat'),
    ...told,
  ])
}
