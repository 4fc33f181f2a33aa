import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { picturePng } from '../fixtures/pictures'
import { enter, expect, jobUrl, rail, saved, test } from './shop'

const stage = async (page: Page, name: string) => {
  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: new RegExp(`^${name}`) })
    .click()
  await expect(page.getByRole('heading', { name, exact: true, level: 1 })).toBeVisible()
}
/** A job through the door, with the usual panels of its body. */
async function takeHatch(page: Page, name: string, keys: Record<string, string> = {}) {
  await page.goto('/')
  await page.getByRole('button', { name: 'New job' }).click()
  await page.getByLabel('Job', { exact: true }).fill(name)
  await page.getByLabel('Vehicle', { exact: true }).fill('Fenland Wader')
  await page.getByLabel('Body colour', { exact: true }).fill('White')
  for (const [key, text] of Object.entries(keys)) await page.getByLabel(key, { exact: true }).fill(text)
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: 'Walkaround' })).toBeVisible()
}

test('from body style to a measured car that lays out: by keyboard alone, in under 40 entries', async ({ page }) => {
  await enter(page)
  let entries = 0
  const type = async (text: string) => {
    entries++
    await page.keyboard.type(text)
  }
  const press = async () => {
    entries++
    await page.keyboard.press('Enter')
  }
  /** Tab on until the hand is there. */
  const tabTo = async (name: string | RegExp, key = 'Tab') => {
    for (let i = 0; i < 250; i++) {
      const label = await page.evaluate(() => {
        const e = document.activeElement
        return (
          e?.getAttribute('aria-label') ??
          (e as HTMLInputElement | null)?.labels?.[0]?.textContent?.trim() ??
          e?.textContent?.trim() ??
          ''
        )
      })
      if (typeof name === 'string' ? label === name : name.test(label)) return
      await page.keyboard.press(key)
    }
    throw new Error(`no way to ${String(name)} by Tab`)
  }
  await tabTo('New job')
  await press()
  await expect(page.getByLabel('Job', { exact: true })).toBeFocused()
  await type('Hatch by keyboard')
  await tabTo('Vehicle')
  await type('Fenland Wader')
  await tabTo('Body colour')
  await type('White')
  const keys: [string, string][] = [
    ['Overall length', '3820'],
    ['Overall height', '149cm'],
    ['Body width', '1 715'],
    ['Wheelbase', '2.48 m'],
    ['Ground to sill', '255'],
    ['Ground to window line', '925'],
    ['Wheel and tyre', '24in'],
    ['Bonnet length', '880'],
    ['Roof length', '1520'],
    ['Roof width', '1130'],
    ['Side doors', '4'],
  ]
  for (const [key, text] of keys) {
    await tabTo(key)
    await type(text.replace('1 715', '1715'))
  }
  await page.keyboard.press('Enter')
  entries++
  await expect(page.getByRole('heading', { name: 'Walkaround' })).toBeVisible()
  await tabTo(/^Film/)
  await press()
  await expect(page.getByRole('heading', { name: 'Film', level: 1 })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Choose Fen satin green' })).toBeEnabled()
  await tabTo('Choose Fen satin green')
  await press()
  await expect(page.getByText('chosen: Fen satin green').first()).toBeVisible()
  await saved(page)
  await page.keyboard.press('Shift+Tab')
  await tabTo(/^Tape/, 'Shift+Tab')
  await press()
  await expect(page.getByRole('heading', { name: 'Tape', level: 1 })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Guided tape' })).toBeEnabled()
  // What matters most first: the list says what, the tape says how much.
  await tabTo(/^Tape .*(width|height|crown|depth|edge)/)
  for (let i = 0; i < 14; i++) {
    const assumed = await page.evaluate(() => (document.activeElement as HTMLInputElement).placeholder)
    await type(String(Number.parseFloat(assumed) + 2))
    await page.keyboard.press('Enter')
    if (!(await page.evaluate(() => document.activeElement instanceof HTMLInputElement)) || i === 6)
      await page.getByRole('region', { name: 'Tape these first' }).getByRole('textbox').first().focus()
  }
  await saved(page)
  expect(entries).toBeLessThan(40)
  test.info().annotations.push({ type: 'entries', description: String(entries) })
  // A whole car, laid out, with nothing in the way.
  await expect(page.getByText('24 panels, ')).toBeVisible()
  await expect(rail(page, 'Film to order')).not.toHaveText('–')
  await expect(rail(page, 'Yield')).toHaveText(/[5-9]\d\.\d/)
  await page.goto(page.url().replace('/tape', '/roll'))
  await expect(page.getByText(/above the least possible|No plan can be shorter/)).toBeVisible()
})

test('the skin: arrows walk from panel to neighbour, layers change, a pin lands where it is pressed', async ({
  page,
}) => {
  await enter(page)
  await page.goto(jobUrl('wrenfield', 'skin'))
  const map = page.getByRole('listbox')
  await map.focus()
  const on = (name: RegExp) => expect(map.getByRole('option', { name, selected: true })).toHaveCount(1)
  await page.keyboard.press('ArrowRight')
  await on(/^Front bumper/)
  await page.keyboard.press('ArrowRight')
  await on(/^Bonnet/)
  await page.keyboard.press('ArrowDown')
  await on(/^Wing left/)
  await page.keyboard.press('ArrowRight')
  await on(/^Front door left/)
  await page.keyboard.press('Shift+ArrowRight')
  await expect(map.getByRole('option', { selected: true })).toHaveCount(2)
  await expect(page.getByText('2 picked: Front door left, Rear door left')).toBeVisible()
  await page.getByRole('button', { name: 'Contrast' }).click()
  await expect(page.getByRole('option', { name: /^Roof, ΔE 3\d/ })).toHaveCount(1)
  const world = page.locator('.skin svg g[data-near]')
  await map.focus()
  await page.keyboard.press('+')
  await expect(world).toHaveAttribute('transform', /scale\(1\.3/)
  await page.keyboard.press('0')
  await expect(world).toHaveAttribute('transform', /scale\(1\)/)

  await page.goto(jobUrl('trailer', 'walkaround'))
  await expect(page.getByRole('button', { name: 'Add damage' })).toBeEnabled()
  await page.goto(jobUrl('drover', 'walkaround'))
  await page.getByLabel('Pin', { exact: true }).selectOption('rust')
  const door = page.getByRole('option', { name: /^Front door left/ })
  await door.scrollIntoViewIfNeeded()
  await door.click()
  await expect(page.getByText('Rust on Front door left has to be repaired')).toBeVisible()
  await page
    .getByLabel('Photo of damage 1')
    .setInputFiles({ name: 'x.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a photo') })
  await expect(page.getByText('This is not a photo that can be read')).toBeVisible()
  await page
    .getByLabel('Photo of damage 1')
    .setInputFiles({ name: 'x.png', mimeType: 'image/png', buffer: await picturePng() })
  await expect(page.getByRole('img', { name: 'Damage 1, photo 1' })).toBeVisible()
  await page.getByRole('button', { name: 'Waive', exact: true }).click()
  await page.getByLabel('Damage 1, reason to waive').fill('Customer knows; no warranty there')
  await page.getByRole('button', { name: 'Waive it' }).click()
  await expect(page.getByText('has to be repaired')).toHaveCount(0)
  await expect(page.getByText(/waived by Tamsin Brack/).first()).toBeVisible()
  // The customer draws their name; a later change says that it was signed before.
  await page.getByLabel('Name', { exact: true }).fill('Orla Penhallow')
  const box = page.getByRole('img', { name: 'Draw the name here' })
  await box.scrollIntoViewIfNeeded()
  const r = await box.boundingBox()
  if (!r) throw new Error('no box')
  await page.mouse.move(r.x + 40, r.y + 60)
  await page.mouse.down()
  for (let i = 1; i < 8; i++) await page.mouse.move(r.x + 40 + i * 18, r.y + 60 + (i % 2) * 30)
  await page.mouse.up()
  await page.getByRole('button', { name: 'Sign with the drawn name' }).click()
  await expect(page.getByRole('img', { name: 'Drawn signature of Orla Penhallow' })).toBeVisible()
  await saved(page)
  await page.getByRole('textbox', { name: 'Note', exact: true }).fill('One thing more')
  await expect(page.getByText('signed before something here was changed')).toBeVisible()
  await saved(page)
  const pdf = await page.request.get(jobUrl('drover', 'inspection.pdf'))
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
})

test('the sheet: blocks to and from a spreadsheet, left to right, CSV, a dimension typed where it stands', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await enter(page)
  await takeHatch(page, 'Sheet and spreadsheet')
  await stage(page, 'Tape')
  const cell = (name: string) => page.getByLabel(name, { exact: true })
  await expect(cell('Bonnet, width')).toBeEnabled()
  const paste = async (name: string, text: string) => {
    await cell(name).focus()
    await page.evaluate((t) => navigator.clipboard.writeText(t), text)
    await page.keyboard.press('ControlOrMeta+V')
  }
  await paste('Wing left, width', '810\t65cm\n')
  await expect(cell('Wing left, width')).toHaveValue('810')
  await paste('Front bumper, width', '2000\t400\n1530\t12 parsec')
  await expect(page.getByText(/Nothing pasted\. “parsec” is no unit.*Bonnet, height/)).toBeVisible()
  await expect(cell('Front bumper, width')).not.toHaveValue('2000')
  await cell('Bonnet, width').focus()
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('ControlOrMeta+C')
  await expect(page.getByText('1 × 2 cells copied')).toBeVisible()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(/^1530\t860$/)
  // What was understood is shown while it is typed.
  await cell('Roof, width').fill('44 1/2in')
  await expect(page.getByText('= 1130 mm')).toBeVisible()
  await expect(cell('Wing right, width')).not.toHaveValue('810')
  await page.getByRole('button', { name: 'Fill right side from left' }).click()
  await expect(cell('Wing right, width')).toHaveValue('810')
  await saved(page)
  const file = (text: string) => ({ name: 'p.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await page.getByLabel('Measurement sheet as CSV').setInputFiles(file('name,width_mm\nRoof,1200'))
  await expect(page.getByText('Line 1, height_mm: These columns are missing.')).toBeVisible()
  await page
    .getByLabel('Measurement sheet as CSV')
    .setInputFiles(file('\uFEFFname;width_cm;height_mm\nRoof;"114,5";1520\n'))
  await expect(page.getByText('1 panels changed, 0 added.')).toBeVisible()
  await expect(cell('Roof, width')).toHaveValue('1145')
  await saved(page)
  const csv = await page.request.get(`${page.url().replace('/tape', '/panels.csv')}`)
  expect(await csv.text()).toContain('roof,Roof,roof,centre,1145,1520')
  expect(
    (await (await page.request.get(page.url().replace('/tape', '/measure.pdf'))).body()).subarray(0, 5).toString(),
  ).toBe('%PDF-')
  // A measure is pressed on the drawing and typed there.
  await cell('Hatch, width').focus()
  await page
    .getByRole('region', { name: 'Hatch in full' })
    .getByRole('button', { name: /^width, / })
    .click()
  await page.getByLabel('Hatch, width', { exact: true }).last().fill('1234')
  await page.keyboard.press('Enter')
  await expect(
    page.getByRole('region', { name: 'Hatch in full' }).getByRole('button', { name: /^width, 1234 mm/ }),
  ).toBeVisible()
  await saved(page)
})

test('guided tape in inches: fractions, the other side, skip and back, by thumb', async ({ page }) => {
  await page.setViewportSize({ width: 820, height: 1180 })
  await enter(page, 'installer')
  const other = page.context()
  await page.goto('/')
  await page.getByLabel('Length unit').selectOption('in')
  // The choice is the server's before the page is left.
  await expect(page.getByLabel('Length unit')).toHaveValue('in')
  await page.goto(`${jobUrl('wrenfield', 'tape')}?guide=1`)
  const guide = page.getByRole('region', { name: 'Guided tape' })
  const key = (k: string) => guide.getByRole('button', { name: k, exact: true })
  await expect(guide.getByRole('heading', { name: 'Front handle left' })).toBeVisible()
  for (const k of ['8', '3/4', '5/8']) await key(k).click()
  await expect(page.getByTestId('guided-typed')).toContainText('8 5/8')
  await guide.getByRole('button', { name: 'Take 8 5/8″' }).click()
  await key('Skip').click()
  await key('Back').click()
  await guide.getByRole('button', { name: /^It is 1 5\/8/ }).click()
  await saved(page)
  // Buttons are for gloves.
  for (const b of await guide.getByRole('button').all()) {
    const box = await b.boundingBox()
    if (box && !(await b.getAttribute('class'))?.includes('dimension-hit'))
      expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(48)
  }
  await key('Leave').click()
  await expect(page.getByLabel('Front handle left, width')).toHaveValue('8 5/8')
  await expect(page.getByLabel('Front handle right, width')).toHaveValue('8 5/8')
  await page.getByLabel('Length unit').selectOption('mm')
  expect(other.pages()).toHaveLength(1)
})

test('films: the sheet changed, duplicated, no longer sold; chosen panel by panel; the method compared; the air read', async ({
  page,
}) => {
  await enter(page)
  await page.goto('/rack')
  await page.getByRole('button', { name: 'Duplicate Quay orange' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Quay orange thin')
  await page.getByLabel('Stretch limit, per cent').fill('9')
  await page.getByLabel('Stretch limit, standing').selectOption('assumed')
  await page.getByLabel(/^Post-heat from, °C/).fill('150')
  await page.getByRole('button', { name: 'Put it on the rack' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'lower end of a range is above' })).toBeVisible()
  await page.getByLabel(/^Post-heat from, °C/).fill('105')
  await page.getByRole('button', { name: 'Put it on the rack' }).click()
  await expect(page.getByRole('button', { name: 'Sheet of Quay orange thin' })).toBeVisible()
  await page.getByRole('button', { name: 'Quay orange is no longer sold' }).click()
  await expect(page.getByRole('button', { name: 'Sheet of Quay orange', exact: true })).toHaveCount(0)
  await page
    .getByLabel('Films as JSON or CSV')
    .setInputFiles({ name: 'f.json', mimeType: 'application/json', buffer: Buffer.from('{"format":"cuirass/films@1"') })
  await expect(page.getByText('breaks off in the middle')).toBeVisible()

  await takeHatch(page, 'Two-tone')
  await stage(page, 'Film')
  await page.getByRole('button', { name: 'Choose Heron gloss grey' }).click()
  await expect(page.getByText('Quay orange thin')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Choose Quay orange', exact: true })).toHaveCount(0)
  await page.getByRole('option', { name: /^Roof/ }).click()
  await expect(page.getByRole('heading', { name: 'Films against 1 panel picked' })).toBeVisible()
  await page.getByRole('button', { name: 'Use Slate matte on 1 panels' }).click()
  await expect(page.getByText('chosen: Heron gloss grey, 1 panel in another')).toBeVisible()
  await expect(page.getByRole('option', { name: 'Roof, Slate matte' })).toHaveCount(1)
  await page.getByRole('button', { name: 'Back to the whole vehicle' }).click()
  await page.getByLabel('panel by panel').check()
  await page.getByLabel('Filter films').fill('reed')
  await expect(page.getByText('Sheet goods take flat or single-bent panels only.').first()).toBeVisible()
  await page.getByRole('button', { name: 'Film cost', exact: true }).click()
  await expect(page.getByRole('columnheader', { name: 'Film cost' })).toHaveAttribute(
    'aria-sort',
    /descending|ascending/,
  )
  await page.getByText('Method', { exact: true }).click()
  await page.getByLabel('Heat', { exact: true }).selectOption('torch')
  await expect(page.getByText('A torch is for gloss film only').first()).toBeVisible()
  await page.getByRole('button', { name: 'On this job' }).nth(1).click()
  await expect(page.getByRole('cell', { name: 'relax first' }).first()).toBeVisible()
  await page.getByLabel(/^Air °C/).fill('21.5')
  await page.getByLabel('Humidity in per cent').fill('60')
  await page.getByLabel(/^Surface °C/).fill('14')
  await page.getByRole('button', { name: 'Log reading' }).click()
  await expect(page.getByText('Logged.')).toBeVisible()
  await expect(page.getByText(/The surface is 14 °C, the dew point 13\.4 °C/)).toBeVisible()
  await page.getByLabel('Vehicle arrives').fill('3')
  await expect(page.getByText(/under the dew point of/)).toBeVisible()
  await saved(page)
})

test('the library: kept, corrected with its history, and started from', async ({ page }) => {
  await enter(page)
  await takeHatch(page, 'For the library', { 'Overall length': '3900' })
  await stage(page, 'Tape')
  await page.getByRole('button', { name: 'Keep in the library' }).click()
  await expect(page.getByText('Fenland Wader is in the library for the next job.')).toBeVisible()
  await page.goto('/vehicles')
  await page.getByRole('link', { name: 'Fenland Wader' }).first().click()
  await expect(page.getByLabel('Roof, width')).toBeEnabled()
  await page.getByLabel('Roof, width').fill('1188')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('cell', { name: /^Roof: width .* → 1188 mm/ })).toBeVisible()
  await page.goto('/')
  await page.getByRole('button', { name: 'New job' }).click()
  await page.getByLabel('Job', { exact: true }).fill('From the library')
  await page.getByLabel('Vehicle', { exact: true }).fill('Second Wader')
  await page.getByLabel('Body colour', { exact: true }).fill('Blue')
  await page.getByLabel('a vehicle measured before').check()
  await page.getByRole('combobox', { name: 'Vehicle measured before' }).selectOption({ index: 0 })
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: 'Walkaround' })).toBeVisible()
  await stage(page, 'Tape')
  await expect(page.getByLabel('Roof, width')).toHaveValue('1188')
  expect(readFileSync('docs/job.schema.json', 'utf8')).toContain('libraryId')
})
