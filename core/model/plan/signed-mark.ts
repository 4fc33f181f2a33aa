import { textHash } from '../../kit/random'
import type { Plan } from './schema'

/** A mark of all that a customer signs for; another mark later means that something was changed since. */
export function signedMark(plan: Plan): string {
  const { signature: _, ...walk } = plan.walkaround
  return textHash(JSON.stringify([plan.vehicle.name, plan.vehicle.colour, walk]))
}
