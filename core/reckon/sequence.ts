/**
 * A computation as a list of steps, each with the inputs it declares and the part it makes. A step whose inputs are the
 * very same as in the run before is not done again: its part is taken over.
 */
export interface SequenceStep<Parts> {
  makes: keyof Parts
  takes: readonly (keyof Parts)[]
  run: (parts: Parts) => Parts[keyof Parts]
  /** Whether what came out is what came out before: then the part of before stands, and what hangs on it with it. */
  same?(before: Parts[keyof Parts], now: Parts[keyof Parts]): boolean
}

/** A step that sees nothing but what it declares: `run` gets no other part by its type. */
export const stepIn =
  <Parts>() =>
  <Out extends keyof Parts, In extends keyof Parts>(
    makes: Out,
    takes: readonly In[],
    run: (parts: Pick<Parts, In>) => Parts[Out],
    same?: (before: Parts[Out], now: Parts[Out]) => boolean,
  ): SequenceStep<Parts> => ({ makes, takes, run, ...(same ? { same } : {}) })

/**
 * All parts, from those given and the steps in order. Each step takes what is given or made before it; `previous` is a
 * run before this one.
 */
export function runSequence<Parts extends object, Given extends keyof Parts>(
  given: Pick<Parts, Given>,
  steps: readonly SequenceStep<Parts>[],
  previous: Parts | null = null,
): Parts {
  // Whole when the last step has run.
  const parts = { ...given } as Parts
  for (const step of steps) {
    parts[step.makes] = partOf(step, parts, previous)
  }
  return parts
}

function partOf<Parts extends object>(
  step: SequenceStep<Parts>,
  parts: Parts,
  previous: Parts | null,
): Parts[keyof Parts] {
  if (previous === null) return step.run(parts)
  const before = previous[step.makes]
  if (step.takes.every((key) => parts[key] === previous[key])) return before
  const now = step.run(parts)
  return step.same?.(before, now) ? before : now
}
