import type { Solvers } from '@/core/reckon/solvers'
import { late } from '@/web/kit/late'

/** Packing and clipping: asked only where a layout is not solved yet, or pieces are cut to their outlines. */
export const lateSolvers = late(async () => (await import('@/core/reckon/solvers')).SOLVERS)
/** Checking by the schemas: asked once something is typed or logged. */
export const lateChecks = late(() => import('./checks'))

/** Thrown by a reckoning that cannot do without the solvers. */
export class SolversWanted extends Error {}

function solvers(): Solvers {
  const here = lateSolvers.now()
  if (!here) throw new SolversWanted('the solvers are not loaded yet')
  return here
}

/** The solvers as soon as they are loaded; the same thing all along, so that nothing is reckoned anew for it. */
export const SOLVERS_WHEN_LOADED: Solvers = {
  layout: {
    chooseSource: (...given) => solvers().layout.chooseSource(...given),
    layParts: (...given) => solvers().layout.layParts(...given),
    lengthBound: (...given) => solvers().layout.lengthBound(...given),
  },
  outlines: {
    measured: (...given) => solvers().outlines.measured(...given),
    flat: (...given) => solvers().outlines.flat(...given),
  },
}
