import { z } from 'zod'

/** The stretch of one panel as it was solved on its surface, and the best ways found out of it. Fractions, mm². */
export const SolvedStretch = z.strictObject({
  worst: z.number().min(0).max(20),
  toPostHeatMm2: z.number().min(0),
  overMm2: z.number().min(0),
  wrinklesMm2: z.number().min(0),
  areaMm2: z.number().min(0),
  triangles: z.number().int().min(1),
  spot: z
    .strictObject({
      row: z.enum(['top', 'middle', 'bottom']),
      column: z.enum(['left', 'middle', 'right']),
      stretch: z.number(),
    })
    .nullable(),
  /** Outlines of what is stretched past the film's post-heat threshold, on the panel's surface, mm from its top left. */
  toPostHeat: z
    .array(
      z
        .array(z.tuple([z.number(), z.number()]))
        .min(3)
        .max(60),
    )
    .max(6)
    .default([]),
})
export type SolvedStretch = z.infer<typeof SolvedStretch>
/** By `stretchKey`. */
export type SolvedTable = Readonly<Record<string, SolvedStretch>>
