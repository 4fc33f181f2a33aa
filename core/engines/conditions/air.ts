/**
 * Magnus form over water with the constants of Alduchov and Eskridge. Source: docs/sources.md#alduchov-eskridge-1996.
 */
export const MAGNUS_A = 17.625
export const MAGNUS_B_C = 243.04

/** Dew point of air, °C. `humidity`: relative, 0-1 (above 0). Valid from −40 to 50 °C within 0.1 °C or so. */
export function dewPointC(airC: number, humidity: number): number {
  const gamma = Math.log(humidity) + (MAGNUS_A * airC) / (MAGNUS_B_C + airC)
  return (MAGNUS_B_C * gamma) / (MAGNUS_A - gamma)
}

/**
 * Minutes until a body at `fromC` reaches `targetC` in a room at `roomC`, held to have one temperature throughout
 * (lumped capacity): t = τ·ln((room − from) / (room − target)). Null where the room never brings it there.
 * Source: docs/sources.md#lumped-capacity.
 */
export function warmingMinutes(fromC: number, roomC: number, targetC: number, tauMin: number): number | null {
  if (fromC >= targetC) return 0
  if (roomC <= targetC) return null
  return tauMin * Math.log((roomC - fromC) / (roomC - targetC))
}

/** Time constant of a lumped body, minutes: m·c / (h·A). kg, J/kgK, W/m²K, m². */
export const timeConstantMin = (massKg: number, heatJPerKgK: number, filmWPerM2K: number, areaM2: number): number =>
  (massKg * heatJPerKgK) / (filmWPerM2K * areaM2) / 60
