/** A schedule that is made from the start on: what was begun so far, and who is free when. */
export interface State {
  /** Everything before is decided. */
  now: number
  begins: Int32Array
  /** The earliest begin that is known; NONE while something before it is not begun. */
  ready: Int32Array
  left: Int16Array
  deadline: Int32Array
  /** By person, free from. */
  free: Int32Array
  /** By group: tasks left, last end so far; -1 begun not. */
  groupLeft: Int16Array
  groupEnd: Int32Array
  /** Tasks begun at this very moment come in this order, so that no set of them is made twice. */
  lastRank: number
  begun: number
  workLeft: number
  late: number
  finish: number
  score: number
  tie: number
}

/** Not begun, or not known yet. */
export const NONE = -1
/** A moment that no plan reaches; it fits into 32 bits. */
export const FAR = 2_000_000_000

export const copy = (s: State): State => ({
  ...s,
  begins: s.begins.slice(),
  ready: s.ready.slice(),
  left: s.left.slice(),
  deadline: s.deadline.slice(),
  free: s.free.slice(),
  groupLeft: s.groupLeft.slice(),
  groupEnd: s.groupEnd.slice(),
})

/** States with the same begun tasks and the same free people at the same moment go on alike. */
export function fingerprint(s: State): number {
  let hash = s.now | 0
  const mix = (v: number): void => {
    hash = Math.imul(hash ^ v, 0x01000193)
    hash ^= hash >>> 13
  }
  for (let i = 0; i < s.begins.length; i++) mix(s.begins[i] === NONE ? 0 : 1)
  for (const r of s.ready) mix(r)
  for (const f of [...s.free].sort((a, b) => a - b)) mix(f > s.now ? f : 0)
  return hash
}
