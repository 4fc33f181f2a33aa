import type { MethodName } from '../model/method'
import { bars } from '../bound/bars'
import { bandsLength, type Band } from '../model/band'
import { dualFeasible, longest, raised } from '../bound/bound'
import { free } from '../free/free'
import { guillotine } from '../straight/guillotine'
import { type StripJob, type StripPlan } from '../model/strip-job'
import type { Kind } from '../model/kinds'
import { tidied } from '../polish/tidy'

const BRIEF_ROUNDS = 2000
const BRIEF_KINDS = 24
/** Tries at larger left-overs in a plan as long, and for plans of how many bands. */
const TIDY_ROUNDS = 300
const TIDY_BANDS = 200

export interface StripAsk {
  kinds: readonly Kind[]
  /** Gap included. */
  width: number
  rule: 'guillotine' | 'free'
  cuts: number
  random: StripJob['random']
  rounds: number
  spent: () => boolean
  /** True once the share of time meant for the bound is over. */
  boundSpent: () => boolean
  /** Share of the time that is gone, where there is a clock. */
  gone?: (() => number) | undefined
  without?: ReadonlySet<MethodName> | undefined
  gained?: ((name: MethodName, by: number) => void) | undefined
  /** True once even what makes a plan tidier has to stop. */
  tidySpent?: (() => boolean) | undefined
  better?: (bands: Band[], bound: number) => void
}

/**
 * One endless strip: a first plan at once, then the bound, then the search until it meets the bound or the budget
 * ends.
 */
export function strip(ask: StripAsk): StripPlan & { bound: number } {
  const { kinds, width } = ask
  if (kinds.length === 0) return { bands: [], length: 0, proven: true, bound: 0 }
  const quick = dualFeasible(kinds, width)
  const solve = ask.rule === 'free' ? free : guillotine
  const job: StripJob = {
    ...ask,
    price: quick.price,
    bound: Math.max(quick.bound, longest(kinds)),
    better: undefined,
  }
  const first = solve({ ...job, rounds: 0 })
  if (ask.better) ask.better(first.bands, job.bound)
  const tidy = (bands: Band[]) =>
    ask.rule === 'guillotine' && bands.length <= TIDY_BANDS && ask.rounds >= BRIEF_ROUNDS
      ? tidied({ ...job, spent: ask.tidySpent ?? ask.spent }, bands, Math.min(TIDY_ROUNDS, Math.floor(ask.rounds / 20)))
      : bands
  if (first.proven || ask.rounds === 0 || ask.spent()) return { ...first, bands: tidy(first.bands), bound: job.bound }
  // While figures are typed only few kinds are worth the sharper bound.
  const sharp =
    ask.rounds < BRIEF_ROUNDS && kinds.length > BRIEF_KINDS
      ? quick
      : bars(kinds, width, quick, () => ask.spent() || ask.boundSpent())
  const bound = raised(Math.max(sharp.bound, longest(kinds)), kinds)
  const better = ask.better
  const plan = solve({
    ...job,
    price: sharp.price,
    bound,
    relaxed: sharp.whole,
    prove: ask.rule !== 'free',
    better:
      better && ((bands, proven) => bandsLength(bands) < first.length - 1e-6 && better(bands, Math.max(bound, proven))),
  })
  const best = plan.length <= first.length ? plan : { ...first, proven: false }
  const sharpest = Math.max(bound, plan.bound ?? 0)
  return { ...best, bands: tidy(best.bands), bound: best.proven ? Math.max(sharpest, best.length) : sharpest }
}
