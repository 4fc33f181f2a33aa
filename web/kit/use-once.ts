'use client'

import { useCallback, useEffect, useRef } from 'react'

/** One run at a time: what is pressed again while it runs is not begun a second time. */
export function useOnce<A extends unknown[]>(work: (...args: A) => Promise<void>): (...args: A) => Promise<void> {
  const running = useRef(false)
  const latest = useRef(work)
  useEffect(() => {
    latest.current = work
  })
  return useCallback(async (...args: A) => {
    if (running.current) return
    running.current = true
    try {
      await latest.current(...args)
    } finally {
      running.current = false
    }
  }, [])
}
