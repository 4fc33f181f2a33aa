import type { ToldCode } from '@/core/kit/fault-code'
import type { Fault } from '@/core/kit/result'
import type { Formatter } from './format'

type Facts = Record<string, string | number>
type Say = (f: Facts, fmt: Formatter) => string

const pct = (f: Facts, key: string, fmt: Formatter) => fmt.text(fmt.percent(Number(f[key])))

const FAULTS: Readonly<Record<ToldCode, Say>> = {
  signed_out: () => 'You are signed out. Sign in again; what you typed is still here.',
  not_allowed: () => 'Your role does not cover this. Ask an owner or lead.',
  not_found: () => 'That is not here any more. Reload the page.',
  nothing_to_undo: () => 'Nothing of yours to undo here.',
  nothing_to_redo: () => 'Nothing to do again.',
  changed_since: (f) =>
    `${f.by || 'Somebody else'} changed the same thing since${f.what ? ` (${f.what})` : ''}. Change it by hand, or bring an older state back from the history.`,
  busy: () => 'Others hold this at the moment. Try again in a few seconds.',
  too_much_at_once: () => 'The server has its hands full at the moment. Try again in a few seconds.',
  took_too_long: () => 'This took too long and was stopped. Try again with fewer panels.',
  thread_ended: () => 'The work was cut off. Try again.',
  control_character: () => 'There is a character in it that is no text. Type it anew.',
  another_member: () => 'This was made by another person. It goes out when that person signs in here.',
  in_the_future: () => 'This entry says it happened in the future. Set the clock of this device, then enter it again.',
  before_the_job: () =>
    'This entry says it happened before the job was taken in. Set the clock of this device, then enter it again.',
  cut_made_already: () => 'That cut was ticked on another device already. The film was taken off once.',
  device_full: () => 'This device cannot keep the entry: its storage is full. Note it on paper and tell the lead.',
  bad_input: () => 'Cannot be read.',
  scan_quota: () => 'The shop keeps all the scans it can. Remove one that is not needed.',
  photo_quota: () => 'The shop keeps all the photos it can. Ask whoever runs the server.',
  too_many_pixels: () => 'The picture has too many pixels. Send a smaller one.',
  pre_stretch_too_much: (f, fmt) => `The film bears a pre-stretch of ${pct(f, 'limit', fmt)} at most.`,
  too_many_columns: (f) => `${f.columns} columns are too many (limit ${f.limit}). Is it the right file?`,
  entry_id_twice: () => 'This id is used twice.',
  piece_twice: () => 'This panel has its pieces chosen twice.',
  went_wrong: (f) => `That did not work. Try again; if it happens twice, tell us reference ${f.reference}.`,
  cut_not_there: () => 'The edges of this row have nothing of the kind to cut there. Choose another cut side.',
  bad_calendar: () => 'That is no calendar file. Choose one that ends in .ics.',
  no_closed_days: () => 'There is no whole day to come in that calendar. Choose one of holidays or closed days.',
  no_such_rule: () => 'There is no such row in the table of edges. Leave it out.',
  a_span_is_no_gap: () => 'That is no gap: a window, a wheel or nothing at all is a span. Put it into the span.',
  flange_wider_than_panel: () => 'More film would be left than half of the panel. Check what is left at this edge.',
  no_thermometer: () => 'No thermometer is set up here: type what yours shows.',
  no_such_point: () => 'There is no such place on this job.',
  yes_or_no: () => 'yes or no: was the gun away?',
  no_temperature: () => 'No temperature between −40 and 400 °C.',
  no_pin: () => 'Four digits.',
  wrong_pin: (f) => `That is not the PIN. ${f.left} ${f.left === 1 ? 'try' : 'tries'} left; then the full sign-in.`,
  full_sign_in: () => 'No PIN counts here any more for this person: sign in with address and password once.',
  strip_grew: () => 'A heated strip gets no longer: measure both lengths again.',
  strip_past_belief: () => 'No roll holds that much tension: measure both lengths again, mark to mark.',
  strip_half_measured: () => 'The width is measured before and after, or not at all.',
  too_many: () => 'There are as many of these as can be kept.',
  not_an_image: () => 'There is no whole picture in that file. Take it once more.',
  too_few_readings: () => 'Two trials at least, at two paces.',
  does_not_fit: (f) =>
    `No gun gives those readings (off by ${f.residual} °C): check the pace, the panel and how long after it was read.`,
  offline: () => 'No connection. It is kept here and goes out by itself.',
  no_answer: () => 'No answer came: is there a network? Try again. What was sent already counts once.',
  email_taken: () => 'Somebody already signs in with that address.',
  last_owner: () => 'A shop keeps at least one owner.',
  no_such_film: () => 'A film is named that is not among the sheets.',
  label_taken: () => 'Another roll has that label. Labels tell rolls apart: choose another.',
  not_enough_film: () => 'There is not that much left on this roll. Measure it, or cut from another.',
  no_such_stock: () => 'That roll is not on the rack.',
  id_taken: () => 'This entry clashes with another one. Enter it again.',
  not_a_valid_plan: () => 'The two changes do not go together. Reload and look at both.',
  later_version: (f) => `This job file is of a later version (${f.format}). This Cuirass reads ${f.reads}.`,
  not_a_job: (f) => `This is not a job file: its "format" should be "${f.reads}".`,
  truncated: () => 'The file breaks off in the middle. Export or copy it again.',
  too_large: (f) => `The file is too large (limit ${(Number(f.limit) / 1e6).toFixed(0)} MB).`,
  too_deep: () => 'The file is nested too deeply to be a job.',
  not_json: (f) => `The file is not readable as JSON${f.line ? ` (line ${f.line})` : ''}.`,
  empty: () => 'Nothing entered.',
  half_typed: () => 'Not finished: a number or fraction breaks off.',
  unknown_unit: (f) => `“${f.unit}” is no unit known here. Use mm, cm, m, in, ft, yd or mil.`,
  bad_number: (f) =>
    f.vertex
      ? `Point ${f.vertex} of the file has no sound place. Export it anew.`
      : 'Not a number that can be read. Try 37 1/2, 37.5in, 95cm or 0.95 m.',
  below_absolute_zero: () => 'Colder than anything can be.',
  too_small: (f) =>
    f.more_than === undefined ? `Too small: at least ${f.minimum}.` : `Has to be more than ${f.more_than}.`,
  too_big: (f) => `Too large: at most ${f.maximum}.`,
  unknown_key: () => 'An unknown key stands here.',
  invalid_type: (f) => `Missing or of the wrong kind (expected ${f.expected ?? 'another'}).`,
  invalid_value: () => 'Not one of the allowed words.',
  invalid_format: () => 'Not in the expected form.',
  duplicate_id: () => 'This id is used twice.',
  no_such_panel: () => 'It names a panel that is not there.',
  recess_larger_than_panel: () => 'A recess is larger than its panel.',
  crown_deeper_than_half: () => 'The crown is deeper than half its straightedge. Check both figures.',
  too_many_pieces: () => 'Too many pieces for one layout.',
  key_too_small: (f) =>
    `Shorter than this body style goes (at least ${f.limit}). Choose another body, or check the tape.`,
  key_too_big: (f) => `Longer than this body style goes (at most ${f.limit}). Choose another body, or check the tape.`,
  hours_unreadable: (f) => `“${f.text}” is no stretch of hours. Write it like 08:00-12:00, 13:00-17:00.`,
  hours_overlap: (f) => `“${f.text}” overlaps another stretch of that day.`,
  upside_down: (f) => `${f.text ? `“${f.text}” ends` : 'It ends'} before it begins.`,
  no_such_moment: () => 'There is no such day. Write it like 2026-12-25.',
  no_such_zone: (f) => `There is no time zone “${f.zone}”.`,
  changed_meanwhile: () => 'Somebody else changed it meanwhile. Reload, look, and make your change again.',
  min_over_max: () => 'The lower end of a range is above its upper end.',
  empty_table: () => 'There are no rows in it.',
  too_many_rows: (f) => `${f.rows} rows are too many (limit ${f.limit}). Is it the right file?`,
  missing_columns: () => 'These columns are missing.',
  unknown_column: () => 'This column is not known. See the list of columns.',
  column_twice: () => 'This column is there twice.',
  ragged_row: (f) =>
    `This row has ${f.cells} cells where the first has ${f.columns}. A quote or separator may be lost.`,
  row_twice: (f) => `The same as in line ${f.other}.`,
  not_a_word: (f) => `“${f.text}” is not one of: ${f.allowed}.`,
  bad_panel: () => 'Cannot be taken as it is.',
  bad_recess: (f) => `“${f.text}” is no recess. Write: name: 130 x 70 x 22 wall=45 open feed gap=60`,
  bad_quotes: () => 'A quoted cell is not closed. Check the quotes.',
  not_a_photo: () => 'This is not a photo that can be read. Use JPEG, PNG or WebP.',
  photo_too_large: (f) =>
    `The photo is too large (limit ${(Number(f.limit) / 1e6).toFixed(0)} MB). Send a smaller one.`,
  too_many_photos: () => 'This job has all the photos it can hold.',
  table: (f) => String(f.said),
  paste_too_low: (f) => `${f.rows} rows were copied, but only ${f.room} panels follow here. Add panels first.`,
  paste_too_wide: () => 'More columns were copied than the sheet has from here.',
  too_many_attempts: (f) =>
    f.seconds
      ? `Too many tries. The next one is possible in ${f.seconds} s.`
      : 'Too many tries. Wait a little, then try again.',
  no_such_roll: () => 'That roll is no longer part of this layout. Reload the page.',
  no_such_cut: () => 'That cut is not in the record any more, so there is nothing to take back.',
  no_cutting_table: () => 'No cutting table is set up for this shop. Save the file and carry it there.',
  layout_not_kept: () => 'Keep the layout first: the table cuts what is kept.',
  past_the_end: () => 'That is past the end of the roll.',
  no_pieces: () => 'None of these vehicles has a piece in this film. Choose the film on the job, and measure a panel.',
  no_stock: () => 'There is no film to lay them on: put a roll on the rack, or allow new rolls.',
  too_many_fleet_pieces: (f) => `That is more than ${f.limit} pieces. Lay them out in several goes.`,
  queue_down: () => 'The queue does not answer. Nothing was begun; try again in a moment.',
  solver_ended: () => 'The search ended before it had a plan. Try again; with fewer pieces if it happens twice.',
  crown_too_deep: (f) =>
    `The crown (${f.crown_mm} mm) is deeper than half its straightedge (${f.over_mm} mm): no surface has that. Check both figures.`,
  recess_too_wide: (f) => `The recess ${f.recess} is larger than its panel. Check its mouth.`,
  recess_off_panel: (f) => `The recess ${f.recess} lies off its panel. Check where its middle is.`,
  raised_off_panel: (f) => `${f.object} lies off its panel. Check where it is.`,
  recess_too_deep: (f) =>
    `The walls of ${f.recess} meet before it is ${f.depth_mm} mm deep. Check its depth, its mouth or the slope of its walls.`,
  nose_too_long: (f) =>
    `The nose takes ${f.length_mm} mm, and the panel is ${f.side_mm} mm there. Check its radius and angle.`,
  turn_too_tight: (f) =>
    `The ${f.side} end turns round ${f.radius_mm} mm, but the panel reaches ${f.back_mm} mm back there: it would fold on itself. Check the radius, the crown and the nose.`,
  fold_off_panel: (f) => `The body line ${f.line} lies off its panel. Check its position.`,
  bad_file: (f) =>
    f.why === 'face_index_zero'
      ? `Face ${f.face} of the file names vertex 0; vertices are numbered from 1. Export it anew.`
      : f.why === 'face_too_few_corners'
        ? `A face of the file has ${f.corners} corners; it takes three. Export it anew.`
        : `This is no mesh that can be read (${String(f.why ?? 'unknown form').replaceAll('_', ' ')}). OBJ, STL and PLY are.`,
  scan_too_many: (f) =>
    `The scan has ${f.triangles} triangles; up to ${f.limit} can be taken. Thin it where it was made.`,
  scan_too_large: () => 'The scan is too large to be kept. Cut out the panel alone.',
  bad_scan: (f) => `The scan did not arrive whole (${f.why}). Send it again.`,
  nothing_within: () => 'No surface that faces you lies within these points. Turn it, or put them round the panel.',
  handles: () =>
    'The surface has a loop through it (a handle that stands off): cut it away, or lay the panel from its tape.',
  no_worker: () => 'The stretch could not be solved in this browser.',
  not_solved: () => 'It could not be solved; the closed forms stand for it.',
  outline_impossible: () => 'The outline does not close. Check its edges.',
  cannot_flatten: () => 'No flat film was found for this surface. A seam may help; check the taped figures first.',
  not_one_piece: () => 'The panel falls into parts. Check its outline and holes.',
  closed_surface: () => 'The surface has no edge. Check the outline.',
  not_manifold: () => 'The surface is folded on itself. Check outline, holes and recesses.',
  degenerate: () => 'A part of the surface has no area. Check outline and holes.',
  empty_mesh: () => 'Nothing is left of the panel. Check outline and holes.',
  too_many_triangles: (f) =>
    `The surface has ${f.triangles} parts; up to ${f.limit} can be laid. Thin it where it was made.`,
  no_such_triangle: () => 'A part of the surface is named that is not there.',
  no_such_line: () => 'The line does not lie on the surface.',
  laid_in_parts: (f) => `What is laid first falls into ${f.parts} parts. Lay one region at a time.`,
  bad_size: () => 'Nothing can be laid over a length of nothing. Check the measures.',
  overlap_too_wide: () =>
    'The sheets would lie over each other by more than a strip is wide. Overlap less, or rip them into fewer strips.',
  duplicate_side: () => 'A side is named twice.',
  not_multiple_of: () => 'Has to be a whole number.',
  invalid_union: () => 'Not in any of the forms that can stand here.',
  invalid_key: () => 'A name in it is not in the expected form.',
  invalid_element: () => 'One of them cannot be taken.',
  bad_index: () => 'A part of the surface names a point that is not there.',
  wrong_sign_in: () => 'E-mail and password do not go together.',
}

const isTold = (code: string): code is ToldCode => Object.hasOwn(FAULTS, code)

export const faultText = (e: Fault, fmt: Formatter | null = null): string => {
  const say = isTold(e.code) ? FAULTS[e.code] : null
  const said = say?.(e.facts ?? {}, fmt as Formatter) ?? `Cannot be taken (${e.code}).`
  return e.at ? `${said} At: ${e.at}` : said
}
