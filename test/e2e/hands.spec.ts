import { enter, expect, jobUrl, kept, test } from './shop'

test('the board: work is set to another moment and let go again; what cannot be is refused with the reason', async ({
  page,
}) => {
  test.setTimeout(180_000)
  await enter(page)
  await page.getByRole('button', { name: 'two weeks' }).click()
  const board = page.getByRole('group', { name: 'Work by day' })
  const any = board.getByRole('button', { name: /: wrap, / }).last()
  const job = (await any.getAttribute('aria-label'))?.split(': wrap')[0] ?? ''
  const wrap = board.getByRole('button', { name: `${job}: wrap` }).first()
  const before = (await wrap.getAttribute('aria-label')) ?? ''
  const picked = page.getByRole('group', { name: 'Picked work' })
  const begin = picked.getByLabel('Begin of the picked work')
  const set = async (days: number) => {
    await wrap.focus()
    await page.keyboard.press('Enter')
    const [date = '', month = '', year = ''] = (await begin.inputValue()).split(/[/ ]/)
    const day = new Date(Date.UTC(Number(year), Number(month) - 1, Number(date) + days))
    const two = (n: number) => String(n).padStart(2, '0')
    await begin.fill(`${two(day.getUTCDate())}/${two(day.getUTCMonth() + 1)}/${day.getUTCFullYear()} 10:00`)
    await page.keyboard.press('Escape')
    await picked.getByRole('button', { name: 'Set', exact: true }).click()
  }
  // A year before nobody can begin.
  await set(-364)
  await expect(page.getByRole('alert').filter({ hasText: 'that moment has passed' })).toBeVisible()
  await expect(wrap).toHaveAttribute('aria-label', before)
  // Two weeks later nothing else is set, but the shop may be closed that day: then the day after, and the one after that.
  const refused = page
    .getByRole('alert')
    .filter({ hasText: /the shop is closed then|is not over by then|are taken by/ })
  let stands = false
  for (let days = 14; days < 21 && !stands; days++) {
    const told = page
      .waitForRequest((r) => r.method() === 'POST' && 'next-action' in r.headers(), { timeout: 20e3 })
      .then(async (r) => (await r.response()) !== null)
    await set(days)
    stands = await Promise.any([told, refused.waitFor({ timeout: 20e3 }).then(() => false)])
    told.catch(() => undefined)
  }
  expect(stands).toBe(true)
  await page.reload()
  await page.getByRole('button', { name: 'two weeks' }).click()
  const pinned = board.getByRole('button', { name: new RegExp(`^${job}: wrap.*10:00 to .*begin is set`) }).first()
  await expect(board).toBeVisible()
  for (let turn = 0; turn < 2; turn++) {
    await page.getByRole('button', { name: 'Later' }).click()
    if (await pinned.isVisible()) break
  }
  await expect(pinned).toBeVisible()
  await pinned.focus()
  await page.keyboard.press('Enter')
  await picked.getByRole('button', { name: 'Let it come when it comes' }).click()
  await expect(
    board.getByRole('button', { name: `${job}: wrap` }).and(board.getByRole('button', { name: /begin is set/ })),
  ).toHaveCount(0)
})

test('a shared tablet: four digits change the person; a wrong PIN is told; the rights are theirs', async ({ page }) => {
  await enter(page, 'installer')
  await page.setViewportSize({ width: 820, height: 1180 })
  await page.goto(jobUrl('corvane', 'bay'))
  const person = page.getByRole('button', { name: /: change person$/ })
  const name = (await person.innerText()).trim()
  const press = async (digits: string) => {
    for (const d of digits) await page.getByRole('button', { name: d, exact: true }).click()
  }
  await person.click()
  await page.getByRole('button', { name: 'A PIN for me here' }).click()
  await press('2580')
  await expect(page.getByRole('status').filter({ hasText: 'Your PIN counts' })).toBeVisible()
  await page.getByRole('button', { name: 'Full sign-in' }).click()
  await expect(page).toHaveURL(/\/sign-in$/)
  await enter(page, 'lead')
  await page.goto(jobUrl('corvane', 'bay'))
  await expect(person).not.toHaveText(name)
  await person.click()
  await page.getByRole('button', { name, exact: true }).click()
  await press('1111')
  await expect(page.getByRole('status').filter({ hasText: '4 tries left' })).toBeVisible()
  await press('2580')
  await expect(person).toHaveText(name)
  // An installer plans nothing.
  await page.goto(jobUrl('corvane', 'run-sheet'))
  await expect(page.getByLabel('Crew', { exact: true })).toBeDisabled()
})

test('the thermometer: a mirror is asked about, on tape its figure counts for the place', async ({ page }) => {
  await enter(page, 'installer')
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(jobUrl('corvane', 'bay'))
  const views = page.getByRole('navigation', { name: 'Bay views' })
  await views.getByRole('button', { name: /^Heat/ }).click()
  await page.getByRole('button', { name: 'Thermometer', exact: true }).click()
  const line = page.getByRole('group', { name: 'Thermometer' })
  const shows = async () => Number.parseFloat(await line.getByRole('status').innerText())
  await expect.poll(shows).toBeGreaterThan(20)
  expect(await shows()).toBeLessThan(60)
  await line.getByRole('button', { name: /ake it$/ }).click()
  await expect(page.getByRole('alertdialog')).toContainText('mirror')
  await page.getByRole('button', { name: 'Tape is on: read again' }).click()
  await expect.poll(shows).toBeGreaterThan(80)
  // Still the same figures a while later: it was switched on once.
  await page.waitForTimeout(1500)
  expect(await shows()).toBeGreaterThan(70)
})

test('several edges at once: marked by the filter, cut flush together, and back to the rules', async ({ page }) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'edges'))
  await page.getByLabel('Filter edges').fill('bonnet')
  const rows = page.getByRole('region', { name: 'Edges', exact: true }).getByRole('row')
  const table = page.getByRole('region', { name: 'Edges', exact: true })
  await table
    .getByRole('checkbox', { name: /^Change together/ })
    .first()
    .check()
  const together = page.getByRole('region', { name: 'Edges changed together' })
  await together.getByRole('button', { name: 'Mark all shown' }).click()
  const count = (await rows.count()) - 1
  await expect(together).toContainText(`${count} of ${count} edges marked`)
  await together.getByLabel('Cut', { exact: true }).selectOption('flush')
  await kept(page, () => together.getByRole('button', { name: `Set on these ${count}` }).click())
  const flush = rows.filter({ hasText: 'flush' })
  await expect(flush).toHaveCount(count)
  await table
    .getByRole('checkbox', { name: /^Change together/ })
    .first()
    .check()
  await together.getByRole('button', { name: 'Mark all shown' }).click()
  await together.getByRole('button', { name: 'Back to the rules' }).click()
  await kept(page, () => together.getByRole('button', { name: `Set on these ${count}` }).click())
  await expect(flush).toHaveCount(0)
})

test('a phone in the bay: the bar’s words give way while entries wait, its buttons do not', async ({ page }) => {
  await enter(page, 'installer')
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(jobUrl('corvane', 'bay'))
  await page.route('**/api/**', (r) => (r.request().method() === 'POST' ? r.abort() : r.continue()))
  await page.getByRole('navigation', { name: 'Bay views' }).getByRole('button', { name: /^Film/ }).click()
  const used = page.getByRole('region', { name: 'Used up' })
  await used.getByLabel('Metres').fill('0.5')
  await used.getByRole('button', { name: 'm used' }).click()
  await expect(page.getByText(/entry kept here/)).toBeVisible()
  const last = await page.getByRole('button', { name: /^(Daylight|Dark)$/ }).boundingBox()
  expect((last?.x ?? Infinity) + (last?.width ?? 0)).toBeLessThanOrEqual(390)
})
