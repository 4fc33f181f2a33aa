import { z } from 'zod'

/** The schools of practice that a job takes. Every field is a choice with practitioners on both sides. */
export const Method = z.strictObject({
  name: z.string().trim().min(1).max(120),
  /** Film left beyond the panel all round. Careful school 50-100, thrifty 25-50. */
  bleedMm: z.number().min(5).max(200),
  /**
   * Relaxed off the panel first; tension sent to the edges in triangles; or the rim tacked and the slack shrunk out with
   * the gun.
   */
  tension: z.enum(['relax_first', 'triangles', 'rim_shrunk']),
  direction: z.enum(['always', 'directional_only']),
  order: z.enum(['flats_first', 'recesses_first']),
  liner: z.enum(['whole', 'halves']),
  wet: z.enum(['dry', 'glide']),
  hardware: z.enum(['strip', 'wrap_round']),
  heatSource: z.enum(['gun', 'torch', 'infra_red', 'steamer']),
  layWarm: z.enum(['room', 'warm_40', 'channel_65']),
  /** Edges locked down and then heated, or the other way; `film`: as the film's sheet says. */
  edges: z.enum(['film', 'press_then_heat', 'heat_then_press']).default('film'),
  /** Wheel arches turned in and stuck, shrunk back to the edge and cut flush, or cut flush at once. */
  wheelArch: z.enum(['turned', 'shrunk', 'flush']).default('turned'),
  /** Film tucked under seals, or cut in the gap beside them. */
  seals: z.enum(['tucked', 'cut_in_gap']).default('tucked'),
  /** Plain turned edges: heated and read at each, or heated and pressed without a reading. */
  plainEdges: z.enum(['proof', 'pressed']).default('proof'),
  /** What the customer wishes: film round every edge, quick work in closed gaps, or all of it flush. */
  coverage: z.enum(['full', 'quick', 'flush']).default('full'),
})
export type Method = z.infer<typeof Method>

/** Common practice, no source: the careful school as a shop would start with. */
export const CAREFUL: Method = {
  name: 'Careful, dry, flats first',
  bleedMm: 50,
  tension: 'triangles',
  direction: 'directional_only',
  order: 'flats_first',
  liner: 'whole',
  wet: 'dry',
  hardware: 'strip',
  heatSource: 'gun',
  layWarm: 'room',
  edges: 'film',
  wheelArch: 'turned',
  seals: 'tucked',
  plainEdges: 'proof',
  coverage: 'full',
}
export const THRIFTY: Method = {
  ...CAREFUL,
  name: 'Thrifty, relax first',
  bleedMm: 30,
  tension: 'relax_first',
  liner: 'halves',
}
export const METHODS: readonly Method[] = [CAREFUL, THRIFTY]
