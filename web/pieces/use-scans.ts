'use client'

import { useCallback, useEffect, useState } from 'react'
import type { ScanSurface } from '@/core/solve/mesh/scan'
import { packScan } from '@/core/engines/stretch/scan-file'
import { scanMark } from '@/core/model/catalogue/stretch-key'
import { useJob } from '@/web/job/job-state'
import { faultText } from '@/web/words/faults'
import { fetchScan } from './use-stretch'

export interface KeptScan {
  panelId: string
  name: string
  triangles: number
  by: string
  at: string
}

type Reply<T> = { ok: true; value: T } | { ok: false; error: Parameters<typeof faultText>[0] }

/** A scan kept with its panel, or taken away. Throws where nobody answers. */
async function sendScan(where: string, scan: ScanSurface | null, name: string): Promise<Reply<null>> {
  const response = scan
    ? await fetch(`${where}?name=${encodeURIComponent(name)}`, {
        method: 'PUT',
        body: new Blob([packScan(scan) as Uint8Array<ArrayBuffer>]),
      })
    : await fetch(where, { method: 'DELETE' })
  return (await response.json()) as Reply<null>
}

/** The scans kept with a job: which panels have one, the surface of the one looked at, and keeping or dropping one. */
export function useScans(jobId: string, panelId: string | null) {
  const { scansAre } = useJob('scansAre')
  const [kept, setKept] = useState<readonly KeptScan[]>([])
  const [surfaces, setSurfaces] = useState<ReadonlyMap<string, ScanSurface>>(new Map())
  const list = useCallback(async () => {
    try {
      const reply = (await (await fetch(`/api/jobs/${jobId}/scans`)).json()) as Reply<KeptScan[]>
      if (!reply.ok) return
      setKept(reply.value)
      // The plan's figures hang on them too.
      scansAre(Object.fromEntries(reply.value.map((k) => [k.panelId, scanMark(k)])))
    } catch {
      // Without a network the tape's own surfaces stand.
    }
  }, [jobId, scansAre])
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what the server has is known only here
    void list()
  }, [list])
  const has = panelId !== null && kept.some((k) => k.panelId === panelId)
  useEffect(() => {
    if (!has || panelId === null || surfaces.has(panelId)) return
    let gone = false
    void fetchScan(jobId, panelId).then((scan) => {
      if (!gone && scan) setSurfaces((was) => new Map(was).set(panelId, scan))
    })
    return () => {
      gone = true
    }
  }, [has, jobId, panelId, surfaces])
  /** Answers what went wrong, or nothing. */
  const keep = async (own: string, scan: ScanSurface | null, name: string): Promise<string> => {
    try {
      const reply = await sendScan(`/api/jobs/${jobId}/scans/${own}`, scan, name)
      if (!reply.ok) return faultText(reply.error)
      setSurfaces((was) => {
        const next = new Map(was)
        if (scan) next.set(own, scan)
        else next.delete(own)
        return next
      })
      await list()
      return ''
    } catch {
      return faultText({ code: 'no_answer' })
    }
  }
  return {
    kept,
    surface: has && panelId !== null ? (surfaces.get(panelId) ?? null) : null,
    waiting: has && panelId !== null && !surfaces.has(panelId),
    keep,
  }
}
