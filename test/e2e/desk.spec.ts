import { enter, expect, jobUrl, rail, kept, saved, takeIn, test, typePanel } from './shop'

test('a full car of 24 panels is typed without the mouse', async ({ page }) => {
  await enter(page)
  await takeIn(page, 'All by keyboard')
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Tape/ }).click()
  await page.getByLabel('Name of a new panel').focus()
  const names = [
    'Bonnet',
    'Roof',
    'Hatch',
    'Spoiler',
    'Front bumper',
    'Rear bumper',
    ...[
      'Wing',
      'Front door',
      'Rear door',
      'Quarter',
      'Sill',
      'Mirror',
      'Front handle',
      'Rear handle',
      'Pillar',
    ].flatMap((n) => [`${n} left`, `${n} right`]),
  ]
  expect(names).toHaveLength(24)
  for (const [i, name] of names.entries()) await typePanel(page, name, String(400 + i * 10), String(300 + i * 5))
  await saved(page)
  await page.reload()
  await expect(page.getByText('24 panels, ')).toBeVisible()
  await expect(page.getByLabel('Pillar right, height')).toHaveValue('415')
  await expect(page.getByLabel('Front door left, kind')).toHaveValue('door')
  // Arrows walk the grid.
  await expect(page.getByLabel('Bonnet, width')).toBeEnabled()
  await page.getByLabel('Bonnet, width').focus()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByLabel('Roof, width')).toBeFocused()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByLabel('Roof, height')).toBeFocused()
})

test('bad figures are refused at the field and never saved', async ({ page }) => {
  await enter(page)
  await page.goto(jobUrl('pickup', 'tape'))
  const before = await page.getByTestId('save-state').textContent()
  const cell = page.getByLabel('Roof, width')
  for (const [text, why] of [
    ['40 m', 'at most 15 m'],
    ['0', 'More than 0'],
    ['-3', 'More than 0'],
    ['37 1/', 'breaks off'],
    ['12 parsec', 'no unit'],
    ['1000000000', 'at most 15 m'],
  ] as const) {
    // prettier-ignore
    await cell.fill(text)
    await expect(page.getByRole('cell').getByRole('alert').filter({ hasText: why })).toBeVisible()
  }
  await page.keyboard.press('Escape')
  await page.reload()
  await expect(page.getByTestId('save-state')).toHaveText(before ?? '')
  await expect(page.getByLabel('Roof, width')).toHaveValue('1350')
})

test('units: the same car in inches, yards and °F', async ({ page }) => {
  await enter(page, 'owner')
  await page.goto(jobUrl('pickup', 'tape'))
  await page.getByLabel('Length unit').selectOption('in')
  await expect(page.getByLabel('Roof, width')).toHaveValue('53 1/8')
  await page.getByLabel('Temperature unit').selectOption('F')
  await page.getByLabel('Words').selectOption('en-US')
  // The choice shows once it is kept; leaving the page before that would cut it off.
  await expect(page.getByLabel('Words')).toHaveValue('en-US')
  await page.goto(jobUrl('pickup', 'handover'))
  await expect(page.getByText('179.6 °F').first()).toBeVisible()
  await page.getByLabel('Length unit').selectOption('mm')
  await page.getByLabel('Temperature unit').selectOption('C')
  await page.getByLabel('Words').selectOption('en-GB')
})

test('two people at one job: different panels merge, the same panel shows both sides', async ({
  page,
  browser,
  baseURL,
}) => {
  await enter(page)
  const other = await (await browser.newContext({ baseURL })).newPage()
  await enter(other, 'owner')
  await page.goto(jobUrl('drover', 'tape'))
  await other.goto(jobUrl('drover', 'tape'))
  await kept(other, () => other.getByLabel('Bonnet, width').fill('1460'))
  await page.getByLabel('Bonnet, kind').focus()
  await page.getByLabel('Front door left, height').fill('1160')
  await expect(page.getByTestId('save-state')).toHaveAttribute('data-kind', 'merged')
  await expect(page.getByLabel('Bonnet, width')).toHaveValue('1460')
  await kept(other, () => other.getByLabel('Bonnet, width').fill('1470'))
  await page.getByLabel('Bonnet, width').fill('1490')
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByText('Imre Saltwell changed the same thing meanwhile')).toBeVisible()
  await expect(dialog.getByText('widthMm: 1490')).toBeVisible()
  await expect(dialog.getByText('widthMm: 1470')).toBeVisible()
  await dialog.getByRole('button', { name: 'Take theirs' }).click()
  await saved(page)
  await expect(page.getByLabel('Bonnet, width')).toHaveValue('1470')
  await other.context().close()
})

test('a job file goes out and comes in; a bad one is refused with the reason', async ({ page, context }) => {
  await enter(page)
  const file = await (await context.request.get(jobUrl('wrenfield', 'job.json'))).text()
  const bring = async (text: string) => {
    await page.goto('/')
    await page.getByRole('button', { name: 'New job' }).click()
    await page
      .getByLabel('Job file')
      .setInputFiles({ name: 'job.json', mimeType: 'application/json', buffer: Buffer.from(text) })
  }
  await bring(file.slice(0, 3000))
  await expect(page.getByRole('alert').filter({ hasText: 'breaks off in the middle' })).toBeVisible()
  await bring(file.replace('cuirass/job@1', 'cuirass/job@5'))
  await expect(page.getByRole('alert').filter({ hasText: 'later version' })).toBeVisible()
  await bring(`"${'x'.repeat(5_000_000)}"`)
  await expect(page.getByRole('alert').filter({ hasText: 'too large' })).toBeVisible()
  await bring(file.replace('Wrenfield Pip to fen green', '<img src=x onerror=alert(1)>'))
  await expect(page.getByRole('heading', { name: 'Walkaround' })).toBeVisible()
  await expect(page.getByLabel('Job', { exact: true })).toHaveValue('<img src=x onerror=alert(1)>')
  await expect(rail(page, 'Edges')).toHaveText(/62\.94/)
})
