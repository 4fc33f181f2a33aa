import type { LogRow } from './schema'

export interface RunningTimer {
  timerId: string
  label: string
  /** When it was started, UTC. */
  at: string
  minutes: number
}

/** Timers that run: started and not ended since, in the order they were started. */
export function runningTimers(ledger: readonly LogRow[]): RunningTimer[] {
  const running = new Map<string, RunningTimer>()
  for (const { payload, at } of ledger) {
    if (payload.kind === 'timer_started')
      running.set(payload.timerId, { timerId: payload.timerId, label: payload.label, at, minutes: payload.minutes })
    if (payload.kind === 'timer_ended') running.delete(payload.timerId)
  }
  return [...running.values()]
}
