import { useEffect, useRef, useState } from 'react'

/** Figures that lie so close together that the instrument has settled; the film cools about a kelvin in that time. */
const STEADY = { figures: 5, withinC: 2.6 }
/** So long without a figure, and it is silent. */
const SILENT_MS = 3000

export type ThermometerState =
  | { kind: 'waiting' }
  | { kind: 'shows'; tempC: number; steady: boolean }
  | { kind: 'silent' }
  | { kind: 'garbled'; said: string }

/** What a line of the stream says: a temperature, or something that is none. */
export function figureOf(data: string): number | null {
  try {
    const read: unknown = JSON.parse(data)
    const c = typeof read === 'object' && read !== null && 'tempC' in read ? read.tempC : null
    return typeof c === 'number' && Number.isFinite(c) ? c : null
  } catch {
    return null // text is no figure
  }
}

/** Whether the newest figures have settled. */
export const isSteady = (figures: readonly number[]): boolean => {
  const last = figures.slice(-STEADY.figures)
  return last.length === STEADY.figures && Math.max(...last) - Math.min(...last) <= STEADY.withinC
}

/** Where the figures come from; a test puts another one here. */
type Open = (url: string) => Pick<EventSource, 'close' | 'onmessage' | 'onerror'>
const browserStream: Open = (url) => new EventSource(url)

/** The thermometer's figures while `url` is given; null while it is off. */
export function useThermometer(url: string | null, open: Open = browserStream): ThermometerState | null {
  // Which source it is does not change while it is on.
  const source = useRef(open)
  const [at, setAt] = useState<{ url: string; state: ThermometerState } | null>(null)
  useEffect(() => {
    if (url === null) return
    const figures: number[] = []
    const say = (state: ThermometerState) => setAt({ url, state })
    const silent = () => say({ kind: 'silent' })
    let timer = setTimeout(silent, SILENT_MS)
    const stream = source.current(url)
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      clearTimeout(timer)
      timer = setTimeout(silent, SILENT_MS)
      const c = figureOf(data)
      if (c === null) return say({ kind: 'garbled', said: String(data).slice(0, 40) })
      figures.push(c)
      say({ kind: 'shows', tempC: c, steady: isSteady(figures) })
    }
    stream.onerror = silent
    return () => {
      clearTimeout(timer)
      stream.close()
    }
  }, [url])
  if (url === null) return null
  return at?.url === url ? at.state : { kind: 'waiting' }
}

/** Whether this server has a thermometer; asked once for a page. */
export function useHasThermometer(): boolean {
  const [has, setHas] = useState(false)
  useEffect(() => {
    let there = true
    fetch('/api/thermometer?there=1', { cache: 'no-store' }).then(
      (answer) => there && setHas(answer.status === 204),
      () => {}, // no network: the keypad is there
    )
    return () => {
      there = false
    }
  }, [])
  return has
}
