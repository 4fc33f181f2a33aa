import { bandsLength, type Band } from '../model/band'
import type { PackBin } from '../model/types'

/** A free stretch of a bin. */
export interface Span {
  bin: PackBin
  from: number
  to: number
}

const TOLERANCE = 1e-6
/** Cells of the table that finds which bands fill a span best. */
const CELLS = 4000
const WORDS = (CELLS >>> 5) + 1
/** The bits of the last word that are cells. */
const LAST_WORD = 2 ** ((CELLS & 31) + 1) - 1

/**
 * Bands onto spans: the first span that takes them all; else span by span in the order given, each filled as full as
 * the bands allow (a span that is not filled loses its end). Lengths of bands include one gap each; the last of a span
 * needs none. What fits nowhere comes back.
 */
export function spread(
  bands: readonly Band[],
  spans: readonly Span[],
  gap: number,
): { at: { band: Band; span: Span; y: number }[]; over: Band[] } {
  const at: { band: Band; span: Span; y: number }[] = []
  let left = [...bands]
  const lay = (span: Span, those: readonly Band[]) => {
    let y = span.from
    for (const band of those) {
      at.push({ band, span, y })
      y += band.length
    }
  }
  const room = (s: Span) => s.to - s.from + gap + TOLERANCE
  for (const span of spans) {
    if (left.length === 0) break
    // The rest goes whole onto the first later stretch that takes it, if this one does not.
    if (bandsLength(left) <= room(span)) {
      lay(span, left)
      left = []
      break
    }
    // By place in the list: the same band may be in it many times.
    const chosen = left.length > MANY ? fullestOfMany(left, room(span)) : fullest(left, room(span))
    lay(
      span,
      left.filter((_, i) => chosen.has(i)),
    )
    left = left.filter((_, i) => !chosen.has(i))
  }
  return { at, over: left }
}

/** With more bands than this a span is filled in turn but for its end, and the table is asked about that end alone. */
const MANY = 600
/** Bands that the table chooses the end of a span from, and how many mean lengths are left to it. */
const END_CHOICE = 300
const END_LENGTHS = 4

/**
 * Of many bands: every so-manieth in turn until little room is left, then the fullest end out of a choice of the
 * rest.
 */
function fullestOfMany(bands: readonly Band[], room: number): Set<number> {
  const mean = bandsLength(bands) / bands.length
  const chosen = new Set<number>()
  let left = room
  for (let i = 0; i < bands.length && left > END_LENGTHS * mean; i++) {
    const { length } = bands[i]
    if (length > left) continue
    chosen.add(i)
    left -= length
  }
  const rest = bands.map((band, i) => ({ band, i })).filter(({ band, i }) => !chosen.has(i) && band.length <= left)
  const step = Math.max(1, Math.floor(rest.length / END_CHOICE))
  const choice = rest.filter((_, k) => k % step === 0)
  const ends = fullest(
    choice.map((c) => c.band),
    left,
  )
  for (const k of ends) chosen.add((choice[k] as { i: number }).i)
  return chosen
}

/** Which bands' lengths come nearest to a room without passing it: a subset-sum table on rounded-up lengths. */
function fullest(bands: readonly Band[], room: number): Set<number> {
  const step = room / CELLS
  const from = new Int32Array(CELLS + 1).fill(-1)
  const before = new Int32Array(CELLS + 1)
  const order = bands
    .map((band, i) => ({ i, cells: Math.max(1, Math.ceil(band.length / step - 1e-9)) }))
    .filter((b) => b.cells <= CELLS)
  order.sort((a, b) => b.cells - a.cells)
  // A bit a cell: all sums that a band makes of those before it are one shift of them.
  const reached = new Uint32Array(WORDS)
  reached[0] = 1
  const isReached = (cell: number) => ((reached[cell >>> 5] >>> (cell & 31)) & 1) === 1
  for (const { i, cells } of order) {
    // A span that is full to the last cell gets no fuller: the bands that fill it are known.
    if (isReached(CELLS)) break
    const [words, bits] = [cells >>> 5, cells & 31]
    for (let k = WORDS - 1; k >= words; k--) {
      const carried = bits > 0 && k > words ? reached[k - words - 1] >>> (32 - bits) : 0
      let fresh = ((reached[k - words] << bits) | carried) & ~reached[k]
      if (k === WORDS - 1) fresh &= LAST_WORD
      if (fresh === 0) continue
      reached[k] |= fresh
      for (; fresh !== 0; fresh &= fresh - 1) {
        const cell = k * 32 + 31 - Math.clz32(fresh & -fresh)
        from[cell] = i
        before[cell] = cell - cells
      }
    }
  }
  let c = CELLS
  while (!isReached(c)) c--
  const chosen = new Set<number>()
  for (; c > 0; c = before[c]) chosen.add(from[c])
  return chosen
}
