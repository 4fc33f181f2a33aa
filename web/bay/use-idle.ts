import { useEffect, useRef, useState } from 'react'

const LOOK_MS = 5000
const TOUCHES = ['pointerdown', 'keydown', 'wheel'] as const

/** Whether nobody touched the page for so many minutes; 0: it never counts as idle. */
export function useIdle(minutes: number): { idle: boolean } {
  const last = useRef(0)
  const [idle, setIdle] = useState(false)
  useEffect(() => {
    if (minutes <= 0) return
    last.current = Date.now()
    const touch = () => {
      last.current = Date.now()
    }
    for (const kind of TOUCHES) window.addEventListener(kind, touch, { passive: true })
    // Without a network nobody could be let in again: a lock waits for it.
    const clock = setInterval(() => {
      if (navigator.onLine && Date.now() - last.current > minutes * 60_000) setIdle(true)
    }, LOOK_MS)
    return () => {
      for (const kind of TOUCHES) window.removeEventListener(kind, touch)
      clearInterval(clock)
    }
  }, [minutes])
  return { idle }
}
