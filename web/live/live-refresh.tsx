'use client'

import { useRouter } from 'next/navigation'
import { useEffect } from 'react'
import { ASK_EVERY_MS, onLive, streamIsAlive } from './stream'

/** Changes that come close together draw the page anew once, ms. */
const PAUSE_MS = 700

/** Draws a page anew when something of these kinds changed in the shop; while the stream is silent, now and then. */
export function LiveRefresh({ kinds }: { kinds: readonly string[] }) {
  const router = useRouter()
  const wanted = kinds.join()
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    const soon = () => {
      clearTimeout(timer)
      timer = setTimeout(() => router.refresh(), PAUSE_MS)
    }
    const stop = onLive((news) => {
      if (wanted.split(',').includes(news.kind)) soon()
    })
    const clock = setInterval(() => {
      if (!streamIsAlive() && document.visibilityState === 'visible') soon()
    }, ASK_EVERY_MS)
    return () => {
      stop()
      clearTimeout(timer)
      clearInterval(clock)
    }
  }, [router, wanted])
  return null
}
