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
    await cell.fill(text)
    await expect(page.getByRole('cell').getByRole('alert').filter({ hasText: why })).toBeVisible()
  }
  await page.keyboard.press('Escape')
  await page.reload()
  await expect(page.getByTestId('save-state')).toHaveText(before ?? '')
  await expect(page.getByLabel('Roof, width')).toHaveValue('1350')
})

test('a figure that the plan refuses is held back at its cell; everything else is saved, and it is there after a reload', async ({
  page,
}) => {
  await enter(page)
  await takeIn(page, 'Held back')
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Tape/ }).click()
  await page.getByLabel('Name of a new panel').focus()
  await typePanel(page, 'Bonnet', '1380', '920')
  await typePanel(page, 'Roof', '1100', '1500')
  await saved(page)
  const crown = page.getByLabel('Bonnet, crown', { exact: true })
  await kept(page, async () => {
    await page.getByLabel('Bonnet, straightedge', { exact: true }).fill('1000')
    await crown.fill('1010')
    await page.getByLabel('Roof, width', { exact: true }).fill('1234')
  })
  const bar = page.getByTestId('held')
  await expect(bar).toContainText('Not saved: Bonnet, crown.')
  await crown.focus()
  await crown.press('Tab')
  await expect(page.getByRole('cell').getByRole('alert').filter({ hasText: 'Not saved.' })).toBeVisible()
  // In view wherever one is on the page, with the way there.
  await page.mouse.wheel(0, 4000)
  await expect(bar).toBeInViewport()
  page.on('dialog', (d) => void d.accept())
  await page.reload()
  await expect(page.getByLabel('Roof, width', { exact: true })).toHaveValue('1234')
  await expect(crown).toHaveValue('1010')
  await expect(page.getByTestId('held')).toBeVisible()
  await kept(page, () => crown.fill('20'))
  await expect(page.getByTestId('held')).toHaveCount(0)
})

test('undo takes back what one did oneself and says which; a colleague’s change stays', async ({
  page,
  browser,
  baseURL,
}) => {
  await enter(page)
  const other = await (await browser.newContext({ baseURL })).newPage()
  await enter(other, 'owner')
  await page.goto(jobUrl('drover', 'tape'))
  await kept(page, () => page.getByLabel('Front door left, height').fill('1171'))
  await other.goto(jobUrl('drover', 'tape'))
  await kept(other, () => other.getByLabel('Bonnet, width').fill('1481'))
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByTestId('taken-back')).toContainText('Undo: Front door left: height 1171 →')
  await expect(page.getByLabel('Bonnet, width')).toHaveValue('1481')
  await page.getByRole('button', { name: 'Redo', exact: true }).click()
  await expect(page.getByLabel('Front door left, height')).toHaveValue('1171')
  await kept(other, () => other.getByLabel('Front door left, height').fill('1180'))
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByTestId('save-state')).toContainText('Imre Saltwell changed the same thing since')
  await other.context().close()
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
  await expect(page.getByText('179.6 °F', { exact: true }).first()).toBeVisible()
  await page.getByLabel('Length unit').selectOption('mm')
  await page.getByLabel('Temperature unit').selectOption('C')
  await page.getByLabel('Words').selectOption('en-GB')
  await expect(page.getByLabel('Words')).toHaveValue('en-GB')
  await expect(page.getByLabel('Length unit')).toHaveValue('mm')
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
  // With the network away one page hears nothing of the other.
  await page.context().setOffline(true)
  await page.getByLabel('Front door left, height').fill('1160')
  await kept(other, () => other.getByLabel('Bonnet, width').fill('1460'))
  await page.context().setOffline(false)
  await saved(page)
  await expect(page.getByLabel('Bonnet, width')).toHaveValue('1460')
  await expect(page.getByLabel('Front door left, height')).toHaveValue('1160')
  await expect(other.getByLabel('Front door left, height')).toHaveValue('1160')
  await page.context().setOffline(true)
  await page.getByLabel('Bonnet, width').fill('1490')
  await kept(other, () => other.getByLabel('Bonnet, width').fill('1470'))
  await page.context().setOffline(false)
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByText('Imre Saltwell changed the same thing meanwhile')).toBeVisible()
  await expect(dialog.getByRole('row', { name: 'Bonnet: width 1460 mm 1490 mm 1470 mm' })).toBeVisible()
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
  await bring(file.replace('cuirass/job@3', 'cuirass/job@5'))
  await expect(page.getByRole('alert').filter({ hasText: 'later version' })).toBeVisible()
  await bring(`"${'x'.repeat(5_000_000)}"`)
  await expect(page.getByRole('alert').filter({ hasText: 'too large' })).toBeVisible()
  await bring(file.replace('Wrenfield Pip to fen green', '<img src=x onerror=alert(1)>'))
  await expect(page.getByRole('heading', { name: 'Walkaround' })).toBeVisible()
  await expect(page.getByLabel('Job', { exact: true })).toHaveValue('<img src=x onerror=alert(1)>')
  await expect(rail(page, 'Edges')).toHaveText(/62\.94/)
})
