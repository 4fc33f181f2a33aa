import { useEffect, useState } from 'react'
import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import type { Panel } from '@/core/model/vehicle/schema'
import type { ScanSurface } from '@/core/solve/mesh/scan'
import { useJob } from '@/web/job/job-state'
import { faultText } from '@/web/words/faults'
import type { StretchNews } from '@/web/workers/stretch.worker'
import { startQuick, startStretch } from './stretch-workers'
import { keyOf } from './use-stretch'

interface State {
  /** What the map was solved for. */
  key: string
  map: SurfaceMap | null
  coarse: boolean
  share: number
  fault: string
}
const NOTHING: State = { key: '', map: null, coarse: true, share: 0, fault: '' }

/** How the film of a panel is laid: what a map of its stretch hangs on beside the plan. */
export interface Laying {
  pull: 'tightest' | 'even'
  /** All at once, whatever order the method has. */
  atOnce: boolean
  /** How far the film goes over the edges [mm]; 0 where it is not turned. */
  flangeMm: number
}

/** The map of a panel's stretch, solved in a worker: first a coarse one, then a finer. `key` says what it was asked for. */
export function useStretchMap(panel: Panel, scan: ScanSurface | null, laying: Laying) {
  const { plan, catalogue } = useJob('plan', 'catalogue')
  const [state, setState] = useState<State>(NOTHING)
  const { pull, atOnce, flangeMm } = laying
  const planKey = keyOf(plan, panel.id, catalogue.scans)
  const key = `${planKey} ${pull} ${String(atOnce)} ${flangeMm} ${scan ? scan.positions.length : 0}`
  useEffect(() => {
    const ask = { plan, panelId: panel.id, pull, atOnce, flangeMm, scan }
    const onMessage = (news: StretchNews) => {
      if (news.kind === 'tick') setState((s) => ({ ...s, share: news.share }))
      else if (news.kind === 'map')
        setState({ key, map: news.map, coarse: news.coarse, share: news.coarse ? 0 : 1, fault: '' })
      else if (news.kind === 'fault') setState({ ...NOTHING, key, coarse: false, fault: faultText(news.fault) })
    }
    // A scan is as fine as it is: there is no coarser map of it.
    if (scan) return startStretch({ kind: 'map', ...ask }, onMessage)
    let finer = () => {}
    const first = startQuick(ask, (news) => {
      onMessage(news)
      if (news.kind === 'map') finer = startStretch({ kind: 'map', ...ask }, onMessage)
    })
    return () => {
      first()
      finer()
    }
    // The key says all that the map hangs on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key])
  return { ...state, key, stale: state.key !== key }
}
