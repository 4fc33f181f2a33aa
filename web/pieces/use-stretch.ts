'use client'

import { useEffect, useMemo, useRef, useState } from 'react'
import { choiceFor } from '@/core/plan/new-plan'
import type { Plan } from '@/core/plan/schema'
import { filmOf, type SolvedWay } from '@/core/stretch/ways'
import type { PanelSurvey, StretchAsk, StretchNews } from '@/web/workers/stretch.worker'
import { faultText } from '@/web/words/sentences'

/** A worker for one ask; ended when the ask changes or the page is left. */
export function startStretch(ask: StretchAsk, on: (news: StretchNews) => void): () => void {
  const own = new Worker(new URL('../workers/stretch.worker.ts', import.meta.url), { type: 'module' })
  own.onmessage = ({ data }: MessageEvent<StretchNews>) => on(data)
  own.onerror = () => on({ kind: 'fault', fault: { code: 'no_worker' } })
  own.postMessage(ask)
  return () => own.terminate()
}

/** What of a plan the stretch of one panel hangs on. */
export function stretchKey(plan: Plan, panelId: string): string {
  const panel = plan.panels.find((p) => p.id === panelId)
  if (!panel) return ''
  const film = filmOf(plan, panel)
  return JSON.stringify([panel, { ...choiceFor(plan, panelId), flat: null, bleedMm: null }, film && [film.id, film.stretchLimit, film.postHeatOver, film.heatShrink, film.rollResidue], plan.method.order, plan.method.tension]) // prettier-ignore
}

export interface Surveyed {
  sum: PanelSurvey | null
  fault: string
  ways: SolvedWay[] | null
}
/** Wait this long after a change before the maps are solved anew, ms. */
const PAUSE_MS = 900

/** Coarse maps of all panels, solved in the background one by one, and the best ways out of those past their limit. Kept for panels that did not change. */
export function useSurvey(plan: Plan, films: readonly Parameters<typeof filmOf>[0]['film']['sheets'][number][]): { of: (panelId: string) => Surveyed | null; left: number } {
  const [known, setKnown] = useState<ReadonlyMap<string, Surveyed>>(new Map())
  const knownRef = useRef(known)
  useEffect(() => {
    knownRef.current = known
  }, [known])
  const keys = useMemo(() => new Map(plan.panels.filter((p) => p.wrap && filmOf(plan, p)).map((p) => [p.id, stretchKey(plan, p.id)])), [plan])
  const all = [...keys.values()].join()
  const [left, setLeft] = useState(0)
  useEffect(() => {
    let stop = () => {}
    const timer = setTimeout(() => {
      const todo = [...keys].filter(([, key]) => !knownRef.current.has(key)).map(([id]) => id)
      setLeft(todo.length)
      if (todo.length === 0) return
      const put = (panelId: string, over: Partial<Surveyed>) =>
        setKnown((was) => new Map(was).set(keys.get(panelId) as string, { sum: null, fault: '', ways: null, ...was.get(keys.get(panelId) as string), ...over }))
      stop = startStretch({ kind: 'survey', plan, panelIds: todo, films, best: true }, (news) => {
        if (news.kind === 'survey') {
          put(news.panelId, { sum: news.sum, fault: news.fault ? faultText(news.fault) : '' })
          setLeft((n) => Math.max(0, n - 1))
        } else if (news.kind === 'best') put(news.panelId, { ways: news.ways })
      })
    }, PAUSE_MS)
    return () => {
      clearTimeout(timer)
      stop()
    }
    // The keys say all that the maps hang on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [all])
  return { of: (panelId) => known.get(keys.get(panelId) ?? '') ?? null, left }
} // prettier-ignore
