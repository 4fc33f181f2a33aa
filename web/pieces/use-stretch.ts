'use client'

import { useEffect, useMemo, useRef, useState } from 'react'
import type { Fault } from '@/core/kit/result'
import type { Plan } from '@/core/plan/schema'
import { unpackScan } from '@/core/stretch/scan-file'
import type { ScanSurface } from '@/core/stretch/scan'
import { stretchKey, type SolvedStretch } from '@/core/stretch/solved'
import { filmOf } from '@/core/stretch/ways'
import { useJob } from '@/web/job/job-state'
import type { StretchAsk, StretchNews } from '@/web/workers/stretch.worker'
import { faultText } from '@/web/words/sentences'

const fresh = (): Worker => new Worker(new URL('../workers/stretch.worker.ts', import.meta.url), { type: 'module' })
/** A worker that is loaded already, so that the next map does not wait for it. */
let spare: Worker | null = null
function warm(): void {
  if (spare) return
  spare = fresh()
  spare.postMessage({ kind: 'warm' } satisfies StretchAsk)
}

/** A worker for one ask; ended when the ask changes or the page is left. */
export function startStretch(ask: StretchAsk, on: (news: StretchNews) => void): () => void {
  const own = spare ?? fresh()
  spare = null
  own.onmessage = ({ data }: MessageEvent<StretchNews>) => {
    on(data)
    if (data.kind === 'end') warm()
  }
  own.onerror = () => on({ kind: 'fault', fault: { code: 'no_worker' } })
  own.postMessage(ask)
  return () => {
    own.terminate()
    warm()
  }
}

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

/** Wait this long after a change before the maps are solved anew, ms. */
const PAUSE_MS = 900
/** Solved stretches are handed on so many at a time. */
const BATCH = 6

/**
 * Solves the stretch of every panel that is not known yet, in the background, and then the best ways out of those past
 * their limit: both are handed to the job. Answers what could not be solved, and how many are left.
 */
export function useSurvey(): { faults: ReadonlyMap<string, string>; left: number } {
  const { plan, catalogue, solved, foundWays, jobId } = useJob()
  const [faults, setFaults] = useState<ReadonlyMap<string, string>>(new Map())
  const [left, setLeft] = useState(0)
  const keys = useMemo(() => new Map(plan.panels.filter((p) => p.wrap && filmOf(plan, p)).map((p) => [p.id, keyOf(plan, p.id, catalogue.scans)])), [plan, catalogue.scans])
  const all = [...keys.values()].join()
  const latest = useRef({ plan, catalogue, asked: new Set<string>() })
  useEffect(() => {
    latest.current = { ...latest.current, plan, catalogue }
  }, [plan, catalogue])
  useEffect(() => {
    let stop = () => {}
    const timer = setTimeout(() => {
      const { plan: now, catalogue: shop, asked } = latest.current
      const known = shop.solved ?? {}
      const todo = [...keys].filter(([, key]) => !known[key] || (known[key].overMm2 + known[key].wrinklesMm2 > 0 && !asked.has(key))).map(([id]) => id)
      setLeft(todo.length)
      if (todo.length === 0) return
      let batch: { key: string; value: SolvedStretch }[] = []
      const hand = () => {
        if (batch.length > 0) solved(batch)
        batch = []
      }
      let gone = false
      let own = () => {}
      const begin = (scans: ReadonlyMap<string, ScanSurface>) => {
      // A scan that cannot be had leaves its panel to the rule.
      const panelIds = todo.filter((id) => !shop.scans?.[id] || scans.has(id))
      own = startStretch({ kind: 'survey', plan: now, panelIds, films: shop.films, best: true, scans }, (news) => {
        if (news.kind === 'survey') {
          const key = keys.get(news.panelId) as string
          if (news.sum) batch.push({ key, value: news.sum })
          if (news.fault) setFaults((was) => new Map(was).set(news.panelId, faultText(news.fault as Fault)))
          if (batch.length >= BATCH) hand()
          setLeft((n) => Math.max(0, n - 1))
        } else if (news.kind === 'best') {
          hand()
          asked.add(keys.get(news.panelId) as string)
          foundWays(news.panelId, news.ways.map((w) => ({ code: w.code, change: w.change, becomes: w.worst, facts: w.facts })))
        } else if (news.kind === 'end') hand()
      })
      }
      const scanned = todo.filter((id) => shop.scans?.[id])
      if (scanned.length === 0) begin(new Map())
      else
        void Promise.all(scanned.map(async (id) => [id, await fetchScan(jobId, id)] as const)).then((list) => {
          if (!gone) begin(new Map(list.flatMap(([id, s]) => (s ? [[id, s] as const] : []))))
        })
      stop = () => {
        gone = true
        hand()
        own()
      }
    }, PAUSE_MS)
    return () => {
      clearTimeout(timer)
      stop()
    }
    // The keys say all that the maps hang on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [all])
  return { faults, left }
} // prettier-ignore
