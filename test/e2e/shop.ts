import { expect, test as base, type Page } from '@playwright/test'

export const JOBS = { wrenfield: 'a', corvane: 'b', drover: 'c', trailer: 'd', pickup: 'e' } as const
export const jobUrl = (job: keyof typeof JOBS, stage: string): string =>
  `/jobs/5a170000-0000-4000-8000-00000000000${JOBS[job]}/${stage}`

/** Every test fails on a request that leaves the origin, on an error thrown in the page, and on a blocked script. */
export const test = base.extend<{ watched: void }>({
  watched: [
    async ({ context, baseURL }, use) => {
      const outside: string[] = []
      const errors: string[] = []
      context.on('request', (r) => {
        const url = r.url()
        if (!url.startsWith(`${baseURL}/`) && !/^(data|blob|about):/.test(url)) outside.push(url)
      })
      context.on('weberror', (e) => errors.push(e.error().message))
      context.on('console', (m) => {
        if (m.type() === 'error' && /Content Security Policy|hydrat/i.test(m.text())) errors.push(m.text())
      })
      await use()
      expect(outside, 'requests that left the origin').toEqual([])
      expect(errors, 'errors in the page').toEqual([])
    },
    { auto: true },
  ],
})
export { expect }

export async function enter(page: Page, role: 'lead' | 'owner' | 'installer' | 'desk' = 'lead') {
  await page.goto('/sign-in')
  await page.getByRole('button', { name: role === 'lead' ? 'Lead (demo)' : role, exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Yard' })).toBeVisible()
}
export const saved = (page: Page) => expect(page.getByTestId('save-state')).toHaveAttribute('data-kind', /saved|merged/)
/** Does something and waits until it is kept; a mark that still tells of the change before does not count. */
export async function kept(page: Page, work: () => Promise<void>) {
  const before = await page.getByTestId('save-state').innerText()
  await work()
  await expect(page.getByTestId('save-state')).not.toHaveText(before)
  await saved(page)
}
export const rail = (page: Page, label: string) =>
  page.getByRole('complementary', { name: 'Reckoning' }).getByRole('button', { name: new RegExp(`^${label}:`) })

/** A job through the screens' own door; ends on its walkaround. */
export async function takeIn(page: Page, name: string) {
  await page.goto('/')
  await page.getByRole('button', { name: 'New job' }).click()
  await page.getByLabel('Job', { exact: true }).fill(name)
  await page.getByLabel('Vehicle', { exact: true }).fill('Marsh Hopper')
  await page.getByLabel('Body colour', { exact: true }).fill('White')
  await page.getByLabel('none', { exact: true }).check()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: 'Walkaround' })).toBeVisible()
}
/** One row of the measuring sheet, by keyboard alone: the hand is in the name cell before and after. */
export async function typePanel(page: Page, name: string, width: string, height: string) {
  await page.keyboard.type(name)
  await page.keyboard.press('Enter')
  await expect(page.getByLabel(`${name}, width`, { exact: true })).toBeFocused()
  await page.keyboard.type(width)
  await page.keyboard.press('Enter')
  await page.keyboard.type(height)
  // Enter goes on through the crowns; left empty they are flat, and the row is done.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Enter')
  await expect(page.getByLabel('Name of a new panel')).toBeFocused()
}
