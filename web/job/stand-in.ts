import { z } from 'zod'
import { ROLES } from '@/core/model/rights/rights'

/** Who works at this tablet without having come in at the server yet: let in by their PIN while there was no network. */
const StandIn = z.strictObject({ id: z.string().min(1), name: z.string().min(1), role: z.enum(ROLES) })
export type StandIn = z.infer<typeof StandIn>

const KEY = 'cuirass/stand-in'

/** While this tab is open; null: whoever the server knows. */
export function standIn(): StandIn | null {
  try {
    const read = StandIn.safeParse(JSON.parse(sessionStorage.getItem(KEY) ?? 'null'))
    return read.success ? read.data : null
  } catch {
    return null // a browser that keeps nothing knows of no stand-in
  }
}

/** False where this browser keeps nothing: nobody is let in then. */
export function setStandIn(who: StandIn | null): boolean {
  try {
    if (who === null) sessionStorage.removeItem(KEY)
    else sessionStorage.setItem(KEY, JSON.stringify(who))
    return true
  } catch {
    return false
  }
}
