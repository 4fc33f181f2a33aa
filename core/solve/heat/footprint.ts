/** How the gun's air spreads where it meets the panel: the share of it by the distance from the middle. m. */
export type Footprint = { shape: 'gaussian'; sigmaM: number } | { shape: 'disc'; radiusM: number }

/** Shares under this are nothing. */
const NOTHING = 1e-6

/** How far from its middle the gun still heats, m. */
export const footprintReach = (f: Footprint): number =>
  f.shape === 'gaussian' ? f.sigmaM * Math.sqrt(-2 * Math.log(NOTHING)) : f.radiusM

/** The distance over which the share changes, m: what a grid and a step have to follow. */
export const footprintScale = (f: Footprint): number => (f.shape === 'gaussian' ? f.sigmaM : f.radiusM)

/** Parts of a cell, along and across, by which the sharp rim of a disc is shared out. */
const PARTS = 4

/**
 * Share in a cell whose middle is `dx`, `dy` from the gun's. A disc has a sharp rim: as much of the cell counts as lies
 * inside it.
 */
export function shareAt(f: Footprint, dx: number, dy: number, cell: { along: number; across: number }): number {
  if (f.shape === 'gaussian') return Math.exp(-(dx * dx + dy * dy) / (2 * f.sigmaM * f.sigmaM))
  const away = Math.hypot(dx, dy)
  const half = Math.hypot(cell.along, cell.across) / 2
  if (away <= f.radiusM - half) return 1
  if (away >= f.radiusM + half) return 0
  // Each strip across is cut by the rim exactly along.
  let inside = 0
  for (let k = 0; k < PARTS; k++) {
    const y = dy + cell.across * ((k + 0.5) / PARTS - 0.5)
    const reach = Math.sqrt(Math.max(0, f.radiusM * f.radiusM - y * y))
    const from = Math.max(dx - cell.along / 2, -reach)
    const to = Math.min(dx + cell.along / 2, reach)
    inside += Math.max(0, to - from) / cell.along / PARTS
  }
  return inside
}
