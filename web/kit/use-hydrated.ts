'use client'

import { useSyncExternalStore } from 'react'

const neverChanges = () => () => {}

/** False until the page is alive: what is typed into a dead field would be lost, so fields stay shut till then. */
export const useHydrated = (): boolean =>
  useSyncExternalStore(
    neverChanges,
    () => true,
    () => false,
  )
