import type { USED_KINDS } from '../log/kinds'

/** What is kept on the shelf beside film: tapes by the metre, the rest by the piece, pot or bottle. */
export type SupplyKind = (typeof USED_KINDS)[number]
export const BY_METRE: readonly SupplyKind[] = ['filament', 'wire', 'masking', 'sealing', 'holding']

/** A pot of primer, thinly, and a bottle of alcohol reach so far, m². Assumed. */
export const M2_PER_POT = 2.5
export const M2_PER_BOTTLE = 8
