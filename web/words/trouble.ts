import type { GuardCode } from '@/core/engines/run-sheet/guards'
import type { NeverCode } from '@/core/engines/run-sheet/laying-card'
import type { Suspicion } from '@/core/engines/heat/suspicion'

/** First answers to trouble, each one line. */
export const FIRST: Record<string, string> = {
  press_with_finger: 'Press with a finger and wait.',
  prick_at_rim: 'Prick at its rim, press toward the prick.',
  part_and_heat: 'Part it evenly, then heat: the film remembers flat.',
  lift_back_past: 'Lift back past them, warm, lay with the fullness shared to the corner.',
  lift_warm_tension: 'Lift, warm to the film’s shaping range, lay with light tension.',
  lift_while_fresh: 'Lift while fresh; heat and press along the line.',
  heat_round_press_cool: 'Heat round it, press cool, full post-heat, read again.',
  clean_heat_press: 'Clean, heat, press; dirty or short: trim back, overlay or redo.',
  lift_and_pick: 'Lift, tack cloth, pick it with tape.',
  overlay_or_redo: 'Lay a strip over it where nobody looks, else redo the piece.',
  stop_record_lead: 'Stop. Photo, tell the lead; touched up before film goes over.',
  redo_piece: 'Redo the piece; look at the reserve and the lot.',
  stop_same_film: 'Stop. Same on all sides? Redo, or have it accepted in writing.',
  look_at_lots: 'Stop. Compare lots and directions in daylight.',
  trim_overlay_redo: 'Trim to a line and overlay, or redo.',
  photo_and_lead: 'Photo, and tell the lead.',
}
export const NOT: Record<string, string> = {
  chase_it: 'Not: chase it with the tool; it runs along a channel and leaves a line.',
  prick_the_middle: 'Not: prick its middle.',
  pull_one_corner: 'Not: pull at one corner.',
  press_down: 'Not: press them down; they come up again.',
  cut_it: 'Not: cut it.',
  go_over_cold: 'Not: go over it cold.',
  glue: 'Not: glue.',
  seal_over_dirt: 'Not: seal over dirt.',
  squeegee_over: 'Not: squeegee over it.',
  film_over_it: 'Not: film over it.',
  lay_on: 'Not: lay on.',
  stretch_it: 'Not: stretch it to reach.',
}

export const NEVER: Record<NeverCode, string> = {
  never_pull: 'Never pulled over a corner',
  never_on_contour: 'Never on a contour',
  never_rub: 'Straight presses, no rubbing to and fro',
  never_still: 'Gun never still',
  never_chase: 'Do not chase small bubbles',
  never_dry_felt: 'Felt wet',
}

export const GUARD: Record<GuardCode, (count: string) => string> = {
  inside_wait: (left) => `A wait still runs: ${left} left.`,
  points_open: (n) => `${n} places have no reading that counts.`,
  steps_open: (n) => `${n} steps or defects are still open.`,
  early_recheck: (left) => `The recheck is due in ${left}.`,
  hot_unread: (n) => `${n} places were heated and not read.`,
}

export const SUSPICION: Record<Suspicion, string> = {
  gun_still_there: 'In the air stream a thermometer shows too much: take the gun away, wait, read again.',
  too_soon: 'Read within three seconds of the gun: wait, read again.',
  jump: 'More than such a panel can change in that time: read again.',
  mirror_reflects: 'A mirror shows what it reflects: read on a strip of tape or a spot of spray.',
  out_of_this_world: 'No film reads like that: look at the unit and the thermometer.',
}
