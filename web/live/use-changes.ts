import { useEffect, useRef } from 'react'
import type { LogRow } from '@/core/model/log/schema'
import type { Changes } from '@/web/actions/live'
import { read } from '@/web/kit/read'
import { ASK_EVERY_MS, onLive, streamIsAlive } from './stream'

/**
 * Follows a job while its page is open: what the stream tells of is fetched and handed on; while the stream is silent
 * the page asks every ten seconds; after sleep, or when the network is back, it catches up at once. Entries that the
 * stream brings itself are `brought`. `asked`: raised by the page to be told now.
 */
export function useChanges(
  jobId: string,
  since: number,
  {
    took,
    brought,
    asked,
  }: { took: (changes: Changes) => void; brought: (rows: readonly LogRow[]) => void; asked: number },
): void {
  const latest = useRef({ took, brought })
  useEffect(() => {
    latest.current = { took, brought }
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
        latest.current.took(changes)
      } while (again)
      busy = false
    }
    pull.current = () => void fetchChanges()
    const stop = onLive((news) => {
      if ((news.job !== null && news.job !== jobId) || news.head <= head.current) return
      // What it brings is put in at once; the number stays, so that what was missed before is still asked for. An answer
      // that is under way may count the entry or not: then it is asked for once more.
      if (news.job === jobId && news.entries && !busy) latest.current.brought(news.entries)
      else void fetchChanges()
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
