import { enter, expect, jobUrl, saved, test } from './shop'

test('a fleet: vehicles picked, laid out by a worker with progress, the result found by name; cancelled; a bad file refused', async ({
  page,
}) => {
  await enter(page)
  await page.goto('/fleet')
  await expect(page.getByLabel('Film', { exact: true })).toBeEnabled()
  await page.getByLabel('Film', { exact: true }).selectOption({ label: 'Fen satin green' })
  await page.getByLabel('Name', { exact: true }).fill('Three hatches')
  const hatch = page.getByRole('checkbox', { name: 'Wrenfield Pip Wrenfield Pip to fen green' })
  await hatch.check()
  await page.getByLabel('Wrenfield Pip, vehicles alike').fill('3')
  await page.keyboard.press('Tab')
  await page.getByLabel('Seconds to search').fill('2')
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Lay them out' }).click()
  await expect(page.getByRole('heading', { name: 'Three hatches' })).toBeVisible()
  await expect(page.getByRole('status').filter({ hasText: /^done/ })).toBeVisible({ timeout: 60_000 })
  await expect(page.getByTestId('fleet-used')).toContainText(' m')
  await page.getByLabel('Find a vehicle or piece').fill('2 Wrenfield')
  await expect(page.locator('main svg rect[fill="var(--brass)"]').first()).toBeVisible()
  await page.goto('/fleet')
  await expect(page.getByRole('row', { name: /Three hatches/ })).toContainText('done')
  // One that would go on for minutes is cancelled, and what was found is kept.
  await page.getByLabel('Film', { exact: true }).selectOption({ label: 'Fen satin green' })
  await page.getByLabel('Name', { exact: true }).fill('Too long')
  await page.getByRole('checkbox', { name: 'Wrenfield Pip Wrenfield Pip to fen green' }).check()
  await page.getByLabel('Wrenfield Pip, vehicles alike').fill('4')
  await page.keyboard.press('Tab')
  await page.getByLabel('Seconds to search').fill('200')
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Lay them out' }).click()
  await expect(page.getByRole('status').filter({ hasText: /being laid out/ })).toBeVisible({ timeout: 60_000 })
  await page.getByRole('button', { name: 'Cancel Too long' }).click()
  await expect(page.getByRole('status').filter({ hasText: /^cancelled/ })).toBeVisible({ timeout: 30_000 })
  await page.goto('/fleet')
  await expect(page.getByLabel('Film', { exact: true })).toBeEnabled()
  const bring = (text: string) =>
    page
      .getByLabel('Layout file as JSON')
      .setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from(text) })
  await bring(
    '{"format":"cuirass/layout@1","stock":[{"id":"a","width_mm":1520,"length_mm":0}],"pieces":[{"id":"p","width_mm":100,"height_mm":100}]}',
  )
  await expect(page.getByRole('alert').filter({ hasText: /stock\[0\]\.length_mm/ })).toBeVisible()
  await bring(
    JSON.stringify({
      format: 'cuirass/layout@1',
      stock: [{ id: 'a', width_mm: 1520, length_mm: 9000 }],
      pieces: [{ id: 'p', width_mm: 100, height_mm: 100, count: 10000 }],
    }),
  )
  await expect(page.getByRole('alert').filter({ hasText: /more than 5000 pieces/ })).toBeVisible()
})

test('by machine: outlines interlock, the table cuts what is kept, stock falls, and a cut made by mistake goes back', async ({
  page,
}) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'roll'))
  await expect(page.getByLabel('Cut', { exact: true })).toBeEnabled()
  await page.getByLabel('Cut', { exact: true }).selectOption('free')
  await saved(page)
  const film = page.getByRole('region', { name: 'Fen satin green', exact: true })
  await page.getByRole('button', { name: 'Look for a shorter one' }).click()
  await expect(film.getByRole('status').filter({ hasText: /kept\./ })).toBeVisible({ timeout: 30_000 })
  await saved(page)
  const table = page.getByRole('region', { name: 'Cutting table' })
  await table.getByRole('button', { name: 'Send to the cutting table' }).first().click()
  await expect(table.getByText(/^Cut: \d+ outlines/).first()).toBeVisible({ timeout: 60_000 })
  await expect(table.getByRole('button', { name: 'Take it off the roll' }).first()).toBeVisible()
  // Left as it was found.
  await page.getByLabel('Cut', { exact: true }).selectOption('crosscut')
  await saved(page)
})

test('damage is kept out of layouts; a cut ticked by mistake is taken back and its film with it', async ({ page }) => {
  await enter(page)
  await page.goto('/rack')
  await page.getByRole('button', { name: 'Note damage on R-02' }).click()
  await page.getByLabel('Damage on R-02, from the open end').fill('2000')
  await page.keyboard.press('Tab')
  await page.getByLabel('Damage on R-02, over').fill('90000')
  await page.keyboard.press('Tab')
  await expect(page.getByRole('button', { name: 'Keep it out of layouts' })).toBeDisabled()
  await page.getByLabel('Damage on R-02, over').fill('150')
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Keep it out of layouts' }).click()
  await expect(page.getByText(/damaged 2000 mm to 2150 mm|damaged 2.00 m to 2.15 m/)).toBeVisible()
  await page.getByRole('button', { name: 'Damage 1 of R-02 is none' }).click()
  await expect(page.getByText(/^damaged/)).toHaveCount(0)
  await page.goto(jobUrl('pickup', 'cut'))
  const made = page.getByText(/^\d+ of \d+ cuts made$/).first()
  const keep = page.getByRole('button', { name: 'Keep this layout' })
  if (await keep.isVisible()) await keep.click()
  await expect(made).toContainText(/^0 of/)
  await page.getByRole('button', { name: 'Cut made' }).first().click()
  await expect(made).toContainText(/^1 of/)
  await page.getByRole('button', { name: 'Before', exact: true }).first().click()
  await page.getByRole('button', { name: 'Not cut after all' }).click()
  await expect(made).toContainText(/^0 of/)
  await expect(page.getByText('All entries sent')).toBeVisible()
  await page.reload()
  await expect(made).toContainText(/^0 of/)
})
