import { gunzipSync } from 'node:zlib'
import http from 'node:http'
import { median } from './core'
import { tableRow } from './table'

const MEMBERS = 50
const SETTLED_S = 25
const WARM_S = 5
/** Shorter for a first look. */
const SECONDS = Number(process.env.LOAD_SECONDS ?? 30)
const HATCH = '/jobs/5a170000-0000-4000-8000-00000000000a'
/** What people have open most of the day, each as often as the others. */
const PAGES = ['/', `${HATCH}/pieces`, `${HATCH}/roll`, `${HATCH}/run-sheet`, '/rack']

const agent = new http.Agent({ keepAlive: true, maxSockets: 200 })
/** A page as a browser asks for it: packed. */
const get = (base: string, path: string, cookie: string): Promise<{ status: number; body: Buffer }> =>
  new Promise((resolve, reject) => {
    const headers = { cookie, 'accept-encoding': 'gzip', accept: 'text/html' }
    http
      .get(`${base}${path}`, { agent, headers }, (answer) => {
        const parts: Buffer[] = []
        answer.on('data', (part: Buffer) => parts.push(part))
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, body: Buffer.concat(parts) }))
        answer.on('error', reject)
      })
      .on('error', reject)
  })

async function signIn(base: string, role: string): Promise<string> {
  const door = await fetch(`${base}/api/demo-sign-in?role=${role}`, { method: 'POST', headers: { origin: base } })
  return door.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ')
}

/** How many of the main pages go out a second to many signed in at once, none of whom pauses; and how large they are. */
export async function membersBench(base: string): Promise<string> {
  const roles = ['owner', 'lead', 'installer', 'desk']
  const cookies: string[] = []
  for (let i = 0; i < MEMBERS; i++) cookies.push(await signIn(base, roles[i % roles.length] ?? 'lead'))
  const lead = cookies[1] ?? ''
  const sizes = await Promise.all(
    PAGES.map(async (path) => {
      const { body } = await get(base, path, lead)
      const bare = body[0] === 0x1f ? gunzipSync(body).byteLength : body.byteLength
      return tableRow(path.replace(HATCH, 'hatch: '), kB(body.byteLength), kB(bare))
    }),
  )
  // What the demo lacks is solved behind it first.
  await new Promise((r) => setTimeout(r, SETTLED_S * 1000))
  const began = performance.now() + WARM_S * 1000
  const until = began + SECONDS * 1000
  const took: number[] = []
  let failed = 0
  await Promise.all(
    cookies.map(async (cookie, i) => {
      for (let n = i; performance.now() < until; n++) {
        const since = performance.now()
        const { status } = await get(base, PAGES[n % PAGES.length] ?? '/', cookie)
        const now = performance.now()
        if (status !== 200) failed++
        // What ends within the time counts, whenever it began.
        else if (now > began && now < until) took.push(now - since)
      }
    }),
  )
  const at = (part: number) => [...took].sort((a, b) => a - b)[Math.floor(took.length * part)] ?? NaN
  return `## Main pages, many members at once

${MEMBERS} signed-in members ask without a pause for the yard, three pages of the demo hatch and the rack, ${SECONDS} s,
production build and database on the same machine: **${(took.length / SECONDS).toFixed(0)} pages a second**, ${failed} failed; a page
after ${median(took).toFixed(0)} ms, 95 in 100 within ${at(0.95).toFixed(0)} ms.

| page | packed, as it is sent | bare |
|---|---|---|
${sizes.join('\n')}
`
}

const kB = (bytes: number): string => `${(bytes / 1000).toFixed(0)} kB`
