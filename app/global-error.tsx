'use client'

import '@/web/theme/theme.scss'
import { PageError } from '@/web/kit/page-error'

/** Stands in for everything, the outermost frame included. */
export default function GlobalError(props: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <PageError {...props} />
      </body>
    </html>
  )
}
