import { EDGE_RULES } from '../../model/edge/edge-data'
import type { FilmSheet } from '../../model/film/schema'
import type { LogRow } from '../../model/log/schema'
import { heatVerdict, isDone, type Verdict } from './verdict'
import { reaches, type Piece } from '../pieces/pieces'
import type { Panel } from '../../model/vehicle/schema'

/** A place that needs a reading after post-heat. */
export interface HeatPoint {
  id: string
  pieceId: string
  panelId: string
  kind: 'edge' | 'recess' | 'area' | 'overlap'
  /** Which edge or recess. */
  name: string
  range: { min: number; max: number }
  /** Hotter than this the film is spoilt, °C. */
  limitC: number
  readings: { tempC: number; verdict: Verdict; at: string; by: string }[]
  state: 'due' | 'done'
}

/**
 * Every edge turned under, every recess, every area over the film's post-heat limit, every overlap: one reading each
 * at least.
 */
export function heatPoints(
  pieces: readonly Piece[],
  panels: ReadonlyMap<string, Panel>,
  films: ReadonlyMap<string, FilmSheet>,
  stretch: ReadonlyMap<string, number>,
  ledger: readonly LogRow[],
): HeatPoint[] {
  const readings = new Map<string, HeatPoint['readings'][number][]>()
  const out: HeatPoint[] = []
  const add = ({
    piece,
    film,
    kind,
    key,
    name,
    range,
  }: {
    piece: Piece
    film: FilmSheet
    kind: HeatPoint['kind']
    key: string
    name: string
    range: HeatPoint['range']
  }) =>
    out.push({
      id: `${piece.id}:${key}`,
      pieceId: piece.id,
      panelId: piece.panelId,
      kind,
      name,
      range,
      limitC: film.heatLimitC,
      readings: [],
      state: 'due',
    })
  for (const piece of pieces) {
    const panel = panels.get(piece.panelId)
    const film = films.get(piece.filmId)
    if (!panel || !film) continue
    // An inlay is read where the overlay lies over it; all else belongs to the piece above.
    if (piece.inlay) {
      add({ piece, film, kind: 'overlap', key: 'overlap', name: '', range: film.overlapC })
      continue
    }
    for (const edge of panel.edges)
      if (EDGE_RULES[edge.meets].heatPoint && reaches(piece, edge.at))
        add({ piece, film, kind: 'edge', key: edge.id, name: edge.at, range: film.postHeatC })
    if (piece.part === 1)
      for (const recess of panel.recesses)
        add({ piece, film, kind: 'recess', key: recess.id, name: recess.name, range: film.postHeatC })
    if ((stretch.get(panel.id) ?? 0) > film.postHeatOver)
      add({ piece, film, kind: 'area', key: 'area', name: '', range: film.postHeatC })
    if (piece.part > 1) add({ piece, film, kind: 'overlap', key: 'overlap', name: '', range: film.overlapC })
  }
  const byId = new Map(out.map((p) => [p.id, p]))
  for (const row of ledger) {
    if (row.payload.kind !== 'reading') continue
    const point = byId.get(row.payload.pointId)
    if (!point) continue
    const list = readings.get(point.id) ?? []
    list.push({
      tempC: row.payload.tempC,
      verdict: heatVerdict(row.payload.tempC, point.range, point.limitC),
      at: row.at,
      by: row.by,
    })
    readings.set(point.id, list)
  }
  return out.map((p) => {
    const taken = readings.get(p.id) ?? []
    return { ...p, readings: taken, state: taken.some((r) => isDone(r.verdict)) ? 'done' : 'due' }
  })
}
