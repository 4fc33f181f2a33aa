import type { UnplacedWhy } from '@/core/engines/roll/contract'
import type { FlatWarning } from '@/core/engines/stretch/flat-warning'
import type { NoAnswer } from '@/core/kit/no-answer'
import type { Fault } from '@/core/kit/result'

type Facts = Record<string, string | number>
const meshFault = (f: Facts): string => {
  const counts = f.said !== undefined ? `: it says ${f.said} triangles and holds ${f.holds}` : ''
  const more = `${f.type ? `: ${f.type}` : ''}${f.limit ? `: at most ${f.limit} triangles` : ''}`
  return `the mesh file cannot be read (${f.why}${counts}${more})`
}

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
  bad_option: (f) => `${f.why}`,
  bad_file: (f) =>
    f.why === 'face_index_zero'
      ? `face ${f.face} names vertex 0: vertices are numbered from 1`
      : f.why === 'face_too_few_corners'
        ? `a face has ${f.corners} corners; it takes three`
        : f.why === 'bad_index' && f.index !== undefined
          ? `a face names vertex ${f.index}, which is not there`
          : meshFault(f),
  crown_too_deep: (f) => `the crown (${f.crown_mm} mm) is deeper than half its straightedge (${f.over_mm} mm)`,
  recess_off_panel: (f) => `the middle of the recess ${f.recess} lies off its panel`,
  raised_off_panel: (f) => `${f.object} lies off its panel`,
  recess_too_wide: (f) => `the recess ${f.recess} is larger than its panel`,
  recess_too_deep: (f) => `the walls of ${f.recess} meet before it is ${f.depth_mm} mm deep`,
  nose_too_long: (f) => `the nose takes ${f.length_mm} mm of a side of ${f.side_mm} mm`,
  outline_impossible: () => 'the outline does not close',
  too_many_triangles: (f) => `${f.triangles} triangles; thin the mesh to ${f.limit} or fewer`,
  turn_too_tight: (f) => `the ${f.side} end turns round ${f.radius_mm} mm, but the panel reaches ${f.back_mm} mm back`,
  fold_off_panel: (f) => `the body line ${f.line} lies off its panel`,
  empty_mesh: () => 'there is no triangle in it',
  bad_number: () => 'a vertex is not a number',
  bad_index: () => 'a triangle names a vertex that is not there',
  degenerate: () => 'a triangle without area; clean the mesh first',
  not_manifold: (f) =>
    f.why === 'fans_meet_in_a_point'
      ? 'two sheets touch in one point; part them'
      : 'two triangles run the same way along one side: a fold, a doubled face or a face turned inside out',
  closed_surface: () => 'the surface has no edge; cut the panel out of it first',
  handles: () => 'the surface has a handle like a cup’s, which no flat film has; cut it open',
  no_such_line: () => 'the line does not lie on the mesh; give vertices of it, numbered from 0',
  no_such_triangle: (f) => `there is no triangle ${f.triangle}; they are numbered from 0 and there are ${f.triangles}`,
  laid_in_parts: (f) => `what is laid first hangs together in ${f.parts} parts; one region at a time`,
  cannot_flatten: () => 'no map without turned triangles was found; cut it into parts by a seam',
  too_many_pieces: () => 'more pieces than one call takes',
  air_without_coefficient: () => 'air_c and h_w_m2k go together: give both, or neither',
  outside_run: () => 'lies outside the run or the wall',
  off_panel: () => 'lies off the panel',
  no_speed: () => 'a gun that goes from one place to another needs a speed',
  min_over_max: () => 'the least is more than the most',
  too_long: () => 'longer than ten hours: nobody sweeps that long',
  no_such_moment: () => 'there is no such day or hour',
  no_such_task: () => 'names a task that is not there',
  upside_down: () => 'ends before it begins',
  crew_and_people: () => 'give a number of people or the people themselves, not both',
  too_many_skills: () => 'more different skills than one schedule takes',
  nothing_to_do: () => 'nothing happens in this run: give a speed, a hold or a time to cool',
}

export const messageOf = (fault: Fault<string>): string =>
  SAY[fault.code]?.(fault.facts ?? {}) ?? `cannot be taken (${fault.code})`

/** Why sound input has no answer, in one line. */
const NONE: Record<string, (f: Facts) => string> = {
  limit_below_band: (f) => `the limit of ${f.limit_c} °C is below the band, which begins at ${f.band_min_c} °C`,
  cannot_reach: (f) => `no gun brings the edge to ${f.band_min_c} °C: the hottest that is reached is ${f.hottest_c} °C`,
  cycle: (f) => `tasks wait for each other in a circle: ${f.who}`,
  crew_too_small: (f) => `${f.people} people are too few, or nobody has the skill, for ${f.who}`,
  never_fits: (f) => `longer than any open stretch, or nobody is there so long: ${f.who}`,
  window_impossible: (f) => `a window cannot be met: ${f.who}`,
  band_too_narrow: (f) => `the best plan brings only ${f.in_band} of the edge into the band (in_band): ${f.best}`,
}
export const noAnswerText = ({ code, facts, named = [] }: NoAnswer): string => {
  const who = named.slice(0, 8).join(', ') + (named.length > 8 ? ` and ${named.length - 8} more` : '')
  return NONE[code]?.({ ...facts, who }) ?? code
}

const WARNINGS: { [C in FlatWarning['code']]: (w: Extract<FlatWarning, { code: C }>) => string } = {
  collapsed_mended: ({ collapsed }) =>
    `${collapsed} ${collapsed === 1 ? 'triangle' : 'triangles'} without area: mended, and left out of the figures`,
  parts_apart: ({ parts }) => `${parts} parts that do not hang together: each is a piece of its own`,
  stopped_early: () => 'stopped before the least worst stretch was reached',
  lies_on_itself: () => 'the film lies on itself: part it by a seam or a slit',
  squeezed_beside_laid: ({ squeeze }) =>
    `beside what is laid the film would have to be squeezed by ${(100 * squeeze).toFixed(1)} %: it wrinkles there`,
  very_small: ({ acrossMm }) => `only ${acrossMm.toPrecision(3)} mm across: is the mesh in metres or inches?`,
  very_large: ({ acrossMm }) => `${acrossMm.toPrecision(3)} mm across: is the mesh in other units than mm?`,
}

/** What a result warns of, in words. */
export const warningText = (w: FlatWarning): string =>
  // Code and facts belong together, which a look-up in a table of sentences cannot show.
  (WARNINGS[w.code] as (w: FlatWarning) => string)(w)

/** Why a piece lies nowhere, in the words of the contract. */
export const UNPLACED: Record<UnplacedWhy, string> = {
  wider_than_every_bin: 'wider than every roll',
  wider_unless_turned: 'wider than every roll; it would fit turned by 90, which its turn rule forbids',
  longer_than_every_bin: 'longer than every roll it fits across',
  longer_unless_turned: 'longer than every roll it fits across; it would fit turned by 90, which its turn rule forbids',
  no_room_left: 'no room left on the stock',
  no_lot_holds_group: 'no lot can hold the whole of its group',
}
