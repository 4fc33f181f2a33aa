import type { Edge } from '../vehicle/schema'

/**
 * Film left at an edge after trimming, mm, by what the edge meets. Common practice, no source; the film's sheet wins.
 */
export interface EdgeRule {
  wrapUnderMm: number
  /** The range in use: less where nobody takes hold of it, more where hands and weather do. */
  fromMm: number
  toMm: number
  /** Turned under by 180°, as against in by 90°. */
  under: boolean
  /** Needs a temperature reading after post-heat. */
  heatPoint: boolean
  /** Sealing tape goes on afterwards. */
  sealTape: boolean
  /** Tape laid first, for the blade to ride on or to cut by filament. */
  cutTape: boolean
  trimMinPerM: number
}

const rule = (over: Partial<EdgeRule>): EdgeRule => ({
  wrapUnderMm: 10,
  fromMm: 10,
  toMm: 10,
  under: false,
  heatPoint: false,
  sealTape: false,
  cutTape: false,
  trimMinPerM: 3,
  ...over,
})

export const EDGE_RULES: Record<Edge['meets'], EdgeRule> = {
  opening: rule({ toMm: 15, under: true, heatPoint: true, trimMinPerM: 4 }),
  fixed_gap: rule({ wrapUnderMm: 3, fromMm: 3, toMm: 3 }),
  rubber_seal: rule({ fromMm: 3, toMm: 19, trimMinPerM: 5 }),
  window_trim: rule({ fromMm: 3, toMm: 19, trimMinPerM: 5 }),
  wheel_arch: rule({ wrapUnderMm: 25, fromMm: 25, toMm: 25, under: true, heatPoint: true, trimMinPerM: 5 }),
  drip_rail: rule({ wrapUnderMm: 8, fromMm: 6, toMm: 10, trimMinPerM: 4 }),
  bumper_underside: rule({
    wrapUnderMm: 8,
    fromMm: 6,
    toMm: 10,
    under: true,
    heatPoint: true,
    sealTape: true,
    trimMinPerM: 4,
  }),
  glass: rule({ fromMm: 3, toMm: 19, trimMinPerM: 5 }),
  lamp: rule({ trimMinPerM: 6 }),
  free: rule({ toMm: 15, under: true, heatPoint: true, trimMinPerM: 5 }),
  bead: rule({ wrapUnderMm: 0, fromMm: 0, toMm: 6, cutTape: true }),
}

/** An inlay turns so far round the corner of its recess, mm. Common practice, no source. */
export const INLAY_TURN_MM = 6

/** Film still needed beyond the wrap-under to take hold of while tucking, mm (assumed). */
export const GRIP_MM = 25
