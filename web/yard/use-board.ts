import { useCallback, useEffect, useRef, useState } from 'react'
import type { tryPin } from '@/core/engines/schedule/pins'
import type { Board, BoardFault } from '@/core/engines/schedule/shop-schedule'
import type { BoardAnswer, BoardAsk } from '@/web/workers/board.worker'

type Trial = ReturnType<typeof tryPin>

const newWorker = (): Worker => new Worker(new URL('../workers/board.worker.ts', import.meta.url), { type: 'module' })

/**
 * The board of all jobs, laid out anew in a worker whenever what it hangs on changes; null until it is there. `attempt`
 * tries work of one job at a moment: what comes out is shown at once, whatever is still being laid out; `restore` takes it
 * back.
 */
export function useBoard(ask: Omit<BoardAsk, 'trial'>) {
  const [board, setBoard] = useState<Board | BoardFault | null>(null)
  const key = JSON.stringify(ask)
  const latest = useRef(ask)
  /** As it stands without a trial. */
  const standing = useRef<Board | BoardFault | null>(null)
  useEffect(() => {
    latest.current = ask
  })
  useEffect(() => {
    const worker = newWorker()
    worker.onmessage = ({ data }: MessageEvent<BoardAnswer>) => {
      if (!('board' in data)) return
      standing.current = data.board
      setBoard(data.board)
    }
    worker.postMessage(JSON.parse(key) as BoardAsk)
    return () => worker.terminate()
  }, [key])
  const attempt = useCallback(
    (trial: NonNullable<BoardAsk['trial']>): Promise<Trial> =>
      new Promise((resolve, reject) => {
        const worker = newWorker()
        worker.onmessage = ({ data }: MessageEvent<BoardAnswer>) => {
          worker.terminate()
          if (!('trial' in data)) return
          if (data.trial.ok) setBoard(data.trial.board)
          resolve(data.trial)
        }
        worker.onerror = (event) => {
          worker.terminate()
          reject(new Error(event.message))
        }
        worker.postMessage({ ...latest.current, trial } satisfies BoardAsk)
      }),
    [],
  )
  const restore = useCallback(() => setBoard(standing.current), [])
  return { board, attempt, restore }
}
