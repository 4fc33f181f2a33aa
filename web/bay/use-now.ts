'use client'

import { useEffect, useState } from 'react'
import { serverNow } from '@/web/kit/clock'

/** The time now by the server's clock, refreshed; null until the page is on screen. */
export function useNow(everyMs: number): number | null {
  const [now, setNow] = useState<number | null>(null)
  useEffect(() => {
    const tick = () => setNow(serverNow())
    const first = setTimeout(tick, 0)
    const id = setInterval(tick, everyMs)
    return () => {
      clearTimeout(first)
      clearInterval(id)
    }
  }, [everyMs])
  return now
}
