/**
 * A computation as a list of steps, each with the inputs it declares and the part it makes. A step whose inputs are the
 * very same as in the run before is not done again: its part is taken over.
 */
export interface SequenceStep<Parts> {
  makes: keyof Parts
  takes: readonly (keyof Parts)[]
  run: (parts: Parts) => Parts[keyof Parts]
}

/** A step that sees nothing but what it declares: `run` gets no other part by its type. */
export const stepIn =
  <Parts>() =>
  <Out extends keyof Parts, In extends keyof Parts>(
    makes: Out,
    takes: readonly In[],
    run: (parts: Pick<Parts, In>) => Parts[Out],
  ): SequenceStep<Parts> => ({ makes, takes, run })

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
    const same = previous !== null && step.takes.every((key) => parts[key] === previous[key])
    parts[step.makes] = same ? previous[step.makes] : step.run(parts)
  }
  return parts
}
