'use client'

import { useEffect } from 'react'

/** Asks the worker of this device for something, once it is there. */
export function tellWorker(message: { kind: 'keep'; urls: readonly string[] } | { kind: 'forget' }): void {
  if (!('serviceWorker' in navigator)) return
  void navigator.serviceWorker.ready.then(({ active }) => active?.postMessage(message))
}

/** Makes the application work without a network on this device. */
export function KeepOffline() {
  useEffect(() => {
    if (!('serviceWorker' in navigator) || process.env.NODE_ENV !== 'production') return
    navigator.serviceWorker
      .register('/serwist/sw.js', { scope: '/' })
      .catch((error: unknown) => console.info('not kept for working offline', error))
    // What waits to be sent should not be the first that a full device throws away.
    void navigator.storage?.persist?.().catch(() => false)
  }, [])
  return null
}

/** Fetches pages of open jobs before anybody asks for them. */
export function KeepJobs({ jobIds }: { jobIds: readonly string[] }) {
  const key = jobIds.join()
  useEffect(() => {
    if (key === '') return
    const ids = key.split(',')
    // Bays first: they are what somebody opens with no network.
    const urls = ['/', ...['bay', 'run-sheet', 'edges'].flatMap((page) => ids.map((id) => `/jobs/${id}/${page}`))]
    tellWorker({ kind: 'keep', urls })
  }, [key])
  return null
}
