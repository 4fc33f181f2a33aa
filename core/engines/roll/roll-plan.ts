import type { Budget } from '../../kit/budget'
import type { FilmSheet, StockItem } from '../../model/film/schema'
import type { KeptLayout } from '../../model/plan/schema'
import type { SettledLayout } from '../../model/catalogue/solutions'
import type { CutPlan } from './cuts'
import type { Piece } from '../pieces/pieces'
import { CutPiece } from '../../model/log/cut-pieces'

export interface RollPlan {
  /** The roll or rest on the rack, or `new-1` … */
  id: string
  stock: StockItem | null
  widthMm: number
  /** Film on it, mm. */
  lengthMm: number
  usedMm: number
  placements: KeptLayout['rolls'][number]['placements']
  crossCutsMm: number[]
  cutting: CutPlan
  /** Stretches that cannot be used, mm from the open end. */
  damage: { from: number; to: number }[]
}

/** A source of the film: off one lot on the shelf, bought, or from two lots with a join between. */
export interface Source {
  id: string
  kind: 'shelf' | 'new' | 'join'
  lot: string | null
  /** The second lot of a join; `new` where it is to be bought. */
  joined: string | null
  widthMm: number
  covers: boolean
  /** What it does not cover, where it does not: pieces, or only the reserve. */
  lacks: 'nothing' | 'pieces' | 'reserve'
  usedMm: number
  orderMm: number
  units: number
  cost: number
  /** Shelf film left after it, mm of length. */
  leavesMm: number
}

/** Where two lots of one colour area meet: pairs of panels with the length of the edge between them. */
export interface LotJoin {
  first: string
  second: string
  /** Panels whose pieces come from the second lot. */
  panels: string[]
  seams: { a: string; b: string; lengthMm: number }[]
  lengthMm: number
}

export interface FilmLayout {
  film: FilmSheet
  pieces: readonly Piece[]
  rollWidthMm: number
  rolls: RollPlan[]
  usedMm: number
  /** Taken off stock by this job already, mm; what `usedMm` counts is beside it unless the layout kept is current. */
  doneMm: number
  /** The same, in area of film, mm². */
  doneMm2: number
  boundMm: number
  unplaced: { piece: Piece; why: string }[]
  /** Mark of pieces, width, gap: a kept layout with another mark is out of date. */
  mark: string
  kept: 'none' | 'current' | 'stale'
  /** Hash of everything that the search of this layout hangs on. */
  key: string
  /** A quick layout stands in until the searched one is there. */
  settling: boolean
  /** Sources of the film, the cheapest first; the one taken is `source`. */
  sources: Source[]
  source: Source | null
  join: LotJoin | null
  /** Length set aside for doing pieces twice, mm, and which. */
  reserveMm: number
  reserveFor: { pieceId: string; risk: number }[]
  /** Lengths of the pieces in the reserve, mm: each must be bought whole. */
  reserveBandsMm: number[]
  /** Pieces cut already, as they were cut. */
  cut: CutPiece[]
  /** Of those, the ones that the plan no longer fits. */
  spoiled: CutPiece[]
}

export interface LayOutContext {
  stock: readonly StockItem[]
  cut: readonly CutPiece[]
  /** Chance of doing a piece twice, 0 to 1, by piece. */
  risk: ReadonlyMap<string, number>
  /** Taken off each roll by this job so far, mm. */
  taken: ReadonlyMap<string, number>
  /** Layouts that were searched, by their keys. Without it nothing is searched behind the plan, and a quick one stands. */
  known?: Readonly<Record<string, SettledLayout>> | undefined
  /** Those that cannot be searched: a first layout is final for them. */
  faults?: Readonly<Record<string, unknown>> | undefined
}

export const NO_CONTEXT: LayOutContext = { stock: [], cut: [], risk: new Map(), taken: new Map() }

/** Damage of a roll or rest as stretches from its open end, where it now is. */
export const damageFromEnd = (item: StockItem): { from: number; to: number }[] =>
  item.damage
    .map((d) => ({ from: Math.max(0, item.leftMm - d.fromCoreMm - d.lengthMm), to: item.leftMm - d.fromCoreMm }))
    .filter((s) => s.to > 0)
    .sort((a, b) => a.from - b.from)

/** Lengths that must each come off one roll whole: bands that no cut across divides, each with the gap before it. */
export function bandLengths(placements: readonly { yMm: number; lengthMm: number }[]): number[] {
  const out: number[] = []
  let [before, to] = [0, 0]
  for (const p of [...placements].sort((a, b) => a.yMm - b.yMm)) {
    if (to > before && p.yMm >= to - 1e-6) {
      out.push(to - before)
      before = to
    }
    to = Math.max(to, p.yMm + p.lengthMm)
  }
  if (to > before) out.push(to - before)
  return out
}

export interface SearchOptions {
  rounds?: number
  spent?: () => boolean
  elapsed?: () => number
  /** Placements that stay where they are. */
  locked?: { rollId: string; placement: RollPlan['placements'][number] }[]
  better?: (usedMm: number, boundMm: number) => void
  /** What each source of the film is searched with; by default a first layout is all. */
  ofSource?: () => Budget
}

/** How a piece may lie on the roll. 180° turns its arrow; a quarter turn swaps its sides. */
export const turnsOf = (piece: Piece): (0 | 90 | 180 | 270)[] =>
  piece.turn === 'quarter' ? [0, 90, 180, 270] : piece.upsideDown ? [0, 180] : [0]
