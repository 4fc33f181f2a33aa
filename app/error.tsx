'use client'

export default function ErrorPage({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <main className="sheet">
      <div className="plate" role="alert">
        <h1>This page did not come up</h1>
        <p>
          Nothing was lost: what was saved is safe. Try once more
          {error.digest ? `; if it happens again, tell us reference ${error.digest}` : ''}.
        </p>
        <button className="btn btn-primary" onClick={reset}>
          Try again
        </button>
      </div>
    </main>
  )
}
