import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { boardFrom, boardKey, type BoardInput, type SettledBoard } from '@/core/engines/schedule/settled-board'
import type { tryPin } from '@/core/engines/schedule/pins'
import type { Board, BoardFault } from '@/core/engines/schedule/shop-schedule'
import type { BoardAnswer, BoardAsk } from '@/web/workers/board.worker'

type Trial = ReturnType<typeof tryPin>
interface Keyed {
  key: string
  board: Board | BoardFault
}

/** A board as it was settled, with the key of what it hung on. */
export interface KeptBoard {
  key: string
  board: SettledBoard
}

const newWorker = (): Worker => new Worker(new URL('../workers/board.worker.ts', import.meta.url), { type: 'module' })

/**
 * The board of all jobs: as it was settled where that holds for what is asked, else laid out quickly in a worker whenever
 * what it hangs on changes; null until it is there. `attempt` tries work of one job at a moment: what comes out is shown
 * at once, whatever is still being laid out; `restore` takes it back.
 */
export function useBoard(ask: BoardInput, settled: KeptBoard | null) {
  const text = JSON.stringify(ask)
  const key = useMemo(() => boardKey(JSON.parse(text) as BoardInput), [text])
  const [quick, setQuick] = useState<Keyed | null>(null)
  const [tried, setTried] = useState<Keyed | null>(null)
  const [last, setLast] = useState(settled)
  if (settled !== null && settled.key !== last?.key) setLast(settled)
  const isSettled = settled?.key === key
  const latest = useRef({ ask, key })
  useEffect(() => {
    latest.current = { ask, key }
  })
  useEffect(() => {
    if (isSettled) return
    const worker = newWorker()
    worker.onmessage = ({ data }: MessageEvent<BoardAnswer>) => {
      if ('board' in data) setQuick({ key, board: data.board })
    }
    worker.postMessage(JSON.parse(text) as BoardAsk)
    return () => worker.terminate()
  }, [text, key, isSettled])
  const attempt = useCallback(
    (trial: NonNullable<BoardAsk['trial']>): Promise<Trial> =>
      new Promise((resolve, reject) => {
        const worker = newWorker()
        const { ask: own, key: at } = latest.current
        worker.onmessage = ({ data }: MessageEvent<BoardAnswer>) => {
          worker.terminate()
          if (!('trial' in data)) return
          if (data.trial.ok) setTried({ key: at, board: data.trial.board })
          resolve(data.trial)
        }
        worker.onerror = (event) => {
          worker.terminate()
          reject(new Error(event.message))
        }
        worker.postMessage({ ...own, trial } satisfies BoardAsk)
      }),
    [],
  )
  const restore = useCallback(() => setTried(null), [])
  const kept = useMemo(() => last && { key: last.key, board: boardFrom(last.board) }, [last])
  const standing = [kept, quick].find((b) => b?.key === key)
  // What was tried stands until what was saved of it is laid out; what stood before stands until there is another.
  const shown = tried?.key === key ? tried : (standing ?? tried ?? quick ?? kept)
  return { board: shown?.board ?? null, isSettled, attempt, restore }
}
