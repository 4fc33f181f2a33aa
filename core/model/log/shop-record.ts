import { z } from 'zod'

/** What all finished jobs of a shop taught together. */
export const ShopRecord = z.strictObject({
  /** By the code of a step: in the middle, minutes taken for each minute of the rules. */
  steps: z.record(z.string(), z.strictObject({ cases: z.number().int().min(0), factor: z.number().gt(0) })),
  places: z.record(
    z.string(),
    z.strictObject({
      cases: z.number().int().min(0),
      pressed: z.number().int().min(0),
      redo: z.number().int().min(0),
    }),
  ),
})
export type ShopRecord = z.infer<typeof ShopRecord>
