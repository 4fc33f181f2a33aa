'use client'

import { useEffect, useRef, useState } from 'react'
import type { KeptLayout } from '@/core/plan/schema'
import { useJob } from '@/web/job/job-state'
import type { LayoutAsk } from '@/web/workers/layout.worker'

/** Changes tried per layout: a second or two on a car. */
const ROUNDS = 50_000

/** Looks for a shorter layout off the main thread, and keeps it where it is shorter. */
export function SearchHarder() {
  const { plan, reckoning, edit, fmt } = useJob()
  const [state, setState] = useState<{ running: boolean; said: string }>({ running: false, said: '' })
  const worker = useRef<Worker | null>(null)
  useEffect(() => () => worker.current?.terminate(), [])
  const stop = () => {
    worker.current?.terminate()
    worker.current = null
    setState({ running: false, said: 'Stopped.' })
  }
  const start = () => {
    const own = new Worker(new URL('../workers/layout.worker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    setState({ running: true, said: '' })
    const before = reckoning.layouts
    own.onmessage = ({ data }: MessageEvent<KeptLayout[]>) => {
      own.terminate()
      worker.current = null
      const length = (k: KeptLayout) => k.rolls.reduce((s, r) => s + r.usedMm, 0)
      const kept = data.filter((k) => {
        const was = before.find((l) => l.film.id === k.filmId)
        return was !== undefined && (length(k) < was.usedMm - 0.5 || was.kept !== 'current')
      })
      const saved = kept.reduce((s, k) => s + (before.find((l) => l.film.id === k.filmId)?.usedMm ?? 0) - length(k), 0)
      if (kept.length > 0)
        edit((p) => ({
          ...p,
          layout: {
            ...p.layout,
            kept: [...p.layout.kept.filter((k) => !kept.some((n) => n.filmId === k.filmId)), ...kept],
          },
        }))
      setState({
        running: false,
        said: saved > 0.5 ? `${fmt.text(fmt.longLength(saved))} shorter, and kept.` : 'No shorter one found.',
      })
    }
    own.onerror = () => setState({ running: false, said: 'The search did not start in this browser.' })
    const films = before.map((l) => ({ filmId: l.film.id, pieces: l.pieces }))
    own.postMessage({ plan, films, rounds: ROUNDS } satisfies LayoutAsk)
  }
  return (
    <span className="d-inline-flex gap-2 align-items-center">
      <span className="label" role="status">
        {state.said}
      </span>
      <button
        type="button"
        className="btn btn-outline-primary"
        disabled={reckoning.layouts.length === 0}
        onClick={state.running ? stop : start}
      >
        {state.running ? 'Stop searching' : 'Look for a shorter one'}
      </button>
    </span>
  )
}
