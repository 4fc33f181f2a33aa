import {
  CUT_RULES,
  FRONT_DEEPER_MM,
  MASKING_SPARE_MM,
  NARROW_GAP_MM,
  SEAL_TUCK,
  STROKE_MM,
  TAPE_LEAD_MM,
  USUAL_GAP_MM,
  WINTER_DEEPER_MM,
  WIDEST_GAP_MM,
  type CutRule,
  type CutSide,
  type FilmClass,
  type GapClass,
} from '../../model/edge/cut-rules'
import { EDGE_RULES } from '../../model/edge/edge-data'
import { CHROME_CLASS, isFormed } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import { CONTRAST_WRAP_MM } from '../../model/vehicle/paint-data'
import type { Edge, Panel } from '../../model/vehicle/schema'
import { reaches, type Piece } from '../pieces/pieces'

export const TAPE_KINDS = ['filament', 'wire', 'masking', 'sealing', 'holding'] as const
export type TapeKind = (typeof TAPE_KINDS)[number]
export interface Tape {
  kind: TapeKind
  lengthMm: number
}

/** Why an edge is as it is: the row of the table that decided, and what changed it. */
export type EdgeWhy =
  | CutRule['id']
  | (typeof SEAL_TUCK)[number]['code']
  | 'front_deeper'
  | 'winter_deeper'
  | 'strong_contrast'
  | 'gap_assumed'
  | 'stiff_held'
  | 'sealed_below'

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

export const filmClass = (film: Pick<FilmSheet, 'kind'>): FilmClass =>
  CHROME_CLASS.includes(film.kind) ? 'mirror' : isFormed(film.kind) ? 'formable' : 'stiff'
export const gapClass = (gapMm: number): GapClass =>
  gapMm <= NARROW_GAP_MM ? 'narrow' : gapMm <= WIDEST_GAP_MM ? 'open' : 'span'

/** The rows of the table that hold for an edge: always exactly one. */
export const rulesFor = (meets: Edge['meets'], gap: GapClass, film: FilmClass): CutRule[] =>
  CUT_RULES.filter((r) => r.meets.includes(meets) && (r.gap?.includes(gap) ?? true) && (r.film?.includes(film) ?? true))

interface EdgeContext {
  plan: Plan
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  pieces: readonly Piece[]
  strongContrast: boolean
  /** The shop's winter setting. */
  winter: boolean
}

/** Every edge of every piece, decided. Edges that no piece reaches are not there. */
export function edgePlan({ plan, panels, films, pieces, strongContrast, winter }: EdgeContext): EdgeDecision[] {
  return pieces.flatMap((piece) => {
    const film = films.get(piece.filmId)
    if (!film || piece.inlay) return []
    return (piece.covers ?? [piece.panelId]).flatMap((id) => {
      const panel = panels.get(id)
      if (!panel) return []
      return panel.edges
        .filter((edge) => reaches(piece, edge.at))
        .flatMap((edge) => decide({ plan, panel, film, piece, strongContrast, winter }, edge))
    })
  })
}

interface PieceContext {
  plan: Plan
  panel: Panel
  film: FilmSheet
  piece: Piece
  strongContrast: boolean
  /** The shop's winter setting. */
  winter: boolean
}

function decide({ plan, panel, film, piece, strongContrast, winter }: PieceContext, edge: Edge): EdgeDecision[] {
  const gapMm = edge.gapMm ?? USUAL_GAP_MM[edge.meets]
  const kind = filmClass(film)
  const [rule] = rulesFor(edge.meets, gapClass(gapMm), kind)
  if (!rule) return []
  const base = EDGE_RULES[edge.meets]
  const why: EdgeWhy[] = [rule.id]
  if (edge.gapMm === null) why.push('gap_assumed')
  // Along a divided panel each part has its share of the sides that run across the cuts.
  const across = piece.along === 'width' ? ['top', 'bottom'] : ['left', 'right']
  const lengthMm = edge.lengthMm / (across.includes(edge.at) ? piece.parts : 1)
  const front = facesWind(panel, edge) && base.under
  const deeper = front ? FRONT_DEEPER_MM + (winter ? WINTER_DEEPER_MM : 0) : 0
  if (front) why.push('front_deeper', ...(winter ? (['winter_deeper'] as const) : []))
  const showing = strongContrast && base.wrapUnderMm > 0 ? CONTRAST_WRAP_MM : 0
  if (showing > 0) why.push('strong_contrast')
  const leaveMm = base.wrapUnderMm === 0 ? 0 : base.wrapUnderMm + deeper + showing
  const seal = rule.cut === 'seal_middle' ? SEAL_TUCK.find((s) => gapMm <= s.upToGapMm) : undefined
  // Glass without a seal that was measured is taken for a normal one.
  const sealed = seal && gapClass(gapMm) === 'span' ? SEAL_TUCK.find((s) => s.code === 'normal_seal') : seal
  if (sealed) why.push(sealed.code)
  const tapes = tapesFor({ cut: rule.cut, edge, lengthMm, kind, sealsBelow: base.sealTape })
  if (base.sealTape) why.push('sealed_below')
  if (tapes.some((t) => t.kind === 'holding')) why.push('stiff_held')
  const tuckMm = sealed ? Math.min(sealed.tuckMm, leaveMm) : leaveMm
  return [
    {
      pieceId: piece.id,
      panelId: panel.id,
      edgeId: edge.id,
      at: edge.at,
      meets: edge.meets,
      neighbour: edge.neighbour,
      lengthMm,
      gapMm,
      leaveMm,
      cut: rule.cut,
      bladeDeg: rule.bladeDeg,
      tuckMm,
      strokeMm: tuckMm <= 3 ? STROKE_MM.tight : sealed ? STROKE_MM.seal : STROKE_MM.turned,
      warmBeforeCut: leaveMm > 0 && kind !== 'mirror',
      waitMin: film.waitBeforeCutMin,
      order: plan.method.edges === 'film' ? film.edgeOrder : plan.method.edges,
      heat: base.heatPoint ? 'point' : leaveMm > 0 ? 'pressed' : 'none',
      tapes,
      why,
    },
  ]
}

/** Edges that drive into wind and weather: a bonnet's and a bumper's front. */
const facesWind = (panel: Panel, edge: Edge): boolean =>
  edge.at === 'top' && (panel.kind === 'bonnet' || panel.kind === 'front_bumper')

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
