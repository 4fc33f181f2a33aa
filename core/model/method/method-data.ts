import type { FilmSheet } from '../film/schema'
import type { Method } from './schema'

/** The schools, each field with its choices: the order in which a shop is asked for them. */
export const SCHOOLS = {
  order: ['flats_first', 'recesses_first'],
  tension: ['relax_first', 'triangles'],
  liner: ['whole', 'halves'],
  wet: ['dry', 'glide'],
  hardware: ['strip', 'wrap_round'],
  edges: ['film', 'press_then_heat', 'heat_then_press'],
  layWarm: ['room', 'warm_40', 'channel_65'],
  direction: ['always', 'directional_only'],
  heatSource: ['gun', 'torch', 'infra_red', 'steamer'],
} as const satisfies { [K in keyof Method]?: readonly Method[K][] }
export type School = keyof typeof SCHOOLS

/** What the schools change in the crew's minutes (assumed for an experienced crew; the job's pace goes on top). */
export const LINER_HALVES_LAY = 1.15
export const GLIDE_LAY = 0.95
export const WARM_LAY = 1.1
export const CHANNEL_RECESS = 1.3
/** Surface to press at in hot channels, and to lay at when warmed, °C. Common practice, no source. */
export const CHANNEL_C = { min: 65, max: 82 }
export const WARM_C = 40
/** Extra trimming round a part that stays on, minutes each (assumed). */
export const WRAP_ROUND_MIN = 8

export interface Veto {
  field: School
  value: string
  code: string
  facts: Record<string, string | number>
}

/** What a film's own sheet rules out of a method, and why. The sheet wins over the school. */
export function vetoes(method: Method, film: FilmSheet): Veto[] {
  const out: Veto[] = []
  const rule = (field: School, code: string, facts: Veto['facts'] = {}) =>
    out.push({ field, value: String(method[field]), code, facts: { film: film.name, ...facts } })
  if (method.heatSource === 'torch' && film.finish !== 'gloss') rule('heatSource', 'torch_gloss_only')
  if (method.edges !== 'film' && method.edges !== film.edgeOrder) rule('edges', 'veto_edges', { order: film.edgeOrder })
  if (method.layWarm === 'channel_65' && film.shapingC.max < 65)
    rule('layWarm', 'veto_too_warm', { max_c: film.shapingC.max, want_c: 65 })
  if (method.layWarm === 'warm_40' && film.shapingC.min > 40)
    rule('layWarm', 'veto_too_cool', { min_c: film.shapingC.min, want_c: 40 })
  if (method.tension === 'relax_first' && film.rollResidue === 0) rule('tension', 'veto_nothing_to_relax')
  return out
}
