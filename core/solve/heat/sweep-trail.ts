import type { Window } from './waves'

/** How hot the nodes of a window were at begin, middle and end of the step before, over the start. */
export interface Trail {
  w: { x: Window; y: Window }
  seconds: number
  begin: Float64Array
  middle: Float64Array
  end: Float64Array
}

/** A step so many times as long as the one before it goes on as that one went; a longer one is begun as it stands. */
const GOES_ON = 2

/** The surface so many seconds on, along the parabola of the step before, where that was in the window. */
export function goneOn(trail: Trail, { begin, w, seconds }: { begin: Float64Array; w: Trail['w']; seconds: number }) {
  const out = begin.slice()
  const t = seconds / trail.seconds
  if (t > GOES_ON) return out
  const [wide, wideBefore] = [w.x.to - w.x.from, trail.w.x.to - trail.w.x.from]
  for (let k = Math.max(w.y.from, trail.w.y.from); k < Math.min(w.y.to, trail.w.y.to); k++)
    for (let m = Math.max(w.x.from, trail.w.x.from); m < Math.min(w.x.to, trail.w.x.to); m++) {
      const i = (k - trail.w.y.from) * wideBefore + m - trail.w.x.from
      const [a, b, c] = [trail.begin[i], trail.middle[i], trail.end[i]]
      out[(k - w.y.from) * wide + m - w.x.from] += t * (a - 4 * b + 3 * c) + 2 * t * t * (a - 2 * b + c)
    }
  return out
}

/** A row by wave: what is left of it, and what flux at begin, middle and end of the step adds. */
export function heatedInto(
  row: Float64Array,
  base: Float64Array,
  [atBegin, atMiddle, atEnd]: readonly Float64Array[],
  [begin, middle, end]: readonly Float64Array[],
): void {
  for (let i = 0; i < row.length; i++)
    row[i] = base[i] + atBegin[i] * begin[i] + atMiddle[i] * middle[i] + atEnd[i] * end[i]
}
