import type { Fault } from '@/core/kit/result'

/** One line for each thing that can be wrong with a file, with what to do. */
const SAY: Record<string, (f: Record<string, string | number>) => string> = {
  unreadable: (f) => `cannot read ${f.file} (${f.why})`,
  empty: () => 'the file is empty',
  truncated: () => 'the file breaks off in the middle; export it again',
  too_large: (f) => `the file is larger than ${f.limit} bytes`,
  too_deep: (f) => `nested deeper than ${f.limit} levels`,
  not_json: (f) => `not JSON${f.line ? ` (line ${f.line})` : ''}`,
  later_version: (f) => `${f.format} is a later version; this reads ${f.reads}`,
  not_a_job: (f) => `not a job file: "format" should be "${f.reads}"`,
  too_small: (f) =>
    f.more_than === undefined ? `too small, at least ${f.minimum}` : `must be more than ${f.more_than}`,
  too_big: (f) => `too large, at most ${f.maximum}`,
  unknown_key: () => 'unknown key; remove it',
  invalid_type: (f) => `missing or of the wrong kind, expected ${f.expected}`,
  invalid_value: () => 'not one of the allowed values',
  invalid_format: () => 'not in the expected form',
  duplicate_id: () => 'this id is used twice',
  recess_larger_than_panel: () => 'the recess is larger than its panel',
  crown_deeper_than_half: () => 'the crown is deeper than half its straightedge',
  no_such_panel: () => 'names a panel that is not there',
  no_such_film: () => 'names a film that is not among the sheets',
  too_many_pieces: () => 'more pieces than one call takes',
}
export const messageOf = (fault: Fault): string =>
  SAY[fault.code]?.(fault.facts ?? {}) ?? `cannot be taken (${fault.code})`
