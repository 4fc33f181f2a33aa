import type { Panel } from '../schema'

export const GAP_MM = 4
export const ALU: Panel['surface'] = { material: 'aluminium', thicknessMm: 1.5 }
export const letters = (i: number, of: number): string => (of === 1 ? '' : ` ${i + 1}`)
export const range = (n: number): number[] => Array.from({ length: n }, (_, i) => i)
/** Rear doors as they lie along a roof's rear edge, from the right round to the left. */
export const rearDoors = (doors: number): string[] => range(doors).map((i) => `rear-door-${doors - i}`)
