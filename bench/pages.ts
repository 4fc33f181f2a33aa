import { tableRow } from './table'
import { chromium, type Browser, type Page } from '@playwright/test'
import { spawn } from 'node:child_process'
import { writePlan } from '@/core/model/plan/parse'
import { manyPanels } from '../test/fixtures/plans'
import { CHROMIUM } from '../test/fixtures/chromium'
import { median } from './core'
import { skinBench } from './skin'

const port = 3299
const base = `http://127.0.0.1:${port}`
const REQUESTS = 200

/** Waits until the server is there, two minutes at most. */
async function answered(): Promise<void> {
  for (let i = 0; i < 600; i++) {
    if (
      await fetch(`${base}/sign-in`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return
    await new Promise((r) => setTimeout(r, 200))
  }
}

/** Keys typed in a job of each size. */
const KEYS = 50

/** Longer than this a task is felt, ms. */
const LONG_MS = 50
interface Traced {
  name: string
  pid: number
  tid: number
  ts: number
  /** By the clock, and by the thread's own time on a processor, us. */
  dur?: number
  tdur?: number
}

/** The tasks of the page's thread from the mark `keys` on: how long by the clock, and by the thread's own time. */
function tasksOf(trace: Buffer): { ms: number; ownMs: number }[] {
  const { traceEvents } = JSON.parse(trace.toString()) as { traceEvents: Traced[] }
  const mark = traceEvents.find((e) => e.name === 'keys')
  if (!mark) throw new Error('no mark in the trace')
  return traceEvents
    .filter((e) => e.name === 'ThreadControllerImpl::RunTask' && e.tid === mark.tid && e.pid === mark.pid)
    .filter((e) => e.ts >= mark.ts)
    .map((e) => ({ ms: (e.dur ?? 0) / 1000, ownMs: (e.tdur ?? 0) / 1000 }))
}

/** A width typed again and again in jobs of so many panels: a row for each, and the page of the job of 40. */
async function typing(browser: Browser, page: Page): Promise<{ rows: string[]; jobPage: string }> {
  const rows: string[] = []
  let jobPage = ''
  for (const n of [10, 40, 100, 200, 400]) {
    const response = await page.request.post('/api/jobs/import', {
      data: writePlan(manyPanels(n)),
      headers: { 'content-type': 'application/json', origin: base },
    })
    const { value } = (await response.json()) as { value: { id: string } }
    if (n === 40) jobPage = `/jobs/${value.id}/tape`
    await page.goto(`/jobs/${value.id}/tape`)
    const cell = page.getByLabel('Panel 1, width', { exact: true })
    await cell.focus()
    // What comes after the page has come, and nothing of the driver's own is in the task of the first key.
    await page.waitForTimeout(3000)
    await browser.startTracing(page, { categories: ['toplevel', 'blink.user_timing'] })
    const times = await cell.evaluate(async (input: HTMLInputElement, keys: number) => {
      const rail = document.querySelector('[aria-label="Reckoning"]') as HTMLElement
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set
      const out: number[] = []
      await new Promise((r) => setTimeout(r, 300))
      performance.mark('keys')
      for (let i = 0; i < keys; i++) {
        const before = rail.innerText
        const began = performance.now()
        set?.call(input, String(1200 + (i % 25) * 7))
        input.dispatchEvent(new Event('input', { bubbles: true }))
        // Two frames: React has committed, the browser has painted.
        await new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)))
        if (rail.innerText !== before) out.push(performance.now() - began)
        await new Promise((r) => setTimeout(r, 60))
      }
      return out
    }, KEYS)
    const tasks = tasksOf(await browser.stopTracing())
    const sorted = [...times].sort((a, b) => a - b)
    const [most] = tasks.map((t) => t.ownMs).sort((a, b) => b - a)
    rows.push(
      tableRow(
        n,
        `${median(times).toFixed(0)} ms`,
        `${(sorted[Math.floor(sorted.length * 0.95)] ?? 0).toFixed(0)} ms`,
        `${times.length} of ${KEYS}`,
        tasks.filter((t) => t.ms > LONG_MS).length,
        tasks.filter((t) => t.ownMs > LONG_MS).length,
        `${(most ?? 0).toFixed(0)} ms`,
      ),
    )
    await page.waitForTimeout(1500)
  }
  return { rows, jobPage }
}

/** In a browser: from a key pressed to every dependent figure painted. On the server: a job's page over and over. */
export async function pageBench(): Promise<string> {
  const server = spawn(process.execPath, ['scripts/e2e-server.mjs'], {
    env: { ...process.env, E2E_PORT: String(port), E2E_WORKER: 'off' },
    stdio: 'ignore',
  })
  try {
    await answered()
    const browser = await chromium.launch(CHROMIUM)
    const page = await (await browser.newContext({ baseURL: base, viewport: { width: 1280, height: 800 } })).newPage()
    await page.goto('/sign-in')
    await page.getByRole('button', { name: 'Lead (demo)' }).click()
    await page.getByRole('heading', { name: 'Yard' }).waitFor()
    const { rows, jobPage } = await typing(browser, page)
    const cookies = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ')
    const ask = async (path: string) => {
      const t = performance.now()
      const r = await fetch(base + path, { headers: { cookie: cookies }, redirect: 'manual' })
      await r.text()
      if (r.status !== 200) throw new Error(`${path}: ${r.status}`)
      return performance.now() - t
    }
    const served: number[] = []
    for (let i = 0; i < 10; i++) await ask(jobPage)
    for (let i = 0; i < REQUESTS; i++) served.push(await ask(jobPage))
    const skin = await skinBench(browser, page, base)
    await browser.close()
    const job = [...served].sort((a, b) => a - b)
    return `## From typing a figure to every dependent figure on screen

A width is changed in the measuring sheet; the time runs until the rail's new figures are painted (two animation
frames, so never under about 17-33 ms). Nothing is solved beside it: a shop's server is another
machine. A task's own time is what its thread had of a processor: here two are shared by browser, driver and server, and
a task is taken off for 10 to 15 ms at a time.

| panels | median | 95 in 100 | changes seen on the rail | tasks over 50 ms | by their own time | the longest by that |
|---|---|---|---|---|---|---|
${rows.join('\n')}

## The page of a 40-panel job

${REQUESTS} requests one after the other, signed in, production build, database included: median
**${median(job).toFixed(0)} ms**, 95 in 100 under ${(job[Math.floor(job.length * 0.95)] ?? 0).toFixed(0)} ms.

${skin}`
  } finally {
    server.kill('SIGTERM')
  }
}
