import { enter, expect, jobUrl, saved, test } from './shop'

test('the roll: taken from the shelf, pieces moved by key and refused with the reason, locked, searched on, compared, undone', async ({
  page,
}) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'roll'))
  const film = page.getByRole('region', { name: 'Fen satin green', exact: true })
  await expect(page.getByLabel('Stages of cuts')).toBeEnabled()
  await page.getByLabel('Stages of cuts').selectOption('4')
  // Whatever lies at the end of the roll may go further along it.
  const pieces = film.locator('.roll-piece')
  const ends = await pieces.evaluateAll((list) => list.map((e) => e.getBoundingClientRect().right))
  const last = pieces.nth(ends.indexOf(Math.max(...ends)))
  await last.focus()
  await expect(last).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('ArrowRight')
  await saved(page)
  await expect(page.getByRole('button', { name: 'Layout is kept' })).toBeVisible()
  // The first piece cannot go towards the end that it lies at.
  await pieces.first().focus()
  await page.keyboard.press('ArrowLeft')
  await expect(film.getByRole('alert')).toContainText(
    /cannot go further|would lie|no straight cut|stick out|stages of cuts/,
  )
  await page.keyboard.press('l')
  await expect(pieces.first()).toHaveAttribute('aria-label', /locked/)
  await page.keyboard.press('ArrowRight')
  await expect(film.getByRole('alert')).toContainText('is locked')
  await page.getByRole('button', { name: 'Lay the rest anew' }).click()
  await expect(page.getByRole('button', { name: 'Stop searching' })).toBeVisible()
  await expect(film.getByRole('status').filter({ hasText: /shorter|short as before|No shorter/ })).toBeVisible({
    timeout: 20_000,
  })
  await expect(pieces.first()).toBeVisible()
  await saved(page)
  await page.getByLabel('Compare with').selectOption('free')
  await expect(page.getByRole('row', { name: /^by machine/ })).toBeVisible()
  await film.getByText(/^From:/).click()
  await expect(film.getByRole('row', { name: /Buy, 1520 mm wide/ })).toBeVisible()
  await page.getByLabel('Gap between pieces').fill('5')
  await page.getByLabel('Gap between pieces').press('Tab')
  await expect(page.getByText(/changed after the layout was kept/)).toBeVisible()
  await saved(page)
})

test('cut by cut in the bay: the tape’s reading, a tick, stock falls; the files come down', async ({ page }) => {
  await enter(page)
  await page.goto(jobUrl('corvane', 'cut'))
  await page.setViewportSize({ width: 390, height: 844 })
  await expect(page.getByTestId('cut-distance')).toContainText('mm')
  await expect(page.getByText(/^0 of \d+ cuts made/)).toBeVisible()
  const tape = Number((await page.getByTestId('cut-distance').innerText()).replace(/\D/g, ''))
  const small = await page
    .locator('.bay :is(button, select)')
    .evaluateAll(
      (list) =>
        list.map((e) => e.getBoundingClientRect()).filter((b) => b.width > 0 && (b.height < 48 || b.width < 48)).length,
    )
  expect(small).toBe(0)
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
  const from = page.getByRole('combobox', { name: 'Cut from' })
  const before = Number((await from.locator('option:checked').innerText()).match(/([\d.]+) m$/)?.[1])
  await page.getByRole('button', { name: 'After', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Cut 1 comes first' })).toBeDisabled()
  await page.getByRole('button', { name: 'Before', exact: true }).click()
  await page.getByRole('button', { name: 'Cut made' }).click()
  await expect(page.getByText(/^1 of \d+ cuts made/)).toBeVisible()
  await expect(page.getByText('All entries sent')).toBeVisible()
  await page.reload()
  await expect(page.getByText(/^1 of \d+ cuts made/)).toBeVisible()
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto('/rack')
  await expect(page.getByText(`${((before * 1000 - tape) / 1000).toFixed(2)} m`).first()).toBeVisible()
  await page.goto(jobUrl('corvane', 'roll'))
  await expect(page.getByRole('button', { name: /Bonnet,.*cut/ })).toBeVisible()
  for (const name of [
    'Cut sheet (PDF)',
    'Piece labels (PDF)',
    'SVG, true size',
    'DXF, true size',
    'Pieces (CSV)',
    'Order list (CSV)',
  ]) {
    const href = await page.getByRole('link', { name }).getAttribute('href')
    expect((await page.request.get(href ?? '')).status(), name).toBe(200)
  }
})
