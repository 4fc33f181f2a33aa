import Link from 'next/link'

export default function NotFound() {
  return (
    <main className="sheet">
      <div className="plate">
        <h1>Not here</h1>
        <p>There is no such page, or it belongs to another shop.</p>
        <Link href="/">To the yard</Link>
      </div>
    </main>
  )
}
