import type { CutPiece } from '../../model/log/cut-pieces'
import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import type { lengthBound } from '../../solve/pack'
import type { Piece } from '../pieces/pieces'
import type { FilmLayout, LayOutContext, SearchOptions } from './roll-plan'
import type { FilmSource } from './sources'

/** What one film's layout hangs on, gathered once. */
export interface LayoutTask {
  plan: Plan
  film: FilmSheet
  pieces: readonly Piece[]
  context: LayOutContext
  options: SearchOptions
  gap: number
  trimMm: number
  cutting: Plan['layout']['cutting']
  /** Width that new rolls of it are bought in [mm]. */
  width: number
  byId: ReadonlyMap<string, Piece>
  cut: CutPiece[]
  /** Cut pieces that no longer fit what is planned. */
  spoiled: CutPiece[]
  /** Pieces that are good and cut. */
  real: ReadonlySet<string>
  toLay: readonly Piece[]
  locked: NonNullable<SearchOptions['locked']>
  /** Pieces that lie by themselves, whatever the plan keeps together. */
  apart: ReadonlySet<string>
}

export const sumOf = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0)

/** The source that the plan names for its film; null where it leaves that open. */
export const wantedSource = ({ plan, film }: LayoutTask) =>
  plan.layout.sources.find((s) => s.filmId === film.id)?.source ?? null

/** Film set aside: for which pieces, and how long each of them is [mm]. */
export interface Reserve {
  reserveFor: { pieceId: string; risk: number }[]
  reserveBandsMm: number[]
}

/** All that the film might come from, and what it comes from. */
export interface ChosenSource {
  sources: FilmSource[]
  taken: FilmSource | undefined
}

/** Pieces on rolls, what found no room, and what bounds it. */
export type LaidParts = Pick<FilmLayout, 'rollWidthMm' | 'boundMm' | 'rolls' | 'usedMm' | 'unplaced'>

/** What lays film out where no layout is known: a page may load it later than the reckoning itself. */
export interface LayoutSolver {
  chooseSource(task: LayoutTask, reserve: Reserve, standIn: boolean): ChosenSource
  layParts(task: LayoutTask, taken: FilmSource | undefined, how: { standIn: boolean }): LaidParts
  lengthBound: typeof lengthBound
}
