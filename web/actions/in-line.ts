import { ThreadFault } from '@/web/threads/pool'

/** How many may stand in line for one thing, and how long, before they are turned away. */
const MOST_IN_LINE = 60
const LONGEST_WAIT_MS = 6000
const lines = new Map<string, { tail: Promise<unknown>; length: number }>()

/**
 * Writes to one job go one after the other within this process: those that would wait for the same row wait here,
 * without holding a connection that others need. Errors: ThreadFault too_much_at_once.
 */
export async function inLine<T>(key: string, work: () => Promise<T>): Promise<T> {
  const line = lines.get(key) ?? { tail: Promise.resolve(), length: 0 }
  if (line.length >= MOST_IN_LINE) throw new ThreadFault('too_much_at_once')
  lines.set(key, line)
  line.length++
  const since = performance.now()
  const begin = (): Promise<T> => {
    if (performance.now() - since > LONGEST_WAIT_MS) throw new ThreadFault('too_much_at_once')
    return work()
  }
  const mine = line.tail.then(begin, begin)
  line.tail = mine.catch(() => {})
  try {
    return await mine
  } finally {
    line.length--
    if (line.length === 0) lines.delete(key)
  }
}
