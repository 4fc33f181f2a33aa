/** Where the middle of the gun is blown at, along the edge. mm, mm/s, s. */
export interface Sweep {
  fromMm: number
  toMm: number
  /** Null: the gun stands still. */
  speedMmS: number | null
  passes: number
  returns: 'alternate' | 'same'
  /** Standing at the start of each pass. */
  holdS: number
  /** Gun away between passes. */
  gapS: number
}

/** A time in which the gun is away, or moves evenly. m, m/s, s. */
export interface Stretch {
  beginS: number
  seconds: number
  /** Null: away. */
  gun: { fromM: number; speedMS: number } | null
}

/** The path of the gun as a list of even stretches, and then `coolS` without it. */
export function gunPath(sweep: Sweep, coolS: number): Stretch[] {
  const out: Stretch[] = []
  let at = 0
  const add = (seconds: number, gun: Stretch['gun']) => {
    if (seconds > 0) out.push({ beginS: at, seconds, gun })
    at += Math.max(0, seconds)
  }
  for (let pass = 0; pass < sweep.passes; pass++) {
    if (pass > 0) add(sweep.gapS, null)
    const back = sweep.returns === 'alternate' && pass % 2 === 1
    const [from, to] = back ? [sweep.toMm, sweep.fromMm] : [sweep.fromMm, sweep.toMm]
    add(sweep.holdS, { fromM: from / 1000, speedMS: 0 })
    const speed = sweep.speedMmS ?? 0
    if (speed > 0)
      add(Math.abs(to - from) / speed, { fromM: from / 1000, speedMS: (Math.sign(to - from) * speed) / 1000 })
  }
  add(coolS, null)
  return out
}

/** Until the gun is away for good, s. */
export const heatEnd = (path: readonly Stretch[]): number =>
  path.reduce((end, p) => (p.gun ? p.beginS + p.seconds : end), 0)
export const pathEnd = (path: readonly Stretch[]): number =>
  path.reduce((end, p) => Math.max(end, p.beginS + p.seconds), 0)

/** Where the gun is at a time of its stretch, m. */
export const gunAt = (part: Stretch, atS: number): number =>
  part.gun ? part.gun.fromM + part.gun.speedMS * (atS - part.beginS) : 0

/** Steps that begin short and double until they are long enough, and then are even. */
export function stepsTo(seconds: number, first: number, longest: number): number[] {
  const out: number[] = []
  let left = seconds
  for (let step = first; step < longest && left > 4 * step; step *= 2) {
    out.push(step)
    left -= step
  }
  const even = Math.max(1, Math.ceil(left / longest - 1e-9))
  for (let i = 0; i < even; i++) out.push(left / even)
  return out
}
