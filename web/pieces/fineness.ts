/**
 * Triangles of a panel's surface: of the first map, which is there at once; and as it is looked at and figures settle
 * on it.
 */
export const COARSE = 300
export const FINE = 3000
