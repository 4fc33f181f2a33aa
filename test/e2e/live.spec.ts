import { enter, expect, jobUrl, test } from './shop'

test('two people, one job: figures stand settled on every page, a change is seen within two seconds, and settles alike', async ({
  page,
  browser,
}) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'pieces'))
  const other = await (await browser.newContext()).newPage()
  await enter(other, 'owner')
  await other.goto(jobUrl('wrenfield', 'roll'))
  const rail = (of: typeof page) => of.getByRole('complementary', { name: 'Reckoning' })
  const figures = async (of: typeof page) =>
    (await rail(of).innerText())
      .replace(/settled, was .*/g, '')
      .replace(/\s+/g, ' ')
      .trim()
  await expect(rail(page).getByText('Film to order')).toBeVisible()
  await expect(rail(other).getByText('Film to order')).toBeVisible()
  for (const of of [page, other]) await expect(rail(of).getByText(/^Settling/)).toHaveCount(0, { timeout: 150_000 })
  // Another page, another person: the same figures, and nothing settles on a demo that was not touched.
  expect(await figures(other)).toBe(await figures(page))
  const before = await figures(page)

  await page.getByLabel('Bonnet, parts').selectOption('2')
  await expect(rail(page).getByText(/^Settling/)).toBeVisible()
  await expect(rail(other).getByText('1539')).toBeVisible({ timeout: 20_000 })
  await expect(rail(page).getByText(/^Settling/)).toHaveCount(0, { timeout: 150_000 })
  await expect(rail(other).getByText(/^Settling/)).toHaveCount(0, { timeout: 10_000 })
  expect(await figures(other)).toBe(await figures(page))
  const settled = await figures(page)
  await page.reload()
  await expect(rail(page).getByText('Film to order')).toBeVisible()
  await expect.poll(() => figures(page)).toBe(settled)

  // The stream is gone: what happens meanwhile is caught up with once it is back.
  await other.context().setOffline(true)
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await expect.poll(() => figures(page)).toBe(before)
  expect(await figures(other)).toBe(settled)
  await other.context().setOffline(false)
  await expect.poll(() => figures(other), { timeout: 20_000 }).toBe(before)
  await other.context().close()
})

/** Three times as many as a browser has connections to one host. */
const TABS = 20
test('many tabs of one browser share one stream: none hangs, and when the one that holds it goes the next takes over', async ({
  page,
  context,
  browser,
}) => {
  const streams: string[] = []
  context.on('request', (r) => {
    if (new URL(r.url()).pathname === '/api/live') streams.push(r.url())
  })
  await enter(page)
  await expect.poll(() => streams.length).toBe(1)
  const tabs = []
  for (let i = 0; i < TABS; i++) {
    const tab = await context.newPage()
    await tab.goto('/rack')
    await expect(tab.getByRole('heading', { name: 'Rack', exact: true })).toBeVisible()
    tabs.push(tab)
  }
  const [first, last] = [tabs[0], tabs.at(-1)]
  if (!first || !last) throw new Error('no tab was opened')
  expect(streams).toHaveLength(1)

  // Somebody else receives a roll: every tab shows it, the last one too.
  const other = await (await browser.newContext()).newPage()
  await enter(other, 'owner')
  const receive = async (label: string) => {
    await other.goto('/rack')
    await other.getByText('Put a roll or rest on the rack').click()
    await other.locator('#r-label').fill(label)
    await other.locator('#r-lot').fill('T26-0999')
    await other.getByRole('button', { name: 'Put on the rack' }).click()
    await expect(other.getByText(`${label} is on the rack.`)).toBeVisible()
  }
  const onRack = (tab: typeof page, label: string) => tab.getByRole('table').getByText(label, { exact: true }).first()
  await receive('R-91')
  await expect(onRack(last, 'R-91')).toBeVisible()
  await expect(onRack(first, 'R-91')).toBeVisible()

  await page.close()
  await expect.poll(() => streams.length).toBe(2)
  await receive('R-92')
  await expect(onRack(last, 'R-92')).toBeVisible()
  await other.context().close()
})
