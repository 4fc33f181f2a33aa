/** Rule-based stretch: closed forms only. Fractions, mm, radians. Source: docs/sources.md#geometry unless said. */

/** Length of a recess's profile across its mouth: floor and two straight walls, or a V where the walls meet. */
export function recessProfileMm(mouthMm: number, depthMm: number, wallDeg: number): number {
  const wall = (wallDeg * Math.PI) / 180
  const run = depthMm / Math.tan(wall)
  if (2 * run >= mouthMm) return 2 * Math.hypot(mouthMm / 2, depthMm)
  return mouthMm - 2 * run + (2 * depthMm) / Math.sin(wall)
}

/** Strain of a bridged recess: (profile + 2·gap) / (mouth + 2·gap) − 1. */
export const bridgeStrain = (profileMm: number, mouthMm: number, gapMm: number): number =>
  (profileMm + 2 * gapMm) / (mouthMm + 2 * gapMm) - 1

/** Squeeze of a flange of width `w` round a corner of plan radius `r`, turned in 90°: w / (r + w). */
export const cornerSqueeze90 = (flangeMm: number, radiusMm: number): number => flangeMm / (radiusMm + flangeMm)

/** The same turned under 180°: 2w / (r + w). */
export const cornerSqueeze180 = (flangeMm: number, radiusMm: number): number => (2 * flangeMm) / (radiusMm + flangeMm)

/**
 * Smallest worst stretch of a spherical cap of angular radius α [rad]: α / sin α − 1. Source:
 * docs/sources.md#milnor-1969.
 */
export const capStretch = (alpha: number): number => (alpha === 0 ? 0 : alpha / Math.sin(alpha) - 1)

/** Radius of an arc from its rise under a chord: (c²/4 + s²) / (2s). */
export const sagittaRadiusMm = (riseMm: number, chordMm: number): number =>
  (chordMm ** 2 / 4 + riseMm ** 2) / (2 * riseMm)
