import { enter, expect, jobUrl, rail, saved, test } from './shop'

test('the shop’s hours are typed, checked at their field, kept as a version, and move when a job is ready', async ({
  page,
}) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'run-sheet'))
  await page.getByLabel('Start').fill('2026-11-30T08:00')
  await expect(rail(page, 'Ready at')).not.toHaveText('–')
  await saved(page)
  const before = await rail(page, 'Ready at').innerText()

  await page.goto('/shop')
  await page.getByLabel('Tuesday').fill('17-8')
  await page.getByRole('button', { name: 'Save the shop' }).click()
  await expect(page.getByText('“17-8” ends before it begins.')).toBeVisible()
  await expect(page.getByText('Nothing is saved yet')).toBeVisible()
  await page.getByLabel('Tuesday').fill('')
  await page.getByLabel('Closed days, one a line').fill('2026-12-02 Stock-taking')
  await page.getByRole('button', { name: 'Save the shop' }).click()
  await expect(page.getByText(/Version 2|Saved as version 2/).first()).toBeVisible()

  await page.goto(jobUrl('wrenfield', 'run-sheet'))
  await expect(rail(page, 'Ready at')).not.toHaveText(before)
  // The steps by the clock, and the working behind the hour.
  await expect(page.getByRole('heading', { name: /Thu 3 Dec/ })).toBeVisible()
  await rail(page, 'Ready at').click()
  await expect(
    page
      .getByRole('dialog')
      .getByText(/along the \d+ steps that decide/)
      .first(),
  ).toBeVisible()
})

test('edges: one is picked by its name, its section and reasons stand beside it, corners have their working', async ({
  page,
}) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'edges'))
  await page.getByLabel('Filter edges').fill('bonnet')
  await page.getByRole('button', { name: 'Bonnet, top' }).click()
  const card = page.getByRole('region', { name: 'The edge picked' })
  await expect(card.getByText('own underside').first()).toBeVisible()
  await expect(card.getByText(/meets wind and weather: deeper/)).toBeVisible()
  await expect(card.getByRole('img', { name: /Section: own underside/ })).toBeVisible()
  // The shop's gun, along this edge, in this film: solved behind the plan.
  await expect(card.getByText(/mm\/s \(25 mm in/)).toBeVisible()
  const corners = page.getByRole('region', { name: 'Corners' }).first()
  await expect(corners.getByText('cold hook').first()).toBeVisible()
  await corners
    .getByRole('button', { name: /squeeze/ })
    .first()
    .click()
  await expect(page.getByRole('dialog').getByText('With the numbers put in')).toBeVisible()
})
