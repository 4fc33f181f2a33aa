import type { ReactNode } from 'react'
import { Queries } from '@/web/kit/query'

export default function FleetLayout({ children }: { children: ReactNode }) {
  return <Queries>{children}</Queries>
}
