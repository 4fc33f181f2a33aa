export const metadata = { title: 'No network' }

/** Shown without a network for a page that this device has not kept. */
export default function Offline() {
  return (
    <main className="sheet" id="main">
      <h1>No network</h1>
      <p>
        This page is not kept on this device. Bays of open jobs that were looked at here in the last days are: go back
        and open one. What was entered is kept until it can be sent.
      </p>
    </main>
  )
}
