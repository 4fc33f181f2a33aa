import { STRETCH_FINENESS } from '@/core/model/catalogue/stretch-key'

/** Triangles of a panel's surface: of the first map, which is there at once, and of the one that figures settle on. */
export const COARSE = 300
export const FINE = STRETCH_FINENESS
