import { type Browser, type Page } from '@playwright/test'
import { writePlan } from '@/core/model/plan/parse'
import { familyPanels, usualKeys } from '@/core/model/vehicle/families'
import type { Plan } from '@/core/model/plan/schema'
import { skinOf } from '@/core/engines/skin/skin'
import { handCar, manyPanels } from '../test/fixtures/plans'
import { median } from './core'

interface TraceEvent {
  name: string
  ph: string
  dur?: number
  pid: number
  tid: number
  args?: { name?: string }
}

/** Zoomed in, dragged, zoomed out: the tasks of the browser's main thread meanwhile, ms each. */
async function tracedTasks(
  browser: Browser,
  page: Page,
  box: { x: number; y: number; width: number; height: number },
): Promise<number[]> {
  await browser.startTracing(page, {
    categories: ['toplevel', 'devtools.timeline', 'disabled-by-default-devtools.timeline'],
  })
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.keyboard.down('Control')
  for (let i = 0; i < 12; i++) await page.mouse.wheel(0, -120)
  await page.keyboard.up('Control')
  await page.mouse.down()
  for (let i = 0; i < 90; i++) await page.mouse.move(x + 180 * Math.sin(i / 7), y + 120 * Math.cos(i / 5))
  await page.mouse.up()
  await page.keyboard.down('Control')
  for (let i = 0; i < 12; i++) await page.mouse.wheel(0, 120)
  await page.keyboard.up('Control')
  await page.waitForTimeout(300)
  const trace = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] }
  const main = new Set(
    trace.traceEvents
      .filter((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain')
      .map((e) => `${e.pid}/${e.tid}`),
  )
  return trace.traceEvents
    .filter((e) => e.ph === 'X' && /RunTask$/.test(e.name) && main.has(`${e.pid}/${e.tid}`))
    .map((e) => (e.dur ?? 0) / 1000)
}

/** How long the browser's main thread was held by single tasks while the map was dragged and zoomed: its own trace. */
export async function skinBench(browser: Browser, page: Page, base: string): Promise<string> {
  const cars: [string, Plan][] = [
    ['60 panels typed by hand', manyPanels(60)],
    ['a hatch of 24 panels', { ...handCar(), panels: familyPanels('city_car', usualKeys('city_car')) }],
    [
      'a box body of 9 m, 30 panels',
      {
        ...handCar(),
        panels: familyPanels('box_body', {
          ...usualKeys('box_body'),
          length: 9000,
          sidePanels: 8,
          roofPanels: 6,
          skirt: 300,
        }),
      },
    ],
  ]
  const rows: string[] = []
  for (const [name, plan] of cars) {
    const response = await page.request.post('/api/jobs/import', {
      data: writePlan(plan),
      headers: { 'content-type': 'application/json', origin: base },
    })
    const { value } = (await response.json()) as { value: { id: string } }
    await page.goto(`/jobs/${value.id}/skin`)
    const map = page.getByRole('listbox')
    await map.waitFor()
    await page.waitForTimeout(1500)
    const box = await map.boundingBox()
    if (!box) throw new Error('no map')
    const tasks = await tracedTasks(browser, page, box)
    const long = tasks.filter((t) => t > 50).length
    const layout = Array.from({ length: 15 }, () => {
      const began = performance.now()
      skinOf(plan.panels.map((p) => ({ ...p })))
      return performance.now() - began
    })
    rows.push(
      `| ${name} | ${tasks.length} | ${Math.max(...tasks).toFixed(0)} ms | ${long} | ${median(layout).toFixed(1)} ms |`,
    )
  }
  return `## The skin under pan and zoom

Zoomed in by 12 notches, dragged over 90 steps, zoomed out again, while the browser traced itself (CrRendererMain, every RunTask).

| vehicle | tasks | longest | over 50 ms | its layout computed anew |
|---|---|---|---|---|
${rows.join('\n')}
`
}
