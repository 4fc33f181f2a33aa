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
