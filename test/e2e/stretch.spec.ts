import { enter, expect, jobUrl, test } from './shop'

test('the stretch of a panel from its tape: a map beside its flat film, read by pointing, places past a limit named', async ({
  page,
}) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'pieces'))
  await page.getByText('Stretch over the surface').click()
  await page.getByLabel('Panel whose stretch is shown').selectOption({ label: 'Rear door left' })
  const map = page.getByRole('region', { name: 'Stretch over Rear door left' })
  await expect(map.getByText(/\d+ triangles/)).toBeVisible({ timeout: 60_000 })
  const worst = map.getByRole('button', { name: /Rear door left: worst stretch over the surface/ })
  await worst.click()
  await expect(page.getByText(/least worst stretch of film laid on/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Close' }).click()
  await map.getByLabel('Limit of stretch').fill('0.05')
  await expect(map.getByText(/^Past 5.0 % at \d+ place/)).toBeVisible()
  await expect(map.getByRole('listitem').first()).toContainText('the top right corner')
  const seen = map.getByRole('img', { name: /^On the panel/ })
  await seen.scrollIntoViewIfNeeded()
  const box = await seen.boundingBox()
  if (!box) throw new Error('no drawing')
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.6, { steps: 3 })
  await expect(map.getByText(/^Here \d+\.\d %\./)).toBeVisible()
  // The same place is marked on the flat film too.
  await expect(map.locator('svg circle')).toHaveCount(2)
  await map.getByLabel('Limit of stretch').fill('0.4')
  await expect(map.getByText('Nowhere past 40.0 %.')).toBeVisible()
})
