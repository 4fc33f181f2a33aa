import { isRole, type Role } from '@/core/model/rights/rights'

/**
 * Who works at this tablet without having come in at the server yet: let in by their PIN while there was no network, over
 * the page of another member.
 */
export interface StandIn {
  id: string
  name: string
  role: Role
  /** Whose session the server knows meanwhile; once it is another's, nobody stands in any more. */
  over: string
}

const STAND_IN = 'cuirass/stand-in'
const LOCKED = 'cuirass/locked'

function kept(key: string): string | null {
  try {
    return sessionStorage.getItem(key)
  } catch {
    return null // a browser that keeps nothing knows of nobody
  }
}

/** False where this browser keeps nothing. */
function keep(key: string, value: string | null): boolean {
  try {
    if (value === null) sessionStorage.removeItem(key)
    else sessionStorage.setItem(key, value)
    return true
  } catch {
    return false
  }
}

const isText = (value: unknown): value is string => typeof value === 'string' && value !== ''
/** Anybody may write what a tab keeps. */
const isStandIn = (value: unknown): value is StandIn =>
  typeof value === 'object' &&
  value !== null &&
  Object.keys(value).length === 4 &&
  'id' in value &&
  isText(value.id) &&
  'name' in value &&
  isText(value.name) &&
  'over' in value &&
  isText(value.over) &&
  'role' in value &&
  isRole(value.role)

/** While this tab is open; null: whoever the server knows. */
export function standIn(): StandIn | null {
  try {
    const read: unknown = JSON.parse(kept(STAND_IN) ?? 'null')
    return isStandIn(read) ? read : null
  } catch {
    return null // no JSON is nobody
  }
}

/** Somebody is let in here. False where this browser keeps nothing: nobody is then. */
export const setStandIn = (who: StandIn): boolean => keep(STAND_IN, JSON.stringify(who))

/** Whoever the server lets in stands for themselves, at a tablet that is open. */
export function endStandIn(): void {
  keep(STAND_IN, null)
  setLocked(false)
}

/** A lock stays over a reload: without a network a page comes back whoever asks for it. */
export const isLocked = (): boolean => kept(LOCKED) !== null
export const setLocked = (locked: boolean): boolean => keep(LOCKED, locked ? 'yes' : null)
