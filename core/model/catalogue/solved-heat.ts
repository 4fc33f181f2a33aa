import { z } from 'zod'

/** How the gun goes along an edge of a metre of one material in one film, as it was solved; or why it cannot. */
export const SolvedHeat = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('plan'),
    /** Of the shop's guns. */
    gun: z.string().max(120),
    holdS: z.number().min(0),
    paceMmS: z.number().gt(0),
    passes: z.number().int().min(1),
    gapS: z.number().min(0),
    /** Begins so far before the edge, and ends so far past it; negative: within. mm. */
    beforeMm: z.number(),
    pastMm: z.number(),
    peakC: z.strictObject({ min: z.number(), max: z.number() }),
    /** Share of the edge whose peak lies in the film's band. */
    inBand: z.number().min(0).max(1),
  }),
  z.strictObject({
    kind: z.literal('none'),
    code: z.enum(['limit_below_band', 'cannot_reach', 'band_too_narrow']),
  }),
])
export type SolvedHeat = z.infer<typeof SolvedHeat>
/** By `heatKey`. */
export type HeatTable = Readonly<Record<string, SolvedHeat>>
