import { differenceCiede2000, modeLab65, modeRgb, modeXyz65, parseHex, useMode as addMode, type Lab65 } from 'culori/fn'

// Only the colour spaces that are asked for.
addMode(modeRgb)
addMode(modeXyz65)
const lab65 = addMode(modeLab65)
const ciede2000 = differenceCiede2000()

/** Colour difference ΔE00 of two L*a*b* triples. Source: docs/sources.md#sharma-2005. */
export function labDifference(a: [number, number, number], b: [number, number, number]): number {
  const lab = ([l, x, y]: [number, number, number]): Lab65 => ({ mode: 'lab65', l, a: x, b: y })
  return ciede2000(lab(a), lab(b))
}

/** Lightness L* of an sRGB colour, 0 black to 100 white; null where it is no colour. */
export function hexLightness(hex: string): number | null {
  const colour = parseHex(hex)
  return colour ? lab65(colour).l : null
}

/** ΔE00 of two sRGB colours `#rrggbb`; null where one is no colour. */
export function hexDifference(a: string, b: string): number | null {
  const [x, y] = [parseHex(a), parseHex(b)]
  return x && y ? ciede2000(lab65(x), lab65(y)) : null
}
