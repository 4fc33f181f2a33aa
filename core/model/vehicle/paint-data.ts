/** Days that a repaint stands before film goes on (assumed: the paint's own sheet decides). */
export const REPAINT_GAS_OUT_DAYS = 60
/** Paint younger than this comes off clean at removal. Common practice, no source. */
export const CLEAN_REMOVAL_YEARS = 5
/** ΔE00 from which body and film differ at every edge (assumed). */
export const STRONG_CONTRAST_DE = 25
/** A translucent film lighter than the body by this in L* shows the body through. Assumed. */
export const SHOWS_THROUGH_L = 25
/** Deeper wrap-under that a strong contrast asks for, mm (assumed). */
export const CONTRAST_WRAP_MM = 5
