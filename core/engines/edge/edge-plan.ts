import { STROKE_MM, MASKING_SPARE_MM, TAPE_LEAD_MM, type CutSide, type FilmClass } from '../../model/edge/cut-rules'
import { EDGE_RULES } from '../../model/edge/edge-data'
import { edgeCut, filmClass, type EdgeSetting, type EdgeWhy } from '../../model/edge/edge-leave'
import { keptFor } from '../../kit/kept'
import type { FilmSheet } from '../../model/film/schema'
import type { Method } from '../../model/method/schema'
import type { Edge, Panel } from '../../model/vehicle/schema'
import { edgeShare, type Around, type Piece } from '../pieces/pieces'

export const TAPE_KINDS = ['filament', 'wire', 'masking', 'sealing', 'holding'] as const
export type TapeKind = (typeof TAPE_KINDS)[number]
export interface Tape {
  kind: TapeKind
  lengthMm: number
}

/** How one edge of one piece is laid, cut and held. mm, minutes. */
export interface EdgeDecision {
  pieceId: string
  panelId: string
  edgeId: string
  at: Edge['at']
  meets: Edge['meets']
  neighbour: string | null
  lengthMm: number
  gapMm: number
  leaveMm: number
  cut: CutSide
  bladeDeg: number
  tuckMm: number
  strokeMm: number
  warmBeforeCut: boolean
  waitMin: number
  order: FilmSheet['edgeOrder']
  heat: 'point' | 'pressed' | 'none'
  tapes: Tape[]
  why: EdgeWhy[]
}

export interface EdgeContext {
  method: Method
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  pieces: readonly Piece[]
  around: Around
}

/** What the edges of one piece were decided on, and how. */
export interface EdgesOfPiece {
  piece: Piece
  film: FilmSheet
  panels: readonly Panel[]
  edges: readonly EdgeDecision[]
}

/** Less than this of an edge on a piece is none of it [–]. */
const LEAST_SHARE = 1e-6

/** Every edge of every piece, decided. Edges that no piece reaches are not there. */
export function edgePlan({ method, panels, films, pieces, around }: EdgeContext): EdgesOfPiece[] {
  return pieces.flatMap((piece) => {
    const film = films.get(piece.filmId)
    if (!film || piece.inlay) return []
    const own = (piece.covers ?? [piece.panelId]).flatMap((id) => panels.get(id) ?? [])
    return [{ piece, film, panels: own, edges: edgesOfPiece(piece, method, film, around, ...own) }]
  })
}

const edgesOfPiece = keptFor(
  (piece: Piece, method: Method, film: FilmSheet, around: Around, ...panels: Panel[]): readonly EdgeDecision[] =>
    panels.flatMap((panel) =>
      panel.edges
        .filter((edge) => edgeShare(piece, panel.id, edge.at) > LEAST_SHARE)
        .map((edge) => decide({ method, panel, film, piece, setting: { method, ...around } }, edge)),
    ),
)

interface PieceContext {
  method: Method
  panel: Panel
  film: FilmSheet
  piece: Piece
  setting: EdgeSetting
}

/** Film of several layers creeps back: it waits before the cut, and all of its edges are heated. Common practice. */
const LAYERS_WAIT_MIN = 30

function decide({ method, panel, film, piece, setting }: PieceContext, edge: Edge): EdgeDecision {
  const { gapMm, cut, bladeDeg, leaveMm, tuckMm, sealed, why } = edgeCut(edge, panel, film, setting)
  const kind = filmClass(film)
  const base = EDGE_RULES[edge.meets]
  // Along a divided panel each part has its share of the sides that run across the cuts.
  const lengthMm = edge.lengthMm * edgeShare(piece, panel.id, edge.at)
  const sealsBelow = base.sealTape && cut === 'own_underside'
  const tapes = tapesFor({ cut, edge, lengthMm, kind, sealsBelow })
  const layered = film.layers === 'multi'
  return {
    pieceId: piece.id,
    panelId: panel.id,
    edgeId: edge.id,
    at: edge.at,
    meets: edge.meets,
    neighbour: edge.neighbour,
    lengthMm,
    gapMm,
    leaveMm,
    cut,
    bladeDeg,
    tuckMm,
    strokeMm: tuckMm <= 3 ? STROKE_MM.tight : sealed ? STROKE_MM.seal : STROKE_MM.turned,
    warmBeforeCut: leaveMm > 0 && kind !== 'mirror',
    waitMin: Math.max(film.waitBeforeCutMin, layered ? LAYERS_WAIT_MIN : 0),
    order: method.edges === 'film' ? film.edgeOrder : method.edges,
    heat: heatOf({ edge, cut, leaveMm, layered, pressed: setting.method.plainEdges === 'pressed' }),
    tapes,
    why: [
      ...why,
      ...(layered && !base.heatPoint ? (['layers_heat_all'] as const) : []),
      ...(sealsBelow ? (['sealed_below'] as const) : []),
      ...(tapes.some((t) => t.kind === 'holding') ? (['stiff_held'] as const) : []),
    ],
  }
}

/** Edges that a school presses without a reading; arches, undersides and what is grabbed often are always read. */
const PLAIN: readonly Edge['meets'][] = ['opening', 'free']

function heatOf(c: {
  edge: Edge
  cut: CutSide
  leaveMm: number
  layered: boolean
  pressed: boolean
}): EdgeDecision['heat'] {
  const { edge, cut, leaveMm, layered, pressed } = c
  const turned = EDGE_RULES[edge.meets].heatPoint && (cut === 'own_underside' || cut === 'closed_gap')
  // An arch that is shrunk back is held by nothing but its heat.
  const shrunk = edge.meets === 'wheel_arch' && cut === 'flush'
  if (pressed && !layered && PLAIN.includes(edge.meets) && edge.grab !== 'high') return leaveMm > 0 ? 'pressed' : 'none'
  if (turned || shrunk || (layered && leaveMm > 0)) return 'point'
  return leaveMm > 0 ? 'pressed' : 'none'
}

const MASKED: readonly Edge['meets'][] = ['fixed_gap', 'rubber_seal', 'window_trim', 'glass', 'lamp', 'drip_rail']

function tapesFor(c: { cut: CutSide; edge: Edge; lengthMm: number; kind: FilmClass; sealsBelow: boolean }): Tape[] {
  const { cut, edge, lengthMm, kind, sealsBelow } = c
  const tapes: Tape[] = []
  const add = (kind: TapeKind, lengthMm: number) => tapes.push({ kind, lengthMm })
  // Only wire cuts a mirror layer cleanly.
  if (cut === 'filament') add(kind === 'mirror' ? 'wire' : 'filament', lengthMm + TAPE_LEAD_MM)
  if (MASKED.includes(edge.meets)) add('masking', lengthMm + MASKING_SPARE_MM)
  if (sealsBelow || (kind !== 'formable' && edge.meets === 'opening')) add('sealing', lengthMm)
  if (kind === 'stiff' && edge.meets === 'opening') add('holding', lengthMm)
  return tapes
}
