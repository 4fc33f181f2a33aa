import { useEffect, useRef } from 'react'
import type { Changes } from '@/web/actions/live'
import { read } from '@/web/kit/read'
import { ASK_EVERY_MS, onLive, streamIsAlive } from './stream'

/**
 * Follows a job while its page is open: what the stream tells of is fetched and handed on; while the stream is silent
 * the page asks every ten seconds; after sleep, or when the network is back, it catches up at once. `asked`: raised by
 * the page to be told now.
 */
export function useChanges(jobId: string, since: number, took: (changes: Changes) => void, asked: number): void {
  const latest = useRef(took)
  useEffect(() => {
    latest.current = took
  })
  const head = useRef(since)
  const pull = useRef<() => void>(() => {})
  useEffect(() => {
    let [open, busy, again] = [true, false, false]
    const fetchChanges = async () => {
      if (busy) return void (again = true)
      busy = true
      do {
        again = false
        const changes = await read<Changes>(`/api/jobs/${jobId}/changes?since=${head.current}`).catch(() => null)
        if (!open || !changes) break // offline: the next word of the stream, or the clock, asks again
        head.current = Math.max(head.current, changes.head)
        latest.current(changes)
      } while (again)
      busy = false
    }
    pull.current = () => void fetchChanges()
    const stop = onLive((news) => {
      if ((news.job === null || news.job === jobId) && news.head > head.current) void fetchChanges()
    })
    const clock = setInterval(() => {
      if (!streamIsAlive()) void fetchChanges()
    }, ASK_EVERY_MS)
    const back = () => {
      if (document.visibilityState === 'visible') void fetchChanges()
    }
    document.addEventListener('visibilitychange', back)
    window.addEventListener('online', back)
    return () => {
      open = false
      stop()
      clearInterval(clock)
      document.removeEventListener('visibilitychange', back)
      window.removeEventListener('online', back)
    }
  }, [jobId])
  useEffect(() => {
    if (asked > 0) pull.current()
  }, [asked])
}
