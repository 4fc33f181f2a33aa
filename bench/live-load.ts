import { writePlan } from '@/core/model/plan/parse'
import { manyPanels } from '../test/fixtures/plans'
import { median } from './core'

const CLIENTS = 200
const JOBS = 50
const PER_SECOND = 20
/** Shorter for a first look. */
const SECONDS = Number(process.env.LOAD_SECONDS ?? 300)
/** What was still under way when the last entry was sent. */
const LAST_MS = 8000

const wait = (ms: number) => new Promise((r) => setTimeout(r, ms))
const share = (values: readonly number[], part: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * part))] ?? NaN

/** Times at which entries were sent and taken, by id, and at which each client had them. */
interface Seen {
  sent: Map<string, number>
  taken: Map<string, number>
  /** Milliseconds from the sending to each client of its job. */
  had: number[]
  refused: number
}

/**
 * Many pages open at once while the bays log: every client follows the shop's stream, and asks for what changed of its
 * own job when it is told of it, as a page does.
 */
export async function liveLoad(base: string, headers: Record<string, string>): Promise<string> {
  const jobs: string[] = []
  const body = writePlan(manyPanels(6))
  for (let i = 0; i < JOBS; i++) {
    const answer = await fetch(`${base}/api/jobs/import`, { method: 'POST', headers, body })
    const out = (await answer.json()) as { value?: { id: string } }
    if (!out.value) throw new Error(`import: ${answer.status} ${JSON.stringify(out)}`)
    jobs.push(out.value.id)
  }
  const seen: Seen = { sent: new Map(), taken: new Map(), had: [], refused: 0 }
  const over = new AbortController()
  const clients = Array.from({ length: CLIENTS }, (_, i) =>
    follow(base, headers, jobs[i % JOBS] ?? '', seen, over.signal),
  )
  await wait(3000)
  const until = performance.now() + SECONDS * 1000
  const under: Promise<void>[] = []
  for (let n = 0; performance.now() < until; n++) {
    under.push(send(base, headers, jobs[n % JOBS] ?? '', n, seen))
    await wait(until - SECONDS * 1000 + ((n + 1) * 1000) / PER_SECOND - performance.now())
  }
  await Promise.all(under)
  await wait(LAST_MS)
  over.abort()
  const lost = (await Promise.all(clients)).reduce((a, b) => a + b, 0)
  const expected = seen.taken.size * (CLIENTS / JOBS)
  const within2 = seen.had.filter((ms) => ms <= 2000).length
  const answered = [...seen.taken].map(([id, at]) => at - (seen.sent.get(id) ?? at))
  return `## Many pages open while the bays log

${CLIENTS} stream clients over ${JOBS} jobs, ${PER_SECOND} entries a second for ${SECONDS} s, production build and
database on the same machine: **${seen.taken.size} of ${seen.sent.size} entries taken** (${seen.refused} refused), an
answer in ${median(answered).toFixed(0)} ms, 95 in 100 within ${share(answered, 0.95).toFixed(0)} ms. A client had an
entry of its job after ${median(seen.had).toFixed(0)} ms, 95 in 100 within ${share(seen.had, 0.95).toFixed(0)} ms;
${((100 * within2) / expected).toFixed(2)} % of ${expected} within 2 s, ${expected - seen.had.length} never; ${lost}
streams broke.
`
}

async function send(base: string, headers: Record<string, string>, job: string, n: number, seen: Seen): Promise<void> {
  const now = new Date().toISOString()
  const id = crypto.randomUUID()
  seen.sent.set(id, performance.now())
  const entry = { id, at: now, device: `load-${n % 12}`, n, payload: { kind: 'note', text: `load ${n}` } }
  const answer = await fetch(`${base}/api/jobs/${job}/entries`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ sent_at: now, entries: [entry] }),
  }).catch(() => null)
  const out = (await answer?.json().catch(() => null)) as { outcomes?: { outcome: string }[] } | null
  if (out?.outcomes?.[0]?.outcome === 'done') seen.taken.set(id, performance.now())
  else seen.refused++
}

/** One page: the stream, and what changed of its job. 1 where the stream broke before its time. */
async function follow(
  base: string,
  headers: Record<string, string>,
  job: string,
  seen: Seen,
  signal: AbortSignal,
): Promise<number> {
  let [since, asking, again] = [0, false, false]
  const known = new Set<string>()
  const ask = async (): Promise<void> => {
    if (asking) {
      again = true
      return
    }
    asking = true
    do {
      again = false
      const answer = await fetch(`${base}/api/jobs/${job}/changes?since=${since}`, { headers, signal }).catch(
        () => null,
      )
      const out = (await answer?.json().catch(() => null)) as {
        value?: { head: number; entries: { id: string }[] }
      } | null
      had(out?.value?.entries ?? [])
      since = out?.value?.head ?? since
    } while (again)
    asking = false
  }
  const had = (entries: readonly { id: string }[]) => {
    for (const { id } of entries) {
      const sent = seen.sent.get(id)
      if (sent !== undefined && !known.has(id)) seen.had.push(performance.now() - sent)
      known.add(id)
    }
  }
  try {
    const answer = await fetch(`${base}/api/live`, { headers, signal })
    if (!answer.ok || !answer.body) return 1
    const text = new TextDecoder()
    let left = ''
    for await (const bytes of answer.body) {
      const parts = (left + text.decode(bytes, { stream: true })).split('\n\n')
      left = parts.pop() ?? ''
      for (const part of parts) {
        const data = /^data: (.*)$/m.exec(part)?.[1]
        if (data === undefined) continue
        const news = JSON.parse(data) as { job: string | null; head: number; entries?: { id: string }[] }
        if (since === 0) since = news.head
        if (news.job !== job) continue
        if (news.entries) had(news.entries)
        else void ask()
      }
    }
    return signal.aborted ? 0 : 1
  } catch {
    return signal.aborted ? 0 : 1 // ended by us
  }
}
