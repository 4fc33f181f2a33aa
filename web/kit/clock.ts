'use client'

import { useSyncExternalStore } from 'react'

/** Less than this is the time an answer takes, ms. */
const NO_OFFSET_MS = 2000
const KEY = 'cuirass/clock-offset-ms'

let offsetMs: number | null = null
const listeners = new Set<() => void>()

function kept(): number {
  try {
    return Number(localStorage.getItem(KEY) ?? 0) || 0
  } catch {
    return 0 // a browser that keeps nothing begins without an offset
  }
}

/** How far this device's clock stands behind the server's, ms, as far as it is known. */
export const clockOffsetMs = (): number => (offsetMs ??= kept())
/** Now, by the server's clock. */
export const serverNow = (): number => Date.now() + clockOffsetMs()

/** Takes the server's time from an answer; `sentMs` is when it was asked, by this device's clock. */
export function learnServerTime(answer: Response, sentMs: number): void {
  const said = Date.parse(answer.headers.get('date') ?? '')
  if (!Number.isFinite(said)) return
  // The header is cut to whole seconds: half of one more is the best guess.
  const offset = said + 500 - (sentMs + Date.now()) / 2
  const next = Math.abs(offset) < NO_OFFSET_MS ? 0 : Math.round(offset)
  if (Math.abs(next - clockOffsetMs()) < NO_OFFSET_MS) return
  offsetMs = next
  try {
    localStorage.setItem(KEY, String(next))
  } catch {
    // known while the page is open
  }
  for (const listener of listeners) listener()
}

/** The offset as it becomes known. */
export const useClockOffsetMs = (): number =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    clockOffsetMs,
    () => 0,
  )
