import type { Fault } from '@/core/kit/result'

type Answer<T> = { ok: true; value: T } | { ok: false; error: Fault }

/** A server action called from the page; a dead network becomes an answer too. */
export async function call<T>(action: (input: unknown) => Promise<Answer<T>>, input: unknown): Promise<Answer<T>> {
  try {
    return await action(input)
  } catch {
    return { ok: false, error: { code: 'no_answer' } }
  }
}

/** A random id also where the page is not served over a secure connection. */
export function newId(): string {
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID()
  const b = crypto.getRandomValues(new Uint8Array(16))
  b[6] = ((b[6] ?? 0) & 0x0f) | 0x40
  b[8] = ((b[8] ?? 0) & 0x3f) | 0x80
  const hex = [...b].map((x) => x.toString(16).padStart(2, '0')).join('')
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`
}
