import { wallOf } from '../../engines/heat/wall'
import type { HeatPoint } from '../../engines/heat/heat-points'
import { paceFor, paceSeconds } from '../../engines/heat/pace'
import type { EdgeDecision } from '../../engines/edge/edge-plan'
import { postHeatMinutes, postHeatWork } from '../../engines/run-sheet/heat-step'
import { PLACE_MIN, PRESSED_MIN_PER_M, PRESS_MIN_PER_M, READ_MIN } from '../../engines/run-sheet/step-data'
import { groupedBy } from '../../kit/grouped'
import type { SolvedHeat } from '../../model/catalogue/solved-heat'
import { keptFor, keptWith } from '../../kit/kept'
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
  sweeps: ReadonlyMap<string, SolvedHeat>
  waiting: ReadonlySet<string>
  points: readonly HeatPoint[]
  pieces: readonly Piece[]
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  guns: ShopSettings['guns']
  edges: readonly EdgeDecision[]
  paceFactor: number
}
type Plan = Extract<SolvedHeat, { kind: 'plan' }>

/**
 * How the gun goes along the edges of each panel: pace, hold, pause and how hot they become, with what they were solved
 * from; how long it moves along all of them, by the solved sweep or the usual pace; and the minutes of it all.
 */
export function heatFigures(given: Given): Figure[] {
  const pointsOf = groupedBy(given.points, (p) => p.panelId)
  const edgesOf = groupedBy(given.edges, (e) => e.panelId)
  const pieceOf = new Map(given.pieces.toReversed().map((p) => [p.id, p]))
  return [...new Set([...pointsOf.keys(), ...edgesOf.keys()])].flatMap((panelId) => {
    const panel = given.panels.get(panelId)
    const [points, edges] = [pointsOf.get(panelId) ?? [], edgesOf.get(panelId) ?? []]
    const piece = pieceOf.get(points[0]?.pieceId ?? edges[0]?.pieceId ?? '')
    const film = given.films.get(piece?.filmId ?? '')
    if (!panel || !film) return []
    return figuresOf(panel, {
      film,
      sweep: given.sweeps.get(panelId),
      guns: given.guns,
      settling: given.waiting.has(panelId),
      // A side that is laid in drops is heated as one: its panels have no minutes of their own.
      pace: piece?.covers ? null : given.paceFactor,
      points: pointsOn(panel, ...points),
      edges: edgesOn(panel, ...edges),
    })
  })
}

// A list with the same things in it is the same list: what was made of it stands.
const pointsOn = keptFor((_: Panel, ...list: HeatPoint[]): readonly HeatPoint[] => list)
const edgesOn = keptFor((_: Panel, ...list: EdgeDecision[]): readonly EdgeDecision[] => list)

interface BesidePanel extends Pick<Given, 'guns' | 'points' | 'edges'> {
  film: FilmSheet
  sweep: SolvedHeat | undefined
  settling: boolean
  /** Of the crew; null where the panel has no minutes of its own. */
  pace: number | null
}

/** The figures of one panel. */
const figuresOf = keptWith(
  (panel: Panel, { film, sweep, guns, settling, pace, points, edges }: BesidePanel): readonly Figure[] => {
    const along = points.filter((p) => p.lengthMm !== null)
    const solved = along.length > 0 && sweep?.kind === 'plan' ? solvedFigures(panel, film, sweep, guns) : []
    const moving = along.length > 0 ? [movingFigure({ panel, points: along, sweep, solved, settling })] : []
    const minutes = pace === null ? [] : minutesFigure({ panel, film, points, sweep, edges }, pace, moving[0])
    return [...solved, ...moving, ...minutes]
  },
)

type PostHeat = Parameters<typeof postHeatWork>[0]

/** The minutes of a panel's post-heat by the rule, part by part. */
function minutesFigure(of: PostHeat, paceFactor: number, moving: Figure | undefined): Figure[] {
  const work = postHeatWork(of)
  if (!work) return []
  const rule = (key: string, value: number, unit: FigureUnit) => input(key, value, unit, 'assumed', 'data/heat')
  const plan = (key: string, value: number, unit: FigureUnit) =>
    input(key, value, unit, 'common_practice', key === 'pressed' ? `panels/${of.panel.id}/edges` : 'points')
  // Minutes for each metre, as the pace that they are.
  const mmS = (minPerM: number) => 1000 / (60 * minPerM)
  const inputs = [
    moving ? from('moving', moving) : plan('moving', 0, 's'),
    rule('slower', work.slower, 'fraction'),
    plan('places', work.places, 'count'),
    rule('place', PLACE_MIN * 60, 's'),
    plan('readings', work.readings, 'count'),
    rule('read', READ_MIN * 60, 's'),
    plan('length', work.alongMm, 'mm'),
    rule('press', mmS(PRESS_MIN_PER_M), 'mm_s'),
    plan('pressed', work.pressedMm, 'mm'),
    rule('plain', mmS(PRESSED_MIN_PER_M), 'mm_s'),
    rule('steam', work.steamMin, 'min'),
    input('crew_pace', paceFactor, 'fraction', 'measured', 'runSheet/paceFactor'),
  ]
  const formula = call('post_heat_for', ...inputs.map((i) => i.key))
  return [
    figure({
      id: `heat/${of.panel.id}/minutes`,
      value: postHeatMinutes(work, paceFactor),
      unit: 'min',
      formula,
      inputs,
    }),
  ]
}

function solvedFigures(panel: Panel, film: FilmSheet, sweep: Plan, guns: Given['guns']): Figure[] {
  const gun = guns.find((g) => g.id === sweep.gun)
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
    figure({
      id: `heat/${panel.id}/${part}`,
      value,
      unit,
      formula,
      inputs,
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
    of('pace', sweep.paceMmS, 'mm_s'),
    of('hold', sweep.holdS, 's'),
    ...(sweep.passes > 1 ? [of('gap', sweep.gapS, 's')] : []),
    of('peak_low', sweep.peakC.min, 'C'),
    of('peak_high', sweep.peakC.max, 'C', limit),
    of('in_band', sweep.inBand, 'fraction'),
  ]
}

/** Each edge is held at its begin, run along from before its begin to past its end, once for each pass. */
const MOVING = '{passes} × ({edges} × {hold} + ({length} + {edges} × ({before} + {past})) ÷ {pace})'
const PAUSES = ' + {edges} × ({passes} − 1) × {gap}'

/** How long the gun moves along the panel's edges, by the sweep that was solved or the usual pace. */
function movingFigure({
  panel,
  points,
  sweep,
  solved,
  settling,
}: Pick<PostHeat, 'panel' | 'points' | 'sweep'> & { solved: readonly Figure[]; settling: boolean }): Figure {
  const lengths = points.map((p) => p.lengthMm ?? 0)
  const { holdS, mmS, passes, gapS, beforeMm, pastMm } = paceFor(panel, sweep, 0)
  const seconds = lengths.reduce((sum, mm) => sum + paceSeconds(paceFor(panel, sweep, mm)), 0)
  const usual = (key: string, value: number, unit: FigureUnit) => input(key, value, unit, 'assumed', 'data/heat')
  const part = (name: 'hold' | 'pace' | 'gap', value: number, unit: FigureUnit) => {
    const known = solved.find((f) => f.id === `heat/${panel.id}/${name}`)
    return known ? from(name, known) : usual(name, value, unit)
  }
  const inputs = [
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
  ]
  const formula = passes > 1 ? MOVING + PAUSES : MOVING
  return figure({ id: `heat/${panel.id}/moving`, value: seconds, unit: 's', formula, inputs, settling })
}
