/** Straightedges that a shop has, by the unit its people think in, mm. Common practice, no source. */
const METRIC_MM = [300, 600, 1000]
const INCH_MM = [12, 24, 36].map((inches) => inches * 25.4)

/**
 * The straightedge to lay on a side: the longest that fits on it; the shortest there is where none does. The one that a
 * crown was taken under stays. All mm.
 */
export function straightedgeMm(
  sideMm: number,
  { inches = false, takenMm = 0 }: { inches?: boolean; takenMm?: number } = {},
): number {
  if (takenMm > 0) return takenMm
  const own = inches ? INCH_MM : METRIC_MM
  return own.findLast((mm) => mm <= sideMm) ?? Math.min(own[0] ?? 300, Math.floor(sideMm))
}
