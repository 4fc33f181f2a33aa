import type { EdgeTask, EdgeSweep } from './edge-task'

/** What of a sweep is turned while it is fitted. */
export type Knob = 'pace' | 'hold' | 'from' | 'to' | 'gap'

/** Steps by which the least-squares search feels about: share of the pace, s, mm, mm, s. */
const FEEL = { pace: 0.02, hold: 0.4, ends: 6, gap: 1.5 }

/** A sweep with some of its numbers turned by so many steps each, twelve at most. */
export function movedBy(sweep: EdgeSweep, names: readonly Knob[], by: readonly number[]): EdgeSweep {
  const next = { ...sweep }
  names.forEach((name, i) => {
    const step = Math.max(-12, Math.min(12, by[i]))
    if (name === 'pace') next.speedMmS *= Math.exp(FEEL.pace * step)
    else if (name === 'hold') next.holdS += FEEL.hold * step
    else if (name === 'from') next.fromMm += FEEL.ends * step
    else if (name === 'to') next.toMm += FEEL.ends * step
    else next.gapS += FEEL.gap * step
  })
  return next
}

/** A sweep within what the task allows. */
export function within(task: EdgeTask, sweep: EdgeSweep): EdgeSweep {
  const { speedMmS, holdMaxS, gapMaxS, reachMm, panel } = task
  const lengthMm = panel.lengthM * 1000
  const inner = Math.min(reachMm, lengthMm / 3)
  const clamp = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v))
  // Figures that a hand can keep: what is finer is not carried out.
  const round = (v: number, parts: number) => Math.round(v * parts) / parts
  return {
    ...sweep,
    speedMmS: clamp(round(sweep.speedMmS, 100), speedMmS.min, speedMmS.max),
    holdS: clamp(round(sweep.holdS, 20), 0, holdMaxS),
    gapS: sweep.passes > 1 ? clamp(round(sweep.gapS, 10), 0, gapMaxS) : 0,
    fromMm: clamp(round(sweep.fromMm, 2), -reachMm, inner),
    toMm: clamp(round(sweep.toMm, 2), lengthMm - inner, lengthMm + reachMm),
  }
}
