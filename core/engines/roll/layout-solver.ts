import { lengthBound } from '../../solve/pack'
import { chooseSource } from './choose-source'
import { filmLayoutBy } from './film-layout'
import { layParts } from './lay-parts'
import type { LayoutSolver } from './layout-task'

/** Layouts by the packing solver. */
export const LAYOUT_SOLVER: LayoutSolver = { chooseSource, layParts, lengthBound }
/** Lays the pieces of one film out (`filmLayoutBy`). */
export const layOutFilm = filmLayoutBy(LAYOUT_SOLVER)
