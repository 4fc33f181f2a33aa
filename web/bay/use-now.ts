'use client'

import { useEffect, useState } from 'react'

/** The time now, refreshed; null until the page is on screen. */
export function useNow(everyMs: number): number | null {
  const [now, setNow] = useState<number | null>(null)
  useEffect(() => {
    const tick = () => setNow(Date.now())
    const first = setTimeout(tick, 0)
    const id = setInterval(tick, everyMs)
    return () => {
      clearTimeout(first)
      clearInterval(id)
    }
  }, [everyMs])
  return now
}
