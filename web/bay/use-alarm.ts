import { useEffect, useRef } from 'react'

/** A short tone; silence where the browser lets none out. */
export function beep(times = 1, hertz = 880): void {
  try {
    const sound = new AudioContext()
    for (let i = 0; i < times; i++) {
      const tone = sound.createOscillator()
      const loud = sound.createGain()
      tone.frequency.value = hertz
      loud.gain.value = 0.2
      tone.connect(loud).connect(sound.destination)
      tone.start(sound.currentTime + i * 0.35)
      tone.stop(sound.currentTime + i * 0.35 + 0.18)
    }
    setTimeout(() => void sound.close(), 400 * times + 400)
  } catch (error) {
    console.info('no sound', error)
  }
}

export const buzz = (pattern: number | number[]): void => void navigator.vibrate?.(pattern)

/** Sound and vibration once for each thing that is over; what was over when the page opened stays silent. */
export function useAlarm(over: readonly string[]): void {
  const known = useRef<Set<string> | null>(null)
  const key = over.join('|')
  useEffect(() => {
    const now = new Set(key === '' ? [] : key.split('|'))
    const was = known.current
    known.current = now
    if (was === null || ![...now].some((id) => !was.has(id))) return
    beep(3)
    buzz([300, 150, 300])
  }, [key])
}

/** Keeps the screen awake while something runs along it. */
export function useAwake(on: boolean): void {
  useEffect(() => {
    if (!on || !('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | null = null
    let gone = false
    void navigator.wakeLock.request('screen').then(
      (got) => {
        lock = got
        if (gone) void got.release()
      },
      () => undefined, // a device that does not keep awake: nothing to do about it
    )
    return () => {
      gone = true
      void lock?.release()
    }
  }, [on])
}
