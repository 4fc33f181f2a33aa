import type { Fault } from '@/core/kit/result'

/** What a route handler refused, as an error that a query keeps. */
export class ReadFault extends Error {
  constructor(readonly fault: Fault) {
    super(fault.code)
  }
}

/** Reads from a route handler of ours. Throws a `ReadFault` with its code. */
export async function read<T>(path: string, signal?: AbortSignal): Promise<T> {
  const response = await fetch(path, signal ? { signal } : {})
  const answer = (await response.json()) as { ok: true; value: T } | { ok: false; error: Fault }
  if (!answer.ok) throw new ReadFault(answer.error)
  return answer.value
}
