import { CHROME_CLASS } from '../film/film-data'
import type { FilmSheet } from '../film/schema'
import type { Panel } from '../vehicle/schema'
import type { PieceChoice, Plan } from './schema'

/** From this length on a chrome handle is laid in three parts instead of two. Assumed. [mm] */
const LONG_HANDLE_MM = 260

/** The film that a panel is laid in: its own, or the job's; nothing while none is chosen. */
export const filmOf = (plan: Pick<Plan, 'film'>, panel: Pick<Panel, 'filmId'>): FilmSheet | undefined =>
  plan.film.sheets.find((s) => s.id === (panel.filmId ?? plan.film.mainId))

/**
 * Parts in which hands lay what no one piece goes round: chrome on a handle in two or three, so that neither end has
 * to be pulled over; an aerial's housing in two, with the seam on its ridge (its width is taken over the ridge).
 * Common practice, no source.
 */
export function usualParts(
  panel: Pick<Panel, 'kind' | 'widthMm' | 'heightMm'>,
  film: Pick<FilmSheet, 'kind'> | undefined,
): Pick<PieceChoice, 'parts' | 'along'> {
  if (panel.kind === 'aerial') return { parts: 2, along: 'width' }
  if (panel.kind === 'handle' && film && CHROME_CLASS.includes(film.kind)) {
    const along = panel.widthMm >= panel.heightMm ? 'width' : 'height'
    return { parts: Math.max(panel.widthMm, panel.heightMm) < LONG_HANDLE_MM ? 2 : 3, along }
  }
  return { parts: 1, along: 'height' }
}

/** How a panel's pieces are cut: by the plan's own word, or by what is usual for its kind in this film. */
export const choiceFor = (
  plan: Pick<Plan, 'pieces'>,
  panel: Pick<Panel, 'id' | 'kind' | 'widthMm' | 'heightMm'>,
  film: Pick<FilmSheet, 'kind'> | undefined,
): PieceChoice =>
  plan.pieces.find((c) => c.panelId === panel.id) ?? {
    panelId: panel.id,
    ...usualParts(panel, film),
    preStretch: 0,
    bleedMm: null,
    seamsAtMm: [],
    slits: [],
    flat: null,
  }
