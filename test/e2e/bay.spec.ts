import { enter, expect, jobUrl, test } from './shop'

test('bay entries survive a dead network and a reload, and arrive once', async ({ page, context }) => {
  await enter(page, 'installer')
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(jobUrl('corvane', 'bay'))
  await expect(page.getByTestId('outbox')).toHaveText('All entries sent')
  await context.setOffline(true)
  await page.getByRole('button', { name: 'Defects' }).click()
  await page.getByLabel('Where, what was done').fill('noted with no network')
  await page.getByRole('button', { name: 'Note only' }).click()
  await expect(page.getByTestId('outbox')).toContainText('1 entry kept here')
  await expect(page.getByRole('listitem').filter({ hasText: 'noted with no network' })).toHaveCount(1)
  await context.setOffline(false)
  await page.reload()
  await expect(page.getByTestId('outbox')).toHaveText('All entries sent')
  await page.getByRole('button', { name: 'Defects' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'noted with no network' })).toHaveCount(1)
})

test('every control of the bay is a thumb wide', async ({ page }) => {
  await enter(page, 'installer')
  for (const size of [
    { width: 820, height: 1180 },
    { width: 390, height: 844 },
  ]) {
    await page.setViewportSize(size)
    await page.goto(jobUrl('corvane', 'bay'))
    for (const tab of ['Steps', /^Heat/, 'Film', 'Defects']) {
      await page.getByRole('group', { name: 'Bay views' }).getByRole('button', { name: tab }).click()
      const small = await page
        .locator('.bay :is(button, select, input)')
        .evaluateAll(
          (list) =>
            list.map((e) => e.getBoundingClientRect()).filter((b) => b.width > 0 && (b.height < 48 || b.width < 48))
              .length,
        )
      expect(small, `${size.width} ${tab}`).toBe(0)
      expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
    }
  }
})
