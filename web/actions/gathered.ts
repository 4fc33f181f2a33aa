import { inLine } from './in-line'

const waiting = new Map<string, { items: unknown[]; work: Promise<unknown[]> }>()
/** More than this in one go, and the next ones form a group of their own. */
const MOST_AT_ONCE = 40

/**
 * Small writes to one thing: those that come while another is under way wait, and are then done together by one call of
 * `work`, which gives an answer each; other writes go before and
 * after them in the same `line`. Where that fails as a whole each is done alone, so that none suffers for another.
 */
export async function gathered<I, O>(
  { group: key, line }: { group: string; line: string },
  item: I,
  work: (items: I[]) => Promise<O[]>,
): Promise<O> {
  let group = waiting.get(key) as { items: I[]; work: Promise<O[]> } | undefined
  if (!group || group.items.length >= MOST_AT_ONCE) {
    const mine: { items: I[]; work: Promise<O[]> } = { items: [], work: Promise.resolve([]) }
    mine.work = inLine(line, () => {
      if (waiting.get(key) === mine) waiting.delete(key)
      return work(mine.items)
    })
    mine.work.catch(() => {
      if (waiting.get(key) === mine) waiting.delete(key)
    })
    waiting.set(key, mine)
    group = mine
  }
  const place = group.items.push(item) - 1
  try {
    return (await group.work)[place] as O
  } catch (error) {
    if (group.items.length === 1) throw error
    return (await inLine(line, () => work([item])))[0] as O
  }
}
