import { readFileSync } from 'node:fs'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { panelMesh } from '../../core/engines/stretch/panel-mesh'
import { enter, expect, jobUrl, test } from './shop'

test.describe.configure({ mode: 'serial' })

test('the stretch of a panel from its tape: a map beside its flat film, read by pointing, places past a limit named', async ({
  page,
}) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'pieces'))
  await page.getByLabel('Panel whose stretch is shown').selectOption({ label: 'Rear door left' })
  const map = page.getByRole('region', { name: 'Stretch over Rear door left' })
  await expect(map.getByText('fine map')).toBeVisible({ timeout: 60_000 })
  // What the job says of the panel is what stands here; the mean is the map's own.
  await map.getByRole('button', { name: /Rear door left: worst stretch:/ }).click()
  await expect(page.getByText(/solved on the taped surface/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Close' }).click()
  await map.getByLabel('Limit of stretch').fill('0.03')
  await expect(map.getByText(/^Past 3.0 % at \d+ place/)).toBeVisible()
  await expect(map.getByRole('listitem').first()).toContainText('the top right corner')
  // In space: turned by keys, and the same place is marked on the flat film.
  const space = map.getByRole('application', { name: /The panel in space/ })
  await expect(space.locator('canvas')).toBeVisible()
  await space.focus()
  for (const key of ['ArrowLeft', 'ArrowUp', 'Shift+ArrowRight', '+', '-', '0']) await page.keyboard.press(key)
  await space.scrollIntoViewIfNeeded()
  const box = await space.boundingBox()
  if (!box) throw new Error('no view')
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.5, { steps: 3 })
  await expect(map.getByText(/^Here \d+\.\d %/)).toBeVisible()
  await expect(map.locator('svg circle')).toHaveCount(1)
  // Drawn flat, for machines that draw nothing in space.
  await map.getByLabel('flat view').check()
  const seen = map.getByRole('img', { name: /^On the panel/ })
  await seen.scrollIntoViewIfNeeded()
  const flat = await seen.boundingBox()
  if (!flat) throw new Error('no drawing')
  await page.mouse.move(flat.x + flat.width * 0.5, flat.y + flat.height * 0.6, { steps: 3 })
  await expect(map.locator('svg circle')).toHaveCount(2)
  await map.getByLabel('Limit of stretch').fill('0.4')
  await expect(map.getByText('Nowhere past 40.0 %.')).toBeVisible()
})

test('ways out are solved and priced; one click takes one, before stands beside now, and undo takes it back', async ({
  page,
}) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'pieces'))
  await page.getByLabel('Panel whose stretch is shown').selectOption({ label: 'Mirror right' })
  const map = page.getByRole('region', { name: 'Stretch over Mirror right' })
  await expect(map.getByText('fine map')).toBeVisible({ timeout: 60_000 })
  await map.getByRole('button', { name: 'Solve the ways out' }).click()
  const ways = page.getByRole('region', { name: 'Ways out, solved' })
  await expect(ways.getByRole('button', { name: 'Take it' }).first()).toBeVisible({ timeout: 90_000 })
  await expect(ways.getByText(/relief cuts of/).first()).toBeVisible()
  await expect(ways.getByText(/±|\+|−/).first()).toBeVisible({ timeout: 60_000 })
  await ways
    .getByRole('row', { name: /relief cuts of/ })
    .first()
    .getByRole('button', { name: 'Take it' })
    .click()
  await expect(page.getByRole('region', { name: 'Before and after' })).toBeVisible({ timeout: 60_000 })
  await expect(page.getByRole('row', { name: /^Mirror right(?!,)/ }).getByText(/relief cuts/)).toBeVisible()
  await expect(page.getByText(/Saved, revision/)).toBeVisible()
  await ways.getByRole('button', { name: 'Undo the last change' }).click()
  await expect(page.getByRole('row', { name: /^Mirror right(?!,)/ }).getByText(/relief cuts/)).toBeHidden()
})

test('the flat outline goes to the roll, and comes back to the taped sizes', async ({ page }) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'pieces'))
  await page.getByLabel('Panel whose stretch is shown').selectOption({ label: 'Mirror right' })
  const map = page.getByRole('region', { name: 'Stretch over Mirror right' })
  await expect(map.getByText('fine map')).toBeVisible({ timeout: 60_000 })
  await map.getByRole('button', { name: 'Cut from the roll as this outline' }).click()
  await expect(map.getByRole('button', { name: 'On the roll as this outline' })).toBeDisabled()
  const width = page.getByRole('row', { name: /^Mirror right/ }).getByRole('button', { name: /width/ })
  await width.click()
  await expect(page.getByText(/flat outline/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Close' }).click()
  await expect(page.getByText(/Saved, revision/)).toBeVisible()
  await map.getByRole('button', { name: 'Back to the taped sizes' }).click()
  await expect(map.getByRole('button', { name: 'Cut from the roll as this outline' })).toBeVisible()
})

test('a scan in place of the tape: unit guessed, girths beside the tape, kept with the job, and gone again', async ({
  page,
}, info) => {
  const made = panelMesh(
    {
      ...newPanel({ id: 'p', name: 'P', kind: 'fuel_flap', side: 'left', widthMm: 905, heightMm: 685 }),
      crownMm: 12,
      crownOverMm: 600,
    },
    9000,
  )
  if (!made.ok) throw new Error(made.error.code)
  const { positions, triangles } = made.value.mesh
  const lines: string[] = []
  for (let v = 0; v < positions.length; v += 3)
    lines.push(`v ${[0, 1, 2].map((d) => (positions[v + d] as number) / 1000).join(' ')}`)
  for (let t = 0; t < triangles.length; t += 3)
    lines.push(`f ${[0, 1, 2].map((k) => (triangles[t + k] as number) + 1).join(' ')}`)
  const file = info.outputPath('wing.obj')
  const { writeFileSync } = await import('node:fs')
  writeFileSync(file, lines.join('\n'))
  expect(readFileSync(file).length).toBeGreaterThan(1000)
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'pieces'))
  await page.getByLabel('Panel whose stretch is shown').selectOption({ label: 'Wing right' })
  const plate = page.getByRole('region', { name: 'Scan of the panel' })
  await expect(plate.getByText('made from the tape')).toBeVisible({ timeout: 60_000 })
  const broken = info.outputPath('broken.stl')
  writeFileSync(broken, 'solid nothing')
  await plate.getByLabel('Scan file (OBJ, STL or PLY)').setInputFiles(broken)
  await expect(plate.getByText(/no mesh that can be read/)).toBeVisible()
  await plate.getByLabel('Scan file (OBJ, STL or PLY)').setInputFiles(file)
  await expect(plate.getByText(/wing.obj: read/)).toBeVisible({ timeout: 30_000 })
  await expect(plate.getByLabel('Unit of the scan')).toHaveValue('m')
  await expect(plate.getByRole('row', { name: /^Width 90[0-9] mm 905 mm/ })).toBeVisible()
  await plate.getByRole('button', { name: 'Lay film on this surface' }).click()
  await expect(plate.getByText(/from the scan wing.obj, put in/)).toBeVisible({ timeout: 30_000 })
  await page.reload()
  await page.getByLabel('Panel whose stretch is shown').selectOption({ label: 'Wing right' })
  await expect(plate.getByText(/from the scan wing.obj/)).toBeVisible({ timeout: 60_000 })
  await expect(page.getByRole('region', { name: 'Stretch over Wing right' }).getByText('fine map').first()).toBeVisible(
    { timeout: 60_000 },
  )
  await plate.getByRole('button', { name: 'Back to the tape' }).click()
  await expect(plate.getByText('made from the tape')).toBeVisible()
})
