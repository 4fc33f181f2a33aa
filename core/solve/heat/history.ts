/** What a temperature did over a run, gathered step by step: its peak, and how long it was at each threshold or over. */
export interface Crossing {
  c: number
  firstAboveS: number | null
  lastAboveS: number | null
  aboveS: number
}

/** A cubic over one step, by its values and slopes at both ends (Hermite), or a parabola by three values. */
export type StepCurve = (share: number) => number

export const hermite =
  (from: { c: number; slope: number }, to: { c: number; slope: number }, seconds: number): StepCurve =>
  (u) => {
    const v = 1 - u
    const bend = v * from.slope * seconds - u * to.slope * seconds
    return v * from.c + u * to.c + u * v * ((v - u) * (from.c - to.c) + bend)
  }
export const parabola =
  (from: number, middle: number, to: number): StepCurve =>
  (u) =>
    from * (1 - u) * (1 - 2 * u) + middle * 4 * u * (1 - u) + to * u * (2 * u - 1)

/** Places in a step at which a curve is looked at before a crossing or a peak is narrowed down. */
const LOOKS = 8
const BISECTIONS = 40

export class History {
  peakC: number
  peakS = 0
  finalC: number
  readonly crossings: Crossing[]
  constructor(startC: number, thresholds: readonly number[]) {
    this.peakC = startC
    this.finalC = startC
    this.crossings = thresholds.map((c) => {
      const at = startC >= c ? 0 : null
      return { c, firstAboveS: at, lastAboveS: at, aboveS: 0 }
    })
  }

  /** One more step, from `atS` on. */
  add(atS: number, seconds: number, curve: StepCurve): void {
    const values = Array.from({ length: LOOKS + 1 }, (_, i) => curve(i / LOOKS))
    this.finalC = values[LOOKS]
    const top = values.indexOf(Math.max(...values))
    const peak = highest(curve, Math.max(0, top - 1) / LOOKS, Math.min(LOOKS, top + 1) / LOOKS)
    if (peak.c > this.peakC) {
      this.peakC = peak.c
      this.peakS = atS + peak.share * seconds
    }
    // A step that rises and falls back between two looks is cut at its peak.
    const shares = values.map((_, i) => i / LOOKS).concat(peak.share)
    shares.sort((a, b) => a - b)
    for (const crossing of this.crossings) cross(crossing, curve, shares, atS, seconds)
  }
}

function cross(
  crossing: Crossing,
  curve: StepCurve,
  shares: readonly number[],
  ...[atS, seconds]: [atS: number, seconds: number]
): void {
  for (let i = 0; i + 1 < shares.length; i++) {
    const [a, b] = [shares[i], shares[i + 1]]
    const [isIn, isOut] = [curve(a) >= crossing.c, curve(b) < crossing.c]
    if (!isIn && isOut) continue
    const change = isIn === !isOut ? null : between(curve, crossing.c, a, b)
    const from = isIn ? a : (change ?? a)
    const to = isOut ? (change ?? b) : b
    crossing.firstAboveS ??= atS + from * seconds
    crossing.lastAboveS = atS + to * seconds
    crossing.aboveS += (to - from) * seconds
  }
}

function between(curve: StepCurve, c: number, from: number, to: number): number {
  const rises = curve(to) >= c
  let [a, b] = [from, to]
  for (let i = 0; i < BISECTIONS; i++) {
    const middle = (a + b) / 2
    if (curve(middle) >= c === rises) b = middle
    else a = middle
  }
  return (a + b) / 2
}

/** The highest place of a curve that has one hump there (golden section). */
function highest(curve: StepCurve, from: number, to: number): { share: number; c: number } {
  const golden = (Math.sqrt(5) - 1) / 2
  let [a, b] = [from, to]
  for (let i = 0; i < BISECTIONS; i++) {
    const [p, q] = [b - golden * (b - a), a + golden * (b - a)]
    if (curve(p) >= curve(q)) b = q
    else a = p
  }
  const candidates = [from, (a + b) / 2, to].map((share) => ({ share, c: curve(share) }))
  return candidates.reduce((best, at) => (at.c > best.c ? at : best))
}
