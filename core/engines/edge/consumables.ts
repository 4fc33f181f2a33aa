import { EDGE_M_PER_BLADE, M2_PER_FELT, PRIMER_FROM_MM, TAPE_LEAD_MM } from '../../model/edge/cut-rules'
import { groupedBy } from '../../kit/grouped'
import { keptFor } from '../../kit/kept'
import type { FilmSheet } from '../../model/film/schema'
import type { Panel, Recess } from '../../model/vehicle/schema'
import type { Piece } from '../pieces/pieces'
import { filmClass } from '../../model/edge/edge-leave'
import { TAPE_KINDS, type EdgeDecision, type TapeKind } from './edge-plan'

/** One length of tape that is laid: along an edge, or along a seam. mm. */
export interface TapeUse {
  kind: TapeKind
  lengthMm: number
  pieceId: string
  panelId: string
  /** Null: along the piece's seam. */
  edgeId: string | null
}

const tapesAlong = keptFor(({ tapes, pieceId, panelId, edgeId }: EdgeDecision): readonly TapeUse[] =>
  tapes.map((t): TapeUse => ({ ...t, pieceId, panelId, edgeId })),
)

/** All tape of a job. A seam is trimmed on filament laid along it, with an end to pull by. */
export function tapeUses(
  edges: readonly EdgeDecision[],
  pieces: readonly Piece[],
  films: ReadonlyMap<string, FilmSheet>,
): TapeUse[] {
  const along = edges.flatMap((edge) => tapesAlong(edge))
  const seams = pieces.flatMap((p): TapeUse[] => {
    const film = films.get(p.filmId)
    if (p.seamMm <= 0 || !film) return []
    const kind = filmClass(film) === 'mirror' ? 'wire' : 'filament'
    return [{ kind, lengthMm: p.seamMm + TAPE_LEAD_MM, pieceId: p.id, panelId: p.panelId, edgeId: null }]
  })
  return [...along, ...seams]
}

/** Deep recesses with no open side hold by a thin primer on their walls. */
export const wantsPrimer = (r: Recess): boolean => !r.open && r.depthMm >= PRIMER_FROM_MM && r.way !== 'inlay'
/** The walls of a recess: the rim of its mouth by its depth, mm². */
export const primedMm2 = (r: Recess): number => 2 * (r.mouthWidthMm + r.mouthHeightMm) * r.depthMm

/** What is used up beside the film; one of the three measures is there. mm, mm². */
export type Consumable = { id: string; kind: TapeKind | 'primer' | 'blades' | 'felts' | 'liner' } & (
  { lengthMm: number } | { areaMm2: number } | { count: number }
)

export function consumablesOf(
  edges: readonly EdgeDecision[],
  tapes: readonly TapeUse[],
  pieces: readonly Piece[],
  panels: ReadonlyMap<string, Panel>,
): Consumable[] {
  const ofKind = groupedBy(tapes, (t) => t.kind)
  const out: Consumable[] = TAPE_KINDS.flatMap((kind) => {
    const lengthMm = (ofKind.get(kind) ?? []).reduce((sum, t) => sum + t.lengthMm, 0)
    return lengthMm > 0 ? [{ id: kind, kind, lengthMm }] : []
  })
  const covered = [...new Set(pieces.flatMap((p) => p.covers ?? [p.panelId]))].flatMap((id) => panels.get(id) ?? [])
  const primer = covered
    .flatMap((p) => p.recesses)
    .filter(wantsPrimer)
    .reduce((sum, r) => sum + primedMm2(r), 0)
  if (primer > 0) out.push({ id: 'primer', kind: 'primer', areaMm2: primer })
  if (pieces.length === 0) return out
  const edgeM = edges.reduce((sum, e) => sum + e.lengthMm, 0) / 1000
  const areaMm2 = pieces.reduce((sum, p) => sum + p.acrossMm * p.alongMm, 0)
  return [
    ...out,
    { id: 'blades', kind: 'blades', count: Math.max(covered.length, Math.ceil(edgeM / EDGE_M_PER_BLADE)) },
    { id: 'felts', kind: 'felts', count: Math.max(1, Math.ceil(areaMm2 / 1e6 / M2_PER_FELT)) },
    { id: 'liner', kind: 'liner', areaMm2 },
  ]
}
