'use client'

import Alert from 'react-bootstrap/Alert'
import Button from 'react-bootstrap/Button'

/** What stands in place of a page that failed; what is round it stays. */
export function PageError({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <div className="sheet">
      <Alert variant="danger" className="plate">
        <Alert.Heading as="h1">This page did not come up</Alert.Heading>
        <p>
          Nothing was lost: what was saved is safe. Try once more
          {error.digest ? `; if it happens again, tell us reference ${error.digest}` : ''}.
        </p>
        <Button onClick={reset}>Try again</Button>
      </Alert>
    </div>
  )
}
