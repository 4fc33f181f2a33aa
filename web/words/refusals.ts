import type { Refusal, RefusalCode } from '@/core/engines/roll/arrange'
import type { Formatter } from './format'

type Facts = Record<string, string | number>
const SAY: Readonly<Record<RefusalCode, (f: Facts, fmt: Formatter) => string>> = {
  no_such_roll: () => 'That roll is no longer part of this layout.',
  may_not_turn: (f) => `${f.piece} lies one way only: its film has a direction, or the method lays all film one way.`,
  off_the_roll: (f, fmt) =>
    `${f.piece} would stick out past the edge: ${fmt.text(fmt.length(Number(f.width_mm)))} of the roll can be used.`,
  past_the_end: (f, fmt) =>
    `${f.piece} would lie past the end of the film, at ${fmt.text(fmt.longLength(Number(f.length_mm)))}.`,
  on_damage: (f, fmt) =>
    `${f.piece} would lie on damaged film, from ${fmt.text(fmt.longLength(Number(f.from_mm)))} to ${fmt.text(fmt.longLength(Number(f.to_mm)))} from the end.`,
  lies_on: (f, fmt) =>
    `${f.piece} would lie on ${f.other}${Number(f.gap_mm) > 0 ? `, or closer than ${fmt.text(fmt.length(Number(f.gap_mm)))}` : ''}.`,
  no_straight_cut: (f) => `With ${f.piece} there, no straight cut parts it from ${f.others}.`,
  too_many_stages: (f) =>
    `With ${f.piece} there, it takes more than ${f.stages} stages of cuts. Allow more stages, or put it elsewhere.`,
  nowhere_further: (f) => `${f.piece} cannot go further that way.`,
  is_locked: (f) => `${f.piece} is locked. Unlock it to move it.`,
}

/** Why a piece cannot lie where it was put. */
export const refusal = ({ code, facts }: Refusal, fmt: Formatter): string => SAY[code](facts ?? {}, fmt)
