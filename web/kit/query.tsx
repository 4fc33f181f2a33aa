'use client'

import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'

/** One client of queries for all pages: reads go through route handlers and do not wait behind saves. */
export function Queries({ children }: { children: ReactNode }) {
  const [client] = useState(() => new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 1000 } } }))
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>
}
