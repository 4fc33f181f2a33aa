import { surfaceMap, type SurfaceMap } from '@/core/stretch/surface-map'
import type { Panel } from '@/core/vehicle/schema'

export interface SurfaceAsk {
  panel: Panel
  limit: number
  shrink: number
}
export type SurfaceNews =
  | { kind: 'tick'; share: number }
  /** `coarse`: a first map, soon followed by a finer one. */
  | { kind: 'map'; map: SurfaceMap; coarse: boolean; ms: number }
  | { kind: 'fault'; code: string; at: string | null; facts: Record<string, string | number> }

const COARSE = 400
const FINE = 3000

/** A coarse map at once, then a fine one, off the main thread. Stopped by ending the worker. */
self.onmessage = ({ data }: MessageEvent<SurfaceAsk>) => {
  const post = (news: SurfaceNews) => self.postMessage(news)
  for (const triangles of [COARSE, FINE]) {
    const began = performance.now()
    let told = 0
    const out = surfaceMap(data.panel, {
      triangles,
      limit: data.limit,
      shrink: data.shrink,
      progress: (share) => {
        if (triangles === FINE && share > told + 0.05) post({ kind: 'tick', share: (told = share) })
      },
    })
    if (!out.ok) return post({ kind: 'fault', code: out.error.code, at: out.error.at ?? null, facts: out.error.facts ?? {} }) // prettier-ignore
    post({ kind: 'map', map: out.value, coarse: triangles === COARSE, ms: performance.now() - began })
  }
}
