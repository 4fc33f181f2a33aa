import { useEffect, useState } from 'react'
import type { Board, BoardFault } from '@/core/engines/schedule/shop-schedule'
import type { BoardAsk } from '@/web/workers/board.worker'

/** The board of all jobs, laid out anew in a worker whenever what it hangs on changes; null until it is there. */
export function useBoard(ask: BoardAsk): Board | BoardFault | null {
  const [board, setBoard] = useState<Board | BoardFault | null>(null)
  const key = JSON.stringify(ask)
  useEffect(() => {
    const worker = new Worker(new URL('../workers/board.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<Board | BoardFault>) => setBoard(data)
    worker.postMessage(JSON.parse(key) as BoardAsk)
    return () => worker.terminate()
  }, [key])
  return board
}
