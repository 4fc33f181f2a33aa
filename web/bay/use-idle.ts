import { useCallback, useEffect, useRef, useState } from 'react'
import { isLocked, setLocked } from '@/web/job/at-this-tablet'
import { peopleKept } from './pins-here'

const LOOK_MS = 5000
const TOUCHES = ['pointerdown', 'keydown', 'wheel'] as const

/** Whether nobody touched the page for so many minutes; 0: it never counts as idle. */
export function useIdle(minutes: number): { idle: boolean; wake: () => void } {
  const last = useRef(0)
  const [idle, setIdle] = useState(() => minutes > 0 && isLocked())
  useEffect(() => {
    if (minutes <= 0) return
    last.current = Date.now()
    const touch = () => {
      last.current = Date.now()
    }
    for (const kind of TOUCHES) window.addEventListener(kind, touch, { passive: true })
    let open = true
    const look = async () => {
      if (Date.now() - last.current <= minutes * 60_000) return
      // Without a network only those are let in whose PIN this tablet keeps: where there are none, a lock waits for it.
      const canOpen = navigator.onLine || (await peopleKept().catch(() => [])).length > 0
      if (!canOpen || !open) return
      setLocked(true)
      setIdle(true)
    }
    const clock = setInterval(() => void look(), LOOK_MS)
    return () => {
      for (const kind of TOUCHES) window.removeEventListener(kind, touch)
      clearInterval(clock)
      open = false
    }
  }, [minutes])
  const wake = useCallback(() => {
    last.current = Date.now()
    setLocked(false)
    setIdle(false)
  }, [])
  return { idle, wake }
}
