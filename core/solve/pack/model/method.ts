/** Every method of search that a portfolio may hold. */
export const METHODS = [
  'orders',
  'proof',
  'big_first',
  'beams',
  'exact',
  'batches',
  'recombine',
  'match',
  'dive',
  'perfect',
  'straight',
] as const

export type MethodName = (typeof METHODS)[number]

/** One method of a portfolio: when it takes part, and one step of it. */
export interface Method {
  readonly name: MethodName
  /** Share of the time that it is meant to take, against all of them. */
  readonly share: number
  /** Whether it takes part in this turn of this problem. */
  applies(turn: number): boolean
  step(turn: number): void
}

/** What a method made of its turns. */
export interface Gain {
  steps: number
  /** By so much the best plan became shorter in its steps. */
  length: number
}

export interface PortfolioRun {
  methods: readonly Method[]
  /** Left out, to see what each is worth. */
  without?: ReadonlySet<MethodName> | undefined
  done: () => boolean
  /** Length of the best plan. */
  length: () => number
  /** Told of each step that made the plan shorter. */
  gained?: ((name: MethodName, by: number) => void) | undefined
}

/** Turns that gain nothing, after which a search that lacks a method ends: many, for it may have a clock to end it. */
const IDLE_TURNS = 1000

/**
 * Turn by turn each method that applies takes a step, in the order of the list, until all is done. Answers what each
 * gained.
 */
export function runPortfolio({ methods, without, done, length, gained }: PortfolioRun): Map<MethodName, Gain> {
  const gains = new Map<MethodName, Gain>()
  const kept = methods.filter((m) => !without?.has(m.name))
  // Without the method that spends the rounds nothing else would end the search.
  const mostIdle = kept.length < methods.length ? IDLE_TURNS : Infinity
  let idle = 0
  for (let turn = 0; kept.length > 0 && idle < mostIdle && !done(); turn++) {
    idle++
    for (const method of kept) {
      if (done()) break
      if (!method.applies(turn)) continue
      const before = length()
      method.step(turn)
      const by = Number.isFinite(before) ? before - length() : 0
      const gain = gains.get(method.name) ?? { steps: 0, length: 0 }
      gains.set(method.name, { steps: gain.steps + 1, length: gain.length + by })
      if (by > 0) {
        idle = 0
        gained?.(method.name, by)
      }
    }
  }
  return gains
}
