import type { ReactNode } from 'react'
import { JobFrame } from '@/web/job/frame'

export default function StagesLayout({ children }: { children: ReactNode }) {
  return <JobFrame>{children}</JobFrame>
}
