'use client'

import Button from 'react-bootstrap/Button'
import { useEffect, useRef, useState } from 'react'
import { layOutContext } from '@/core/engines/roll/context'
import type { FilmLayout } from '@/core/engines/roll/film-layout'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import { useJob } from '@/web/job/job-state'
import type { LayoutAsk, LayoutNews } from '@/web/workers/layout.worker'

const SECONDS = 6

/** Lays the pieces that are not locked anew off the main thread, telling of each better plan; keeps the shortest. */
export function SearchHarder({ layout }: { layout: FilmLayout }) {
  const { plan, catalogue, ledger, edit, fmt } = useJob('plan', 'catalogue', 'ledger', 'edit', 'fmt')
  const [state, setState] = useState<{ share: number; said: string } | null>(null)
  const [said, setSaid] = useState('')
  const worker = useRef<Worker | null>(null)
  useEffect(() => () => worker.current?.terminate(), [])
  const locked = layout.rolls.flatMap((r) =>
    r.placements.filter((p) => p.locked).map((placement) => ({ rollId: r.id, placement })),
  )
  const stop = (text: string) => {
    worker.current?.terminate()
    worker.current = null
    setState(null)
    setSaid(text)
  }
  const start = () => {
    const own = new Worker(new URL('../workers/layout.worker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    setSaid('')
    setState({ share: 0, said: '' })
    const was = layout
    own.onmessage = ({ data }: MessageEvent<LayoutNews>) => {
      if (data.kind === 'tick') return setState((s) => s && { ...s, share: data.share })
      if (data.kind === 'better')
        return setState({
          share: data.share,
          said:
            `${fmt.text(fmt.longLength(data.usedMm))}, at most ` +
            `${fmt.text(fmt.percent(Math.max(0, data.usedMm / Math.max(1, data.boundMm) - 1)))} above the ` +
            'least',
        })
      const shorter = was.usedMm - data.usedMm
      const better = data.unplaced < was.unplaced.length || (data.unplaced === was.unplaced.length && shorter > 0.5)
      // What is locked is kept as it lies, whether or not the rest became shorter.
      const anew = locked.length > 0 && data.unplaced <= was.unplaced.length
      const kept = better || anew ? data.kept : was.kept === 'current' ? null : keepLayout(was)
      if (kept)
        edit((p) => ({
          ...p,
          layout: { ...p.layout, kept: [...p.layout.kept.filter((k) => k.filmId !== kept.filmId), kept] },
        }))
      const proof = data.proven ? ' Proven the least.' : ''
      stop(
        shorter > 0.5 && kept
          ? `${fmt.text(fmt.longLength(shorter))} shorter, and kept.${proof}`
          : kept
            ? `As short as before, and kept.${proof}`
            : `No shorter one found.${proof}`,
      )
    }
    own.onerror = () => stop('The search did not start in this browser.')
    const ask: LayoutAsk = {
      plan,
      filmId: layout.film.id,
      pieces: layout.pieces,
      context: layOutContext(catalogue.stock, ledger, layout),
      seconds: SECONDS,
      locked,
    }
    own.postMessage(ask)
  }
  return (
    <span className="d-inline-flex gap-2 align-items-center flex-wrap">
      <Button
        variant="outline-primary"
        disabled={layout.pieces.length === 0}
        onClick={state ? () => stop('Stopped.') : start}
      >
        {state ? 'Stop searching' : locked.length > 0 ? 'Lay the rest anew' : 'Look for a shorter one'}
      </Button>
      {state && <progress value={state.share} max={1} aria-label="Search" style={{ width: 90 }} />}
      <span className="label" role="status">
        {state ? state.said : said}
      </span>
    </span>
  )
}
