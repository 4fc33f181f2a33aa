import { useEffect, useRef, useState } from 'react'
import type { EdgeHeatAsk } from '@/core/engines/heat/edge-heat'
import type { SolvedHeat } from '@/core/model/catalogue/solved-heat'

export type GunPlanState =
  { kind: 'idle' } | { kind: 'busy' } | { kind: 'failed' } | { kind: 'unmeasured' } | SolvedHeat

/** The gun's pace along an edge, worked out on request in a worker; ended when the page goes on. */
export function useGunPlan(): { state: GunPlanState; start: (ask: EdgeHeatAsk) => void; cancel: () => void } {
  const [state, setState] = useState<GunPlanState>({ kind: 'idle' })
  const worker = useRef<Worker | null>(null)
  const end = () => {
    worker.current?.terminate()
    worker.current = null
  }
  useEffect(() => end, [])
  const start = (ask: EdgeHeatAsk) => {
    end()
    const own = new Worker(new URL('../workers/heat.worker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    setState({ kind: 'busy' })
    own.onmessage = ({ data }: MessageEvent<SolvedHeat | null>) => {
      setState(data ?? { kind: 'unmeasured' })
      end()
    }
    own.onerror = () => {
      setState({ kind: 'failed' })
      end()
    }
    own.postMessage(ask)
  }
  const cancel = () => {
    end()
    setState({ kind: 'idle' })
  }
  return { state, start, cancel }
}
