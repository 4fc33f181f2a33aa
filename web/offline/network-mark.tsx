'use client'

import { useSyncExternalStore } from 'react'

const listen = (change: () => void): (() => void) => {
  window.addEventListener('online', change)
  window.addEventListener('offline', change)
  return () => {
    window.removeEventListener('online', change)
    window.removeEventListener('offline', change)
  }
}

/** Whether this device has a network; true on the server. */
export const useOnline = (): boolean =>
  useSyncExternalStore(
    listen,
    () => navigator.onLine,
    () => true,
  )
