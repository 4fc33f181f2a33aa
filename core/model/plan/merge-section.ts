/** Both set one and the same thing, each to something else. */
export const CLASH = Symbol('clash')

/** Whether two parts of a plan say the same. */
export const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b)
const isRecord = (x: unknown): x is Readonly<Record<string, unknown>> =>
  typeof x === 'object' && x !== null && !Array.isArray(x)

/**
 * Two people's changes of one section put together, field by field, entry by entry: what only one of them touched is as
 * that one left it. `CLASH` where both changed the same field, and not alike. Lists go by the ids of their entries, in
 * the order of *mine*, then what *theirs* added.
 */
export function mergeSection(was: unknown, my: unknown, their: unknown): unknown {
  if (same(my, was)) return their
  if (same(their, was) || same(my, their)) return my
  if (isRecord(was) && isRecord(my) && isRecord(their)) {
    const merged = mergeEntries(
      new Map(Object.entries(was)),
      new Map(Object.entries(my)),
      new Map(Object.entries(their)),
    )
    return merged ? Object.fromEntries(merged) : CLASH
  }
  const [before, mine, theirs] = [was, my, their].map(byKey)
  const merged = before && mine && theirs ? mergeEntries(before, mine, theirs) : null
  return merged ? [...merged.values()] : CLASH
}

function mergeEntries(
  was: ReadonlyMap<string, unknown>,
  my: ReadonlyMap<string, unknown>,
  their: ReadonlyMap<string, unknown>,
): Map<string, unknown> | null {
  const out = new Map<string, unknown>()
  for (const key of new Set([...my.keys(), ...their.keys()])) {
    const merged = mergeSection(was.get(key), my.get(key), their.get(key))
    if (merged === CLASH) return null
    if (merged !== undefined) out.set(key, merged)
  }
  return out
}

/** Entries by what tells them apart; null where nothing does, as of bare numbers. */
function byKey(list: unknown): ReadonlyMap<string, unknown> | null {
  if (!Array.isArray(list)) return null
  const out = new Map<string, unknown>()
  for (const item of list as unknown[]) {
    const key = keyOf(item)
    if (key === null || out.has(key)) return null
    out.set(key, item)
  }
  return out
}

/** A word, the id of a thing or of what it belongs to, or a pair of ids. */
function keyOf(item: unknown): string | null {
  if (typeof item === 'string') return item
  if (Array.isArray(item)) return item.every((x) => typeof x === 'string') ? item.join('+') : null
  if (!isRecord(item)) return null
  const id = item.id ?? item.filmId ?? item.panelId
  return typeof id === 'string' ? id : null
}
