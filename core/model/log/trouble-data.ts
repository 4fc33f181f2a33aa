import type { FilmSheet } from '../film/schema'
import type { LogPayload } from './schema'

export type DefectKind = Extract<LogPayload, { kind: 'defect' }>['defect']

/** The first answer to what is seen, what not to do, and whether the lead is fetched at once: codes of sentences. */
export interface Trouble {
  first: string
  not: string | null
  lead: boolean
}

/** One row: holds for a kind of defect, and where it names an air release, for film of that only. */
type TroubleRule = Trouble & { kind: DefectKind; air?: FilmSheet['airRelease'] }

/** A row for each thing that is seen. Common practice, no source. */
const RULES: readonly TroubleRule[] = [
  { kind: 'bubble', air: 'channels', first: 'press_with_finger', not: 'chase_it', lead: false },
  { kind: 'bubble', air: 'none', first: 'prick_at_rim', not: 'prick_the_middle', lead: false },
  { kind: 'fold', first: 'part_and_heat', not: 'pull_one_corner', lead: false },
  { kind: 'fingers', first: 'lift_back_past', not: 'press_down', lead: false },
  { kind: 'wrinkle', first: 'lift_warm_tension', not: 'cut_it', lead: false },
  { kind: 'adhesive_line', first: 'lift_while_fresh', not: 'go_over_cold', lead: false },
  { kind: 'recess_lifts', first: 'heat_round_press_cool', not: 'glue', lead: false },
  { kind: 'lifted_edge', first: 'clean_heat_press', not: 'seal_over_dirt', lead: false },
  { kind: 'dirt', first: 'lift_and_pick', not: 'squeegee_over', lead: false },
  { kind: 'cut', first: 'overlay_or_redo', not: null, lead: false },
  { kind: 'cut_in_paint', first: 'stop_record_lead', not: 'film_over_it', lead: true },
  { kind: 'torn', first: 'redo_piece', not: null, lead: false },
  { kind: 'whitened', first: 'redo_piece', not: null, lead: false },
  { kind: 'wrong_way_up', first: 'stop_same_film', not: null, lead: true },
  { kind: 'colour_differs', first: 'look_at_lots', not: 'lay_on', lead: true },
  { kind: 'short', first: 'trim_overlay_redo', not: 'stretch_it', lead: false },
  { kind: 'other', first: 'photo_and_lead', not: null, lead: true },
]

/** What to do first about a defect in this film. */
export const troubleOf = (kind: DefectKind, film: Pick<FilmSheet, 'airRelease'> | undefined): Trouble =>
  RULES.find((r) => r.kind === kind && (r.air === undefined || r.air === (film?.airRelease ?? 'channels'))) ?? {
    first: 'photo_and_lead',
    not: null,
    lead: true,
  }
