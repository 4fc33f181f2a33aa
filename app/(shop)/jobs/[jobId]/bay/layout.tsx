import type { ReactNode } from 'react'
import { OverTheJob } from '@/web/job/over-the-job'

/** Full screen: nothing but what hands need. */
export default function BayLayout({ children }: { children: ReactNode }) {
  return (
    <main id="main">
      {children}
      <OverTheJob />
    </main>
  )
}
