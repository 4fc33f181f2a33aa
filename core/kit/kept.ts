/**
 * What is made of one thing and of others beside it, made again only where one of them is another: a list of which one
 * item was changed costs that one item. Kept weakly, one answer a thing, and never changed by who reads it.
 */
export function keptFor<Key extends object, Beside extends readonly unknown[], Made>(
  make: (key: Key, ...beside: Beside) => Made,
): (key: Key, ...beside: Beside) => Made {
  const kept = new WeakMap<Key, { beside: Beside; made: Made }>()
  return (key, ...beside) => {
    const had = kept.get(key)
    if (had && isSameList(had.beside, beside)) return had.made
    const made = make(key, ...beside)
    kept.set(key, { beside, made })
    return made
  }
}

/** The same, where what lies beside it is many things: they have names. */
export function keptWith<Key extends object, Beside extends object, Made>(
  make: (key: Key, beside: Beside) => Made,
): (key: Key, beside: Beside) => Made {
  const kept = new WeakMap<Key, { beside: Beside; made: Made }>()
  return (key, beside) => {
    const had = kept.get(key)
    if (had && isSameRecord(had.beside, beside)) return had.made
    const made = make(key, beside)
    kept.set(key, { beside, made })
    return made
  }
}

/** Whether two lists hold the very same things in the same order. */
export function isSameList(a: readonly unknown[], b: readonly unknown[]): boolean {
  if (a.length !== b.length) return false
  for (let i = 0; i < a.length; i++) if (!Object.is(a[i], b[i])) return false
  return true
}

/** Whether two records hold the very same things under the same names. */
export function isSameRecord<T extends object>(a: T, b: T): boolean {
  // Counted, not listed: this is asked thousands of times a key.
  let more = 0
  for (const name in a) {
    if (!Object.is(a[name], b[name]) || !(name in b)) return false
    more++
  }
  for (const _ in b) more--
  return more === 0
}
