import type { Metadata, Viewport } from 'next'
import type { ReactNode } from 'react'
import '@fontsource-variable/archivo/wdth.css'
import '@/web/theme/theme.scss'

export const metadata: Metadata = {
  title: { default: 'Cuirass', template: '%s · Cuirass' },
  description: 'Plans and steers a vehicle wrap, from tape to handover.',
}
export const viewport: Viewport = { width: 'device-width', initialScale: 1, themeColor: '#16202e' }
export const dynamic = 'force-dynamic'

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <body>{children}</body>
    </html>
  )
}
