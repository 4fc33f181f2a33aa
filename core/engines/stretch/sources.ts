/** Where the closed forms come from. */
export const GEOMETRY = 'docs/sources.md#geometry'
export const MILNOR = 'docs/sources.md#milnor-1969'
