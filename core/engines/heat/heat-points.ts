import type { Point } from '../../kit/plane'
import { CORNER_TRIM_MM } from '../../model/edge/cut-rules'
import type { EdgesOfJob } from '../edge/edges-of-job'
import { keptFor } from '../../kit/kept'
import type { FilmSheet } from '../../model/film/schema'
import type { LogRow } from '../../model/log/schema'
import { isDone, readingVerdict, type Verdict } from './verdict'
import type { Piece } from '../pieces/pieces'
import type { Panel } from '../../model/vehicle/schema'

/** A place that needs a reading after post-heat. */
export interface HeatPoint {
  id: string
  pieceId: string
  panelId: string
  kind: 'edge' | 'corner' | 'recess' | 'area' | 'overlap'
  /** The edge along which it lies, or at whose end. */
  edgeId: string | null
  /** Along the edge; both ways from a corner. Null where it is a place. */
  lengthMm: number | null
  /** Of an area, where its map is solved: its outlines on the panel's surface, mm from the top left. */
  outlines?: readonly (readonly Point[])[]
  /** Which edge or recess. */
  name: string
  /** The id that this place had while its side was laid panel by panel: what was logged then still counts. */
  was?: string
  range: { min: number; max: number }
  /** Hotter than this the film is spoilt, °C. */
  limitC: number
  readings: { tempC: number; verdict: Verdict; at: string; by: string }[]
  state: 'due' | 'done'
}

/** What the points of a job hang on. */
interface PointContext {
  pieces: readonly Piece[]
  edges: Pick<EdgesOfJob, 'byPiece'>
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  stretch: ReadonlyMap<string, number>
  /** By panel, as its stretch was solved. */
  outlines: ReadonlyMap<string, readonly (readonly Point[])[]>
  ledger: readonly LogRow[]
}

type Place = Pick<HeatPoint, 'panelId' | 'kind' | 'name' | 'range' | 'edgeId' | 'lengthMm' | 'was' | 'outlines'> & {
  key: string
}

/** Every edge that its plan wants read, every corner, recess, overlap, and area past the film's post-heat limit. */
export function heatPoints(c: PointContext): HeatPoint[] {
  const out = c.pieces.flatMap((piece) => {
    const film = c.films.get(piece.filmId)
    if (!film) return []
    const own = (piece.covers ?? [piece.panelId]).flatMap((id) => {
      const panel = c.panels.get(id)
      return panel ? [stretchedPanel(panel, c.stretch.get(id) ?? 0, c.outlines.get(id) ?? NO_RINGS)] : []
    })
    // Edges and corners by themselves: the pair of them is made anew each time.
    const { edges, corners } = c.edges.byPiece.get(piece.id) ?? NO_EDGES
    return pointsOfPiece(piece, film, edges, corners, ...own)
  })
  return withReadings(out, c.ledger)
}

const NO_RINGS: readonly (readonly Point[])[] = []
const NO_EDGES = { edges: [], corners: [] }
type EdgesOfOne = NonNullable<ReturnType<PointContext['edges']['byPiece']['get']>>

interface StretchedPanel {
  panel: Panel
  worst: number
  /** Where it is past the film's post-heat threshold, as solved. */
  rings: readonly (readonly Point[])[]
}
const stretchedPanel = keptFor((panel: Panel, worst: number, rings: StretchedPanel['rings']): StretchedPanel => ({
  panel,
  worst,
  rings,
}))
const pointsOfPiece = keptFor(
  (
    piece: Piece,
    film: FilmSheet,
    edges: EdgesOfOne['edges'],
    corners: EdgesOfOne['corners'],
    ...own: StretchedPanel[]
  ) => placesOf({ edges, corners }, own, piece, film).map((p) => pointAt(piece, film, p)),
)

const pointAt = (piece: Piece, film: FilmSheet, { key, ...place }: Place): HeatPoint => ({
  id: `${piece.id}:${key}`,
  pieceId: piece.id,
  ...place,
  limitC: film.heatLimitC,
  readings: [],
  state: 'due',
})

function placesOf(
  { edges, corners: decided }: EdgesOfOne,
  panels: readonly StretchedPanel[],
  piece: Piece,
  film: FilmSheet,
): Place[] {
  const { panelId } = piece
  const range = film.postHeatC
  const [firstCovered] = piece.covers ?? []
  const lap = {
    // A seam of drops runs over several panels: it is told with the first of them, by the drop's name.
    panelId: firstCovered ?? panelId,
    kind: 'overlap',
    key: 'overlap',
    name: firstCovered === undefined ? '' : piece.name,
    range: film.overlapC,
    edgeId: null,
    lengthMm: piece.seamMm,
  } as const
  // An inlay is read where the overlay lies over it; all else belongs to the piece above.
  if (piece.inlay) return [lap]
  const several = (piece.covers ?? [panelId]).length > 1
  // A drop over several panels names the panel with each of its edges.
  const key = (panel: string, edge: string) => (several ? `${panel}.${edge}` : edge)
  const was = (panel: string, old: string) => (several ? { was: `${panel}:${old}` } : {})
  const onEdges = edges
    .filter((e) => e.heat === 'point')
    .map((e): Place => {
      const { panelId, edgeId, lengthMm } = e
      const known = was(panelId, edgeId)
      return { panelId, kind: 'edge', key: key(panelId, edgeId), name: e.at, range, edgeId, lengthMm, ...known }
    })
  const corners = decided
    .filter((k) => k.method !== 'seam')
    .map((k) => ({ ...cornerPlace(k, panels, range), key: `corner-${key(k.panelId, k.between[0])}` }))
    .map((place) => ({ ...place, ...was(place.panelId, `corner-${place.edgeId}`) }))
  const recesses =
    piece.part === 1
      ? panels.flatMap(({ panel: p }) =>
          p.recesses.map((r) => ({
            ...place('recess', p.id, r.name, range),
            key: key(p.id, r.id),
            ...was(p.id, r.id),
          })),
        )
      : []
  const stretched = (piece.part === 1 || !several ? panels : []).filter((p) => p.worst > film.postHeatOver)
  const areas = stretched.map(({ panel: p, rings }): Place => {
    const known = { ...was(p.id, 'area'), ...(rings.length > 0 ? { outlines: rings } : {}) }
    return { ...place('area', p.id, '', range), key: key(p.id, 'area'), ...known }
  })
  return [...onEdges, ...corners, ...recesses, ...areas, ...(piece.part > 1 ? [lap] : [])]
}

/** A corner is heated along both edges from it; it is named by where its first edge lies. */
function cornerPlace(
  { panelId, between: [edgeId] }: EdgesOfOne['corners'][number],
  panels: readonly StretchedPanel[],
  range: HeatPoint['range'],
) {
  const edges = panels.find((p) => p.panel.id === panelId)?.panel.edges
  const name = edges?.find((e) => e.id === edgeId)?.at ?? ''
  return { panelId, kind: 'corner' as const, name, range, edgeId, lengthMm: CORNER_HEATED_MM }
}

const place = (kind: HeatPoint['kind'], panelId: string, name: string, range: HeatPoint['range']) => ({
  kind,
  panelId,
  name,
  range,
  edgeId: null,
  lengthMm: null,
})

/** What is heated at a corner, along both edges from it. Common practice: as far as it is trimmed. [mm] */
const CORNER_HEATED_MM = 2 * CORNER_TRIM_MM

function withReadings(out: HeatPoint[], ledger: readonly LogRow[]): HeatPoint[] {
  if (!ledger.some((row) => row.payload.kind === 'reading')) return out
  const readings = new Map<string, HeatPoint['readings'][number][]>()
  const byId = new Map(out.flatMap((p) => [[p.id, p] as const, ...(p.was ? [[p.was, p] as const] : [])]))
  for (const row of ledger) {
    // What was read on a piece that is redone says nothing of the one that is laid in its place.
    if (row.payload.kind === 'defect_closed' && row.payload.pieceIds)
      for (const p of out) if (row.payload.pieceIds.includes(p.pieceId)) readings.delete(p.id)
    if (row.payload.kind !== 'reading') continue
    const point = byId.get(row.payload.pointId)
    if (!point) continue
    const list = readings.get(point.id) ?? []
    list.push({
      tempC: row.payload.tempC,
      verdict: readingVerdict(row.payload, point),
      at: row.at,
      by: row.by,
    })
    readings.set(point.id, list)
  }
  return out.map((p) => {
    const taken = readings.get(p.id)
    if (!taken) return p
    return { ...p, readings: taken, state: taken.some((r) => isDone(r.verdict)) ? 'done' : 'due' }
  })
}
