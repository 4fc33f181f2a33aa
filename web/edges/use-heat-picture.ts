import { useEffect, useState } from 'react'
import type { HeatPicture, PictureAsk } from '@/core/engines/heat/heat-picture'

export type PictureState = { kind: 'busy' } | { kind: 'failed' } | { kind: 'there'; picture: HeatPicture }

/** A changed figure waits so long for the next one, ms. */
const PAUSE_MS = 350

/** The picture of one sweep, made anew in a worker when what is asked changes; null asks for nothing. */
export function useHeatPicture(ask: PictureAsk | null): PictureState | null {
  const key = ask ? JSON.stringify(ask) : ''
  const [made, setMade] = useState<{ key: string; state: PictureState } | null>(null)
  useEffect(() => {
    if (key === '') return
    let worker: Worker | null = null
    const timer = setTimeout(() => {
      worker = new Worker(new URL('../workers/heat-picture.worker.ts', import.meta.url), { type: 'module' })
      worker.onmessage = ({ data }: MessageEvent<HeatPicture>) =>
        setMade({ key, state: { kind: 'there', picture: data } })
      worker.onerror = () => setMade({ key, state: { kind: 'failed' } })
      worker.postMessage(JSON.parse(key) as PictureAsk)
    }, PAUSE_MS)
    return () => {
      clearTimeout(timer)
      worker?.terminate()
    }
  }, [key])
  if (key === '') return null
  return made?.key === key ? made.state : { kind: 'busy' }
}
