import { readFileSync } from 'node:fs'
import { enter, expect, jobUrl, test } from './shop'

const VIEWS = ['Now', /^Heat/, /^Trouble/, 'Check', 'Film'] as const

test('bay entries survive a dead network and a reload, and arrive once', async ({ page, context }) => {
  await enter(page, 'installer')
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(jobUrl('corvane', 'bay'))
  const views = page.getByRole('navigation', { name: 'Bay views' })
  await expect(page.getByTestId('outbox')).toHaveText('All entries sent')
  await context.setOffline(true)
  await views.getByRole('button', { name: /^Trouble/ }).click()
  await page.getByLabel('Note', { exact: true }).fill('noted with no network')
  await page.getByRole('button', { name: 'Note only' }).click()
  await expect(page.getByTestId('outbox')).toContainText('1 entry kept here')
  await expect(page.getByRole('listitem').filter({ hasText: 'noted with no network' })).toHaveCount(1)
  await context.setOffline(false)
  await page.reload()
  await expect(page.getByTestId('outbox')).toHaveText('All entries sent')
  await views.getByRole('button', { name: /^Trouble/ }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'noted with no network' })).toHaveCount(1)
})

test('the server killed after it wrote an entry and before it answered: the entry stands once', async ({ page }) => {
  test.setTimeout(150_000)
  await enter(page, 'installer')
  await page.goto(jobUrl('corvane', 'bay'))
  const outbox = page.getByTestId('outbox')
  await expect(outbox).toHaveText('All entries sent')
  const server = Number(readFileSync('.data/e2e-server.pid', 'utf8'))
  let written = 0
  await page.route('**/entries', async (route) => {
    if (written++ > 0) return route.continue()
    expect((await route.fetch()).ok()).toBe(true)
    process.kill(server, 'SIGKILL')
    await route.abort('connectionreset')
  })
  const views = page.getByRole('navigation', { name: 'Bay views' })
  await views.getByRole('button', { name: /^Trouble/ }).click()
  await page.getByLabel('Note', { exact: true }).fill('noted as the server died')
  await page.getByRole('button', { name: 'Note only' }).click()
  await expect(outbox).toContainText('1 entry kept here')
  // It is started again, and what waits goes out by itself: a second time, for the device.
  await expect(outbox).toHaveText('All entries sent', { timeout: 60_000 })
  expect(written).toBeGreaterThan(1)
  expect(Number(readFileSync('.data/e2e-server.pid', 'utf8'))).not.toBe(server)
  await page.reload()
  await views.getByRole('button', { name: /^Trouble/ }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'noted as the server died' })).toHaveCount(1)
})

test('nothing needed scrolls, and every control is a thumb wide', async ({ page }) => {
  await enter(page, 'installer')
  for (const size of [
    { width: 820, height: 1180 },
    { width: 390, height: 844 },
    { width: 844, height: 390 },
  ]) {
    await page.setViewportSize(size)
    await page.goto(jobUrl('corvane', 'bay'))
    for (const view of VIEWS) {
      await page.getByRole('navigation', { name: 'Bay views' }).getByRole('button', { name: view }).click()
      const least = size.height < 500 ? 44 : 52
      const small = await page.locator('.bay :is(button, select, input):not(.visually-hidden)').evaluateAll(
        (list, least) =>
          list
            .map((e) => ({ box: e.getBoundingClientRect(), name: e.textContent }))
            .filter(({ box }) => box.width > 0 && (box.height < least || box.width < 44))
            .map(({ box, name }) => `${name} ${box.width}x${box.height}`),
        least,
      )
      expect(small, `${size.width} ${String(view)}`).toEqual([])
      expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
    }
    for (const view of ['Now', /^Heat/] as const) {
      await page.getByRole('navigation', { name: 'Bay views' }).getByRole('button', { name: view }).click()
      const over = await page.locator('.bay-body').evaluate((e) => e.scrollHeight - e.clientHeight)
      expect(over, `${size.width} ${String(view)}`).toBeLessThanOrEqual(1)
    }
  }
})

test('a panel with places unread is not called done without a reason, which stays in the record', async ({ page }) => {
  await enter(page, 'installer')
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(jobUrl('corvane', 'bay'))
  const now = page.getByRole('region', { name: 'Now' })
  const title = await now.getByRole('heading').innerText()
  await now.getByRole('button', { name: 'Done', exact: true }).click()
  const asked = page.getByRole('alertdialog')
  await expect(asked).toContainText('have no reading that counts')
  await asked.getByRole('button', { name: 'Back' }).click()
  await expect(now.getByRole('heading')).toHaveText(title)
  await now.getByRole('button', { name: 'Done', exact: true }).click()
  await asked.getByRole('button', { name: 'Lead says so' }).click()
  await expect(now.getByRole('heading')).not.toHaveText(title)
  await expect(page.getByTestId('outbox')).toHaveText('All entries sent')
  const ledger = (await (await page.request.get(jobUrl('corvane', 'ledger.json'))).json()) as {
    entries: { payload: { kind: string; reason?: string } }[]
  }
  expect(ledger.entries.filter((e) => e.payload.kind === 'guard_passed').map((e) => e.payload.reason)).toEqual([
    'Lead says so',
  ])
})

test('a reading: the air stream is asked about, the gun away counts, several places in one sweep', async ({ page }) => {
  await enter(page, 'installer')
  await page.setViewportSize({ width: 820, height: 1180 })
  await page.goto(jobUrl('wrenfield', 'bay'))
  const views = page.getByRole('navigation', { name: 'Bay views' })
  await views.getByRole('button', { name: /^Heat/ }).click()
  const count = async () => Number((await views.getByRole('button', { name: /^Heat/ }).innerText()).replace(/\D/g, ''))
  const before = await count()
  for (const digit of ['9', '0']) await page.getByRole('button', { name: digit, exact: true }).click()
  await page.getByRole('button', { name: 'Gun still on' }).click()
  await expect(page.getByRole('alertdialog')).toContainText('air stream')
  await page.getByRole('button', { name: 'Read again' }).click()
  expect(await count()).toBe(before)
  const edges = page.getByRole('group', { name: 'Places' }).getByRole('button', { name: /^All \d+ edges$/ })
  const several = Number((await edges.innerText()).replace(/\D/g, ''))
  await edges.click()
  for (const digit of ['9', '0']) await page.getByRole('button', { name: digit, exact: true }).click()
  await page.getByRole('button', { name: 'Gun away: log' }).click()
  await expect.poll(count).toBe(before - several)
})

test.describe('with the application kept on the device', () => {
  test.use({ serviceWorkers: 'allow' })
  test('what is worked out on a page of its own still is', async ({ page }) => {
    await enter(page)
    await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true)
    await page.goto(jobUrl('wrenfield', 'edges'))
    // The sweep of the gun is there unasked; what it does to the panel is worked out here.
    await expect(page.getByText(/mm\/s \(25 mm in/)).toBeVisible()
    await page.getByRole('button', { name: 'What it does to the panel' }).click()
    await expect(page.getByText(/^Film in the middle of the edge/)).toBeVisible({ timeout: 30_000 })
    await page.goto('/')
    await expect(page.getByRole('group', { name: 'Work by day' })).toBeVisible()
  })
  test('the bay opens with no network at all, and what is entered then arrives when it is back', async ({
    page,
    context,
  }) => {
    await enter(page, 'installer')
    const isKept = () => page.evaluate(async (url) => (await caches.match(url)) !== undefined, jobUrl('corvane', 'bay'))
    await expect.poll(isKept, { timeout: 60_000 }).toBe(true)
    await context.setOffline(true)
    await page.goto(jobUrl('corvane', 'bay'))
    await expect(page.getByRole('region', { name: 'Now' })).toBeVisible()
    await expect(page.getByTestId('outbox')).toContainText('No network')
    await page
      .getByRole('navigation', { name: 'Bay views' })
      .getByRole('button', { name: /^Trouble/ })
      .click()
    await page.getByLabel('Note', { exact: true }).fill('written in the cellar')
    await page.getByRole('button', { name: 'Note only' }).click()
    await page.reload()
    await expect(page.getByTestId('outbox')).toContainText('1 entry kept here')
    await page.goto('/fleet')
    await expect(page.getByRole('heading', { name: 'No network' })).toBeVisible()
    await page.goto(jobUrl('corvane', 'bay'))
    await context.setOffline(false)
    await expect(page.getByTestId('outbox')).toHaveText('All entries sent')
    const ledger = await (await page.request.get(jobUrl('corvane', 'ledger.json'))).text()
    expect(ledger.split('written in the cellar')).toHaveLength(2)
  })
})
