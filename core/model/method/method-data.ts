import type { Method } from './schema'

/** The schools, each field with its choices: the order in which a shop is asked for them. */
export const SCHOOLS = {
  order: ['flats_first', 'recesses_first'],
  tension: ['relax_first', 'triangles', 'rim_shrunk'],
  liner: ['whole', 'halves'],
  wet: ['dry', 'glide'],
  hardware: ['strip', 'wrap_round'],
  edges: ['film', 'press_then_heat', 'heat_then_press'],
  wheelArch: ['turned', 'shrunk', 'flush'],
  seals: ['tucked', 'cut_in_gap'],
  plainEdges: ['proof', 'pressed'],
  coverage: ['full', 'quick', 'flush'],
  layWarm: ['room', 'warm_40', 'channel_65'],
  direction: ['always', 'directional_only'],
  heatSource: ['gun', 'torch', 'infra_red', 'steamer'],
} as const satisfies { [K in keyof Method]?: readonly Method[K][] }

export type School = keyof typeof SCHOOLS

/** What the schools change in the crew's minutes (assumed for an experienced crew; the job's pace goes on top). */
export const LINER_HALVES_LAY = 1.15
/** Rim tacked, then the slack chased out wrinkle by wrinkle. */
export const RIM_SHRUNK_LAY = 1.2
export const GLIDE_LAY = 0.95
export const WARM_LAY = 1.1
export const CHANNEL_RECESS = 1.3
/** Surface to press at in hot channels, and to lay at when warmed, °C. Common practice, no source. */
export const CHANNEL_C = { min: 65, max: 82 }
export const WARM_C = 40
/** Extra trimming round a part that stays on, minutes each (assumed). */
export const WRAP_ROUND_MIN = 8
