'use client'

import { useEffect, useMemo, useRef, useState } from 'react'
import type { Fault } from '@/core/kit/result'
import type { Plan } from '@/core/model/plan/schema'
import { unpackScan } from '@/core/engines/stretch/scan-file'
import type { ScanSurface } from '@/core/solve/mesh/scan'
import { stretchKey, type SolvedStretch } from '@/core/model/catalogue/solved-stretch'
import { filmOf } from '@/core/engines/stretch/way-candidates'
import { useJob } from '@/web/job/job-state'
import type { StretchNews } from '@/web/workers/stretch.worker'
import { faultText } from '@/web/words/faults'
import { FINE } from './fineness'
import { makeReady, onWaiting, someoneWaits, startStretch } from './stretch-workers'

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

/**
 * Wait this long after a change before the maps are solved anew, and after somebody waited for a map before they go
 * on, ms.
 */
const PAUSE_MS = 900
const GIVEN_WAY_MS = 250
/** Solved stretches are handed on so many at a time. */
const BATCH = 6
/** A surface of fewer triangles is coarse: its stretch is solved once more when all others are known. */
const FINER_THAN = FINE / 2

/**
 * Solves the stretch of every panel that is not known yet, in the background; then the best ways out of those past
 * their limit; then all of them on finer surfaces. All is handed to the job as it comes. While somebody waits for
 * another map it stands back. Answers what could not be solved, and how many are left of the first and of the last.
 */
export function useSurvey(): { faults: ReadonlyMap<string, string>; left: number; finer: number } {
  const { plan, catalogue, solved, foundWays, jobId } = useJob()
  const [faults, setFaults] = useState<ReadonlyMap<string, string>>(new Map())
  const [left, setLeft] = useState({ first: 0, finer: 0 })
  useEffect(makeReady, [])
  const keys = useMemo(
    () =>
      new Map(
        plan.panels.filter((p) => p.wrap && filmOf(plan, p)).map((p) => [p.id, keyOf(plan, p.id, catalogue.scans)]),
      ),
    [plan, catalogue.scans],
  )
  const all = [...keys.values()].join()
  const latest = useRef({ plan, catalogue, asked: new Set<string>(), refined: new Set<string>() })
  useEffect(() => {
    latest.current = { ...latest.current, plan, catalogue }
  }, [plan, catalogue])
  useEffect(() => {
    let stop = () => {}
    const timer = setTimeout(() => {
      const { plan: now, catalogue: shop, asked, refined } = latest.current
      const known = shop.solved ?? {}
      const isOver = (v: SolvedStretch) => v.overMm2 + v.wrinklesMm2 > 0
      const ids = (wanted: (key: string, id: string) => boolean) =>
        new Set([...keys].filter(([id, key]) => wanted(key, id)).map(([id]) => id))
      const first = ids((key) => !known[key])
      const best = ids((key) => known[key] !== undefined && isOver(known[key]) && !asked.has(key))
      // A scan is as fine as it is.
      const finer = ids(
        (key, id) => !shop.scans?.[id] && !refined.has(key) && (known[key]?.triangles ?? 0) < FINER_THAN,
      )
      const count = () => setLeft({ first: first.size, finer: finer.size })
      count()
      if (first.size + best.size + finer.size === 0) return
      let batch: { key: string; value: SolvedStretch }[] = []
      const flush = () => {
        if (batch.length > 0) solved(batch)
        batch = []
      }
      let stopped = false
      let stopOwn: (() => void) | null = null
      let scans: ReadonlyMap<string, ScanSurface> | null = null
      let again: ReturnType<typeof setTimeout> | undefined
      const onMessage = (news: StretchNews) => {
        if (news.kind === 'survey') {
          const key = keys.get(news.panelId) as string
          if (news.fault) {
            setFaults((was) => new Map(was).set(news.panelId, faultText(news.fault as Fault)))
            finer.delete(news.panelId)
          }
          if (news.sum) {
            batch.push({ key, value: news.sum })
            if (isOver(news.sum) && !asked.has(key)) best.add(news.panelId)
          }
          if (!first.delete(news.panelId)) {
            finer.delete(news.panelId)
            refined.add(key)
          }
          if (batch.length >= BATCH || first.size === 0) flush()
          count()
        } else if (news.kind === 'best') {
          best.delete(news.panelId)
          asked.add(keys.get(news.panelId) as string)
          foundWays(
            news.panelId,
            news.ways.map((w) => ({ code: w.code, change: w.change, becomes: w.worst, facts: w.facts })),
          )
        } else if (news.kind === 'end') {
          stopOwn = null
          flush()
          first.clear()
          best.clear()
          finer.clear()
          count()
        }
      }
      const resume = () => {
        if (stopped || stopOwn || !scans || someoneWaits() || first.size + best.size + finer.size === 0) return
        stopOwn = startStretch(
          {
            kind: 'survey',
            plan: now,
            panelIds: [...first],
            bestIds: [...best],
            finerIds: [...finer],
            knownIds: [...keys].filter(([, key]) => asked.has(key)).map(([id]) => id),
            films: shop.films,
            scans,
          },
          onMessage,
          true,
        )
      }
      const yieldToUser = () => {
        clearTimeout(again)
        if (!someoneWaits()) again = setTimeout(resume, GIVEN_WAY_MS)
        else if (stopOwn) {
          stopOwn()
          stopOwn = null
          flush()
        }
      }
      const listen = onWaiting(yieldToUser)
      const scanned = [...new Set([...first, ...best])].filter((id) => shop.scans?.[id])
      void Promise.all(scanned.map(async (id) => [id, await fetchScan(jobId, id)] as const)).then((list) => {
        // A scan that cannot be had leaves its panel to the rule.
        for (const [id, s] of list) if (!s) for (const set of [first, best]) set.delete(id)
        scans = new Map(list.flatMap(([id, s]) => (s ? [[id, s] as const] : [])))
        resume()
      })
      stop = () => {
        stopped = true
        clearTimeout(again)
        listen()
        flush()
        stopOwn?.()
      }
    }, PAUSE_MS)
    return () => {
      clearTimeout(timer)
      stop()
    }
    // The keys say all that the maps hang on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [all])
  return { faults, left: left.first, finer: left.finer }
}
