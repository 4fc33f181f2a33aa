import type { ReactNode } from 'react'
import { Queries } from '@/web/kit/query'

export default function RollLayout({ children }: { children: ReactNode }) {
  return <Queries>{children}</Queries>
}
