import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { enter, expect, jobUrl, test } from './shop'

const PAGES = [
  '/',
  '/rack',
  '/fleet',
  '/shop',
  '/vehicles',
  '/vehicles/5a170000-0000-4000-8000-000000000301',
  jobUrl('wrenfield', 'skin'),
  `${jobUrl('wrenfield', 'tape')}?guide=1`,
  ...['walkaround', 'film', 'tape', 'pieces', 'roll', 'edges', 'run-sheet', 'handover', 'history'].map((s) =>
    jobUrl('wrenfield', s),
  ),
  jobUrl('corvane', 'bay'),
  jobUrl('drover', 'roll'),
  jobUrl('corvane', 'cut'),
  jobUrl('trailer', 'tape'),
  jobUrl('pickup', 'handover'),
]

/** What axe finds wrong with the page as it stands, one line each. */
async function wrongWith(page: Page, name: string): Promise<string[]> {
  // Alive: fields are shut until then, and a shut list cannot be scrolled by key.
  await page.waitForFunction(() => document.querySelector('main fieldset[disabled]') === null)
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze()
  return violations.map(
    (v) =>
      `${name}: ${v.id} ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 3)
        .join(' | ')}`,
  )
}

// In parts: axe reads a page of many panels for long on a slow machine.
const PART = 4
for (let from = 0; from < PAGES.length; from += PART)
  test(`no page has an accessibility violation that axe can find: ${from + 1} and on`, async ({ page }) => {
    await page.goto('/sign-in')
    const found = from === 0 ? await wrongWith(page, '/sign-in') : []
    await enter(page)
    for (const url of PAGES.slice(from, from + PART)) {
      await page.goto(url)
      await expect(page.getByRole('heading').first()).toBeVisible()
      found.push(...(await wrongWith(page, url)))
    }
    expect(found).toEqual([])
  })

test('what opens on a page has no accessibility violation either', async ({ page }) => {
  await page.goto('/sign-in')
  await enter(page)
  const found: string[] = []
  const look = async (name: string) => {
    found.push(...(await wrongWith(page, name)))
  }
  await page.goto(jobUrl('corvane', 'bay'))
  const views = page.getByRole('navigation', { name: 'Bay views' })
  for (const view of [/^Heat/, /^Trouble/, 'Check', 'Film']) {
    await views.getByRole('button', { name: view }).click()
    await look(`bay, ${String(view)}`)
  }
  await page.goto('/')
  await page.getByRole('button', { name: 'New job' }).click()
  await expect(page.getByLabel('Overall length')).toBeVisible()
  await look('new job')
  await page.goto('/rack')
  await page.getByRole('button', { name: 'Change Fen satin green' }).click()
  await look('film editor')
  await page.goto(jobUrl('wrenfield', 'film'))
  await page.getByText('Method', { exact: true }).click()
  await page.getByRole('button', { name: 'On this job' }).first().click()
  await page.getByLabel('panel by panel').check()
  await look('film, panel by panel, method open')
  await page.goto(jobUrl('wrenfield', 'tape'))
  await page
    .getByRole('button', { name: /^width, \d/ })
    .first()
    .click()
  await look('tape, a dimension open')
  expect(found).toEqual([])
})

test('signed out, every page leads to the door and every handler says no', async ({ page, request }) => {
  for (const url of PAGES) {
    await page.goto(url)
    await expect(page).toHaveURL(/\/sign-in$/)
  }
  expect((await request.get(jobUrl('wrenfield', 'job.json'))).status()).toBe(401)
  expect((await request.get(jobUrl('wrenfield', 'handover.pdf'))).status()).toBe(401)
})

test('unknown jobs and stages are not there; no stack trace is shown', async ({ page }) => {
  await enter(page)
  for (const url of [
    '/jobs/5a170000-0000-4000-8000-0000000000ff/tape',
    '/jobs/nonsense/tape',
    jobUrl('wrenfield', 'dance'),
  ]) {
    await page.goto(url)
    await expect(page.getByRole('heading', { name: 'Not here' })).toBeVisible()
    expect(await page.content()).not.toMatch(/at \w+ \(.*:\d+:\d+\)/)
  }
})

test('a page of another origin can neither sign in nor out', async ({ request, baseURL }) => {
  const post = (path: string) =>
    request.post(path, {
      data: { email: 'tamsin@saltmarsh.example', password: 'eddermouth-tide' },
      headers: { origin: 'http://elsewhere.example', cookie: 'cuirass.session_token=x' },
    })
  expect((await post('/api/auth/sign-in/email')).status()).toBe(403)
  expect((await post('/api/demo-sign-in')).status()).toBe(403)
  const headers = (await request.get(`${baseURL}/sign-in`)).headers()
  expect(headers['content-security-policy']).toContain("default-src 'self'")
})
