import { err, ok, type Fault, type Result } from '../../kit/result'

export type ShingleFault = Fault<'bad_size' | 'overlap_too_wide'>

/** Stop short of an edge that meets flow (½ in). Common practice, no source. */
export const EXPOSED_SETBACK_MM = 13

export interface ShingleTask {
  /** Length of the hull or side, aft to fore, and its height, mm. */
  lengthMm: number
  heightMm: number
  sheetMm: { width: number; length: number }
  /** Sheets are ripped lengthwise into so many strips of equal width. */
  rips: number
  overlapMm: number
  /** Edges that meet flow or weather: what is laid stops short of them. */
  exposed: { fore: boolean; aft: boolean; top: boolean; bottom: boolean }
}
export interface Shingle {
  number: number
  /** From the aft end, and from the bottom edge, mm. */
  fromAftMm: number
  fromBottomMm: number
  lengthMm: number
  heightMm: number
  sheet: number
}

/**
 * Sheets ripped lengthwise and laid from aft to fore, bottom row first: each shingle covers the fore edge of the one
 * behind it, so that no edge meets the flow, and the upper row covers the lower. Errors: bad_size, overlap_too_wide.
 */
export function shingles(
  task: ShingleTask,
): Result<{ laid: Shingle[]; sheets: number; overlaps: 'fore_over_aft' }, ShingleFault> {
  const { sheetMm, rips, overlapMm, exposed } = task
  const strip = sheetMm.width / rips
  const back = (yes: boolean) => (yes ? EXPOSED_SETBACK_MM : 0)
  const [aft, bottom] = [back(exposed.aft), back(exposed.bottom)]
  const length = task.lengthMm - aft - back(exposed.fore)
  const height = task.heightMm - bottom - back(exposed.top)
  if (!(length > 0 && height > 0 && strip > 0 && sheetMm.length > 0 && Number.isInteger(rips) && rips >= 1))
    return err({ code: 'bad_size' })
  if (overlapMm >= strip || overlapMm >= sheetMm.length)
    return err({ code: 'overlap_too_wide', facts: { overlap_mm: overlapMm, strip_mm: strip } })
  const spans = (total: number, unit: number) => {
    const out: { from: number; size: number }[] = []
    for (let from = 0; ; from += unit - overlapMm) {
      out.push({ from, size: Math.min(unit, total - from) })
      if (from + unit >= total - 1e-9) return out
    }
  }
  const laid: Shingle[] = []
  // Strips are filled one after another: an offcut long enough serves again.
  const offcuts: { left: number; sheet: number }[] = []
  let strips = 0
  for (const row of spans(height, strip))
    for (const at of spans(length, sheetMm.length)) {
      let from = offcuts.filter((o) => o.left >= at.size - 1e-9).sort((a, b) => a.left - b.left)[0]
      if (!from) {
        from = { left: sheetMm.length, sheet: Math.floor(strips / rips) + 1 }
        strips++
        offcuts.push(from)
      }
      from.left -= at.size
      laid.push({
        number: laid.length + 1,
        fromAftMm: aft + at.from,
        fromBottomMm: bottom + row.from,
        lengthMm: at.size,
        heightMm: row.size,
        sheet: from.sheet,
      })
    }
  return ok({ laid, sheets: Math.ceil(strips / rips), overlaps: 'fore_over_aft' })
}
