import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { planEdits } from '@/core/model/plan/merge'
import type { Plan } from '@/core/model/plan/schema'
import type { Panel } from '@/core/model/vehicle/schema'
import { closeDatabase, type Who } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { createJob, openJob } from '@/db/queries/jobs'
import { savePlan, takeBack } from '@/db/queries/plans'
import { summarise } from '@/web/words/summary'
import { film, handCar, withPanel } from '../fixtures/plans'
import { shopWorld, type ShopWorld } from './world'

let w: ShopWorld
beforeAll(async () => {
  w = await shopWorld()
})
afterAll(async () => {
  await closeWorkQueue()
  await closeDatabase()
})

const summary = (before: Plan, after: Plan) => summarise(planEdits(before, after))
/** A job, and what people do to it. */
async function job() {
  const id = randomUUID()
  await createJob(w.who.lead, id, handCar(), 'Taken in', new Date())
  const plan = async () => (await openJob(w.who.lead, id, new Date()))?.plan as Plan
  const edit = async (who: Who, change: (p: Plan) => Plan) => {
    const file = await openJob(who, id, new Date())
    if (!file) throw new Error('no job')
    return savePlan(who, { jobId: id, basedOn: file.head.head, plan: change(file.plan), summary }, new Date())
  }
  const panel = (who: Who, name: string, over: Partial<Panel>) => edit(who, (p) => withPanel(p, name, () => over))
  const back = (who: Who, which: 'undo' | 'redo' = 'undo') => takeBack(who, { jobId: id, which, summary }, new Date())
  const door = async () => (await plan()).panels.find((p) => p.id === 'door')?.widthMm
  return { plan, edit, panel, back, door }
}

describe('undo', () => {
  it('takes back one’s own changes step by step and says which; redo does them again; a new change ends that', async () => {
    const { lead } = w.who
    const j = await job()
    await j.panel(lead, 'door', { widthMm: 1100 })
    await j.panel(lead, 'door', { widthMm: 1200 })
    expect(await j.back(lead)).toMatchObject({ kind: 'saved', said: 'Undo: Door: width 1200 → 1100' })
    expect(await j.door()).toBe(1100)
    await j.back(lead)
    expect(await j.door()).toBe(1050)
    expect(await j.back(lead)).toMatchObject({ kind: 'nothing' })
    expect(await j.back(lead, 'redo')).toMatchObject({ kind: 'saved', said: 'Redo: Door: width 1050 → 1100' })
    await j.back(lead, 'redo')
    expect(await j.door()).toBe(1200)
    expect(await j.back(lead, 'redo')).toMatchObject({ kind: 'nothing' })
    await j.back(lead)
    await j.panel(lead, 'wing', { note: 'new' })
    expect(await j.back(lead, 'redo')).toMatchObject({ kind: 'nothing' })
    await j.back(lead)
    expect(await j.back(lead)).toMatchObject({ said: 'Undo: Door: width 1100 → 1050' })
  })
  it('names a film by its name', async () => {
    const j = await job()
    await j.edit(w.who.lead, (p) => ({
      ...p,
      film: { mainId: 'slate-matte', sheets: [...p.film.sheets, film('slate-matte')] },
    }))
    expect(await j.back(w.who.lead)).toMatchObject({
      said: expect.stringContaining('Main film Slate matte → Fen satin green'),
    })
  })
  it('leaves what others did, seen or unseen, however often it is pressed', async () => {
    const { lead, owner } = w.who
    const j = await job()
    await j.panel(lead, 'door', { widthMm: 1100 })
    await j.panel(owner, 'wing', { heightMm: 650 })
    await j.edit(owner, (p) => ({ ...p, note: 'signed and pinned' }))
    for (let i = 0; i < 8; i++) await j.back(lead)
    const plan = await j.plan()
    expect([plan.panels[1]?.widthMm, plan.panels[2]?.heightMm, plan.note]).toEqual([1050, 650, 'signed and pinned'])
  })
  it('refuses where somebody else changed the same thing since, and names them and what they did', async () => {
    const { lead, owner } = w.who
    const j = await job()
    await j.panel(lead, 'door', { widthMm: 1100 })
    await j.panel(owner, 'wing', { heightMm: 650 })
    await j.panel(owner, 'door', { widthMm: 1111 })
    expect(await j.back(lead)).toEqual({ kind: 'changed_since', by: owner.name, what: 'Door: width 1100 → 1111' })
    expect(await j.door()).toBe(1111)
    // Another figure of the same panel stands in nobody's way.
    await j.panel(lead, 'door', { note: 'dented' })
    await j.panel(owner, 'door', { heightMm: 700 })
    expect(await j.back(lead)).toMatchObject({ kind: 'saved' })
    expect((await j.plan()).panels[1]).toMatchObject({ note: '', heightMm: 700, widthMm: 1111 })
  })
  it('an installer’s takes back what they measured', async () => {
    const j = await job()
    await j.panel(w.who.installer, 'door', { widthMm: 1100 })
    expect(await j.back(w.who.installer)).toMatchObject({ kind: 'saved' })
    expect(await j.door()).toBe(1050)
  })
})

describe('what a role may change', () => {
  it('is judged on the whole of each part: nothing passes beside it', async () => {
    const { installer, desk } = w.who
    const j = await job()
    const [sheet] = handCar().film.sheets
    if (!sheet) throw new Error('no sheet')
    const dear = { ...sheet, soldBy: { ...sheet.soldBy, price: 1 } }
    const tries: [Who, (p: Plan) => Plan][] = [
      // Two sheets of one id: looked up by id, the second is the one that was there.
      [installer, (p) => ({ ...p, film: { ...p.film, sheets: [dear, sheet] } })],
      [installer, (p) => ({ ...p, pieces: [...p.pieces].concat({ ...blankChoice('door'), parts: 3 }) })],
      [installer, (p) => ({ ...p, walkaround: { ...p.walkaround, note: 'x' } })],
      [desk, (p) => ({ ...p, panels: [...p.panels].reverse() })],
      [desk, (p) => ({ ...p, film: { ...p.film, sheets: [...p.film.sheets, film('slate-matte')] } })],
    ]
    for (const [who, change] of tries) expect((await j.edit(who, change)).kind).toBe('not_yours')
    expect(await j.plan()).toEqual(handCar())
    expect((await j.edit(desk, (p) => ({ ...p, walkaround: { ...p.walkaround, note: 'x' } }))).kind).toBe('saved')
    expect((await j.edit(installer, (p) => withPanel(p, 'door', () => ({ widthMm: 1 })))).kind).toBe('saved')
  })
})
const blankChoice = (panelId: string): Plan['pieces'][number] => ({
  panelId,
  parts: 1,
  along: 'height',
  preStretch: 0,
  bleedMm: null,
  seamsAtMm: [],
  slits: [],
  flat: null,
})
