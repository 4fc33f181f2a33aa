import { tableRow } from './table'
import { chromium } from '@playwright/test'
import { spawn } from 'node:child_process'
import sharp from 'sharp'
import { writePlan } from '@/core/model/plan/parse'
import { Plan } from '@/core/model/plan/schema'
import { manyPanels } from '../test/fixtures/plans'
import { CHROMIUM } from '../test/fixtures/chromium'
import { median } from './core'
import { membersBench } from './members'
import { liveLoad } from './live-load'

const port = 3298
const base = `http://127.0.0.1:${port}`
const CLIENTS = 20
const LOG_SECONDS = 10
const SAVES = 8
const PANELS = 500

const wait = (ms: number) => new Promise((r) => setTimeout(r, ms))

/** Twelve parts a panel, each with a film's name on its label. */
const manyParts = (): Plan => {
  const plan = manyPanels(PANELS)
  return Plan.parse({
    ...plan,
    pieces: plan.panels.map((p) => ({ panelId: p.id, parts: 12, along: 'width', preStretch: 0, bleedMm: null })),
  })
}

/** The production build with demo data, a lead signed in; ended with the work. */
async function withServer<T>(work: (headers: Record<string, string>, cookie: string) => Promise<T>): Promise<T> {
  const server = spawn(process.execPath, ['scripts/e2e-server.mjs'], {
    env: { ...process.env, E2E_PORT: String(port), STREAMS_PER_MEMBER: '400' },
    stdio: 'ignore',
  })
  const isThere = () =>
    fetch(`${base}/sign-in`).then(
      (r) => r.ok,
      () => false,
    )
  try {
    for (let i = 0; i < 900 && !(await isThere()); i++) await wait(200)
    const door = await fetch(`${base}/api/demo-sign-in?role=lead`, { method: 'POST', headers: { origin: base } })
    const cookie = door.headers
      .getSetCookie()
      .map((c) => c.split(';')[0])
      .join('; ')
    return await work({ cookie, origin: base, 'content-type': 'application/json' }, cookie)
  } finally {
    server.kill('SIGTERM')
  }
}

/** Many pages open while the bays log: a part of its own, since it takes minutes. */
export const liveBench = (): Promise<string> => withServer((headers) => liveLoad(base, headers))

/** Many members at the main pages. */
export const manyMembers = (): Promise<string> => withServer(() => membersBench(base))

/** A plan brought in as a job file; answers the job. */
async function brought(plan: Plan, headers: Record<string, string>): Promise<string> {
  const answer = await fetch(`${base}/api/jobs/import`, { method: 'POST', headers, body: writePlan(plan) })
  const out = (await answer.json()) as { value?: { id: string } }
  if (!out.value) throw new Error(`import: ${answer.status} ${JSON.stringify(out)}`)
  return out.value.id
}

/** Work that takes long, each with what came of it. */
function heavyWork({
  headers,
  bring,
  save,
  jobId,
}: {
  headers: Record<string, string>
  bring: (plan: Plan) => Promise<string>
  save: (n: number) => Promise<number>
  jobId: string
}): [string, () => Promise<string>][] {
  return [
    [
      `a plan of ${PANELS} panels brought in, three times`,
      async () => {
        for (let i = 0; i < 3; i++) await bring(manyPanels(PANELS))
        return 'done'
      },
    ],
    [
      `a plan of ${PANELS} panels saved, ${SAVES} times`,
      async () => {
        let saved = 0
        for (let n = 1; n <= SAVES; n++) saved += await save(n)
        return `${saved} saved`
      },
    ],
    [
      `labels of ${PANELS} panels in 12 parts`,
      async () => {
        const id = await bring(manyParts())
        const answer = await fetch(`${base}/jobs/${id}/layout/labels.pdf`, { headers })
        const bytes = (await answer.arrayBuffer()).byteLength
        return `${answer.status}, ${Math.round(bytes / 1000)} kB`
      },
    ],
    [
      'twelve photos of 59 megapixels',
      async () => {
        const body = await sharp({ create: { width: 9400, height: 6300, channels: 3, background: '#5b7a4d' } })
          .jpeg()
          .toBuffer()
        const answers = await Promise.all(
          Array.from({ length: 12 }, () =>
            fetch(`${base}/api/jobs/${jobId}/photos`, {
              method: 'POST',
              headers: { ...headers, 'content-type': 'image/jpeg' },
              body: new Uint8Array(body),
            }).then((r) => r.status),
          ),
        )
        return `${answers.filter((s) => s === 201).length} kept of 12`
      },
    ],
  ]
}

/** What a busy shop asks of the server: many bays at once, and a door that stays open while heavy work runs. */
export const serverBench = (): Promise<string> =>
  withServer(async (headers, cookie) => {
    const bring = (plan: Plan) => brought(plan, headers)
    const jobs = [await bring(manyPanels(40)), await bring(manyPanels(40))]
    await logging(jobs, headers) // threads and routes come up
    const { counted, refused, latest } = await logging(jobs, headers)

    const save = await savesOf(cookie, await bring(manyPanels(PANELS)))
    await wait(5000)
    const rows = [await atTheDoor('nothing', () => wait(3000).then(() => '–'))]
    for (const [name, work] of heavyWork({ headers, bring, save, jobId: jobs[0] ?? '' }))
      rows.push(await atTheDoor(name, work))
    return `## The server under work

### Entries of the bay

${CLIENTS} clients send entries one by one to two jobs of 40 panels for ${LOG_SECONDS} s, production build, database
included, warmed up as long before: **${(counted / LOG_SECONDS).toFixed(0)} entries a second** taken (${refused}
refused), an answer in ${median(latest).toFixed(0)} ms, 95 in 100 within ${share(latest, 0.95).toFixed(0)} ms.

### The door while heavy work runs

\`GET /sign-in\`, one after the other with 20 ms between, while the work is under way.

| while | took | came of it | asked | median | 95 in 100 | longest |
|---|---|---|---|---|---|---|
${rows.join('\n')}`
  })

const share = (values: readonly number[], part: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * part))] ?? 0

async function logging(jobs: readonly string[], headers: Record<string, string>) {
  const until = performance.now() + LOG_SECONDS * 1000
  const latest: number[] = []
  let [counted, refused] = [0, 0]
  await Promise.all(
    Array.from({ length: CLIENTS }, async (_, client) => {
      for (let n = 0; performance.now() < until; n++) {
        const now = new Date().toISOString()
        const entry = {
          id: crypto.randomUUID(),
          at: now,
          device: `bench-${client}`,
          n,
          payload: { kind: 'note', text: `${client} ${n}` },
        }
        const began = performance.now()
        const answer = await fetch(`${base}/api/jobs/${jobs[client % jobs.length]}/entries`, {
          method: 'POST',
          headers,
          body: JSON.stringify({ sent_at: now, entries: [entry] }),
        })
        const out = (await answer.json()) as { outcomes?: { outcome: string }[] }
        latest.push(performance.now() - began)
        if (out.outcomes?.[0]?.outcome === 'done') counted++
        else refused++
      }
    }),
  )
  return { counted, refused, latest }
}

/** How long the sign-in page takes while `work` is under way: a row of the table. */
async function atTheDoor(name: string, work: () => Promise<string>): Promise<string> {
  const times: number[] = []
  let busy = true
  const asking = (async () => {
    while (busy) {
      const began = performance.now()
      await fetch(`${base}/sign-in`).then((r) => r.text())
      times.push(performance.now() - began)
      await wait(20)
    }
  })()
  const began = performance.now()
  const came = await work()
  const took = performance.now() - began
  busy = false
  await asking
  return tableRow(
    name,
    `${(took / 1000).toFixed(1)} s`,
    came,
    times.length,
    `${median(times).toFixed(0)} ms`,
    `${share(times, 0.95).toFixed(0)} ms`,
    `${Math.max(...times).toFixed(0)} ms`,
  )
}

/**
 * A save as the browser sends it, caught once; sent again it is one more change, without a browser that wants the
 * same cores.
 */
async function savesOf(cookie: string, id: string): Promise<(n: number) => Promise<number>> {
  const browser = await chromium.launch(CHROMIUM)
  try {
    const context = await browser.newContext({ baseURL: base, viewport: { width: 1280, height: 800 } })
    const [name, value = ''] = cookie.split(/=(.*)/s)
    await context.addCookies([{ name: name ?? '', value: value.split(';')[0] ?? '', url: base }])
    const page = await context.newPage()
    await page.goto(`/jobs/${id}/tape`, { timeout: 120_000 })
    const isSave = (body: string | null) => body?.includes('"basedOn"') ?? false
    const sent = page.waitForRequest((r) => r.method() === 'POST' && isSave(r.postData()), { timeout: 120_000 })
    await page.getByLabel('Panel 1, width', { exact: true }).fill('1301', { timeout: 120_000 })
    const request = await sent
    const [headers, body] = [await request.allHeaders(), request.postData() ?? '']
    await request.response()
    const kept = Object.fromEntries(
      Object.entries(headers).filter(([k]) => !k.startsWith(':') && k !== 'content-length'),
    )
    return async (n) => {
      const next = body
        .replace('"widthMm":1301', `"widthMm":${1301 + n}`)
        .replace(/"basedOn":\d+/, `"basedOn":${1 + n}`)
      const answer = await fetch(`${base}/jobs/${id}/tape`, {
        method: 'POST',
        headers: { ...kept, cookie },
        body: next,
      })
      const text = await answer.text()
      return text.includes('"kind":"saved"') ? 1 : 0
    }
  } finally {
    await browser.close()
  }
}
