/** The element that is known to be there. Throws where it is not: that is a bug of ours, never bad input. */
export function nth<T>(list: ArrayLike<T>, index: number): T {
  const value = list[index]
  if (value === undefined) throw new RangeError(`no element ${index} of ${list.length}`)
  return value
}

/** The value of a key that is known to be there. Throws where it is not. */
export function mustGet<K, V>(map: ReadonlyMap<K, V>, key: K): V {
  const value = map.get(key)
  if (value === undefined) throw new RangeError(`no entry for ${String(key)}`)
  return value
}

/** A value that is known to be there. Throws where it is not. */
export function known<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new RangeError('nothing where something is known to be')
  return value
}
