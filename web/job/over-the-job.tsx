'use client'

import { Suspense, useState } from 'react'
import { lateComponent } from '@/web/kit/late'
import { useJob } from './job-state'

const Working = lateComponent(async () => (await import('./working')).Working)
const ClashDialog = lateComponent(async () => (await import('./clash-dialog')).ClashDialog)

/** What opens over a job wherever it is looked at: the working of a figure, two sides of a clash. */
export function OverTheJob() {
  const { shown, save } = useJob('shown', 'save')
  // Once opened it stays, so that it can close by itself.
  const [opened, setOpened] = useState(false)
  if (shown && !opened) setOpened(true)
  return (
    <Suspense fallback={null}>
      {opened && <Working />}
      {save.kind === 'clash' && <ClashDialog />}
    </Suspense>
  )
}
