/** Triangles of a panel's surface as it is looked at, and as figures settle on it. */
export const FINE = 3000
