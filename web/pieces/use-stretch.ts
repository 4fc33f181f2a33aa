import { unpackScan } from '@/core/engines/stretch/scan-file'
import { filmOf } from '@/core/model/plan/piece-choice'
import { stretchKey } from '@/core/model/catalogue/stretch-key'
import type { Plan } from '@/core/model/plan/schema'
import type { ScanSurface } from '@/core/solve/mesh/scan'

type Marks = Readonly<Record<string, string>> | undefined
export const keyOf = (plan: Plan, panelId: string, scans: Marks): string => {
  const panel = plan.panels.find((p) => p.id === panelId)
  const film = panel && filmOf(plan, panel)
  return panel && film ? stretchKey(plan, panel, film, scans?.[panelId]) : ''
}

/** A kept scan's surface; null where it cannot be had. */
export async function fetchScan(jobId: string, panelId: string): Promise<ScanSurface | null> {
  try {
    const reply = await fetch(`/api/jobs/${jobId}/scans/${panelId}`)
    const scan = reply.ok ? unpackScan(new Uint8Array(await reply.arrayBuffer())) : null
    return scan?.ok ? scan.value : null
  } catch {
    return null
  }
}
