import type { SolvedHeat } from '../../model/catalogue/solved-heat'
import type { FilmSheet } from '../../model/film/schema'
import type { BesidePanels } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import type { HeatPoint } from '../heat/heat-points'
import type { Piece } from '../pieces/pieces'
import type { Context } from './step'

/** What the steps of one panel hang on. */
export interface OnPanel {
  plan: BesidePanels
  panel: Panel
  film: FilmSheet
  pieces: readonly Piece[]
  points: readonly HeatPoint[]
  sweep: SolvedHeat | undefined
  edges: Pick<Context['edges'], 'edges' | 'corners'>
}
