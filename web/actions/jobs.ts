'use server'

import { z } from 'zod'
import { Name } from '@/core/film/schema'
import { LogEntry } from '@/core/log/schema'
import { planEdits, type Clash } from '@/core/plan/merge'
import { Method } from '@/core/method/schema'
import { newPlan } from '@/core/plan/new-plan'
import { Plan } from '@/core/plan/schema'
import { familyPanels, hardwareOf, keysOf, neverCoverOf } from '@/core/vehicle/families'
import { startFrom } from '@/core/vehicle/library'
import { VEHICLE_KINDS } from '@/core/vehicle/schema'
import {
  appendLog,
  createJob as insertJob,
  planAt,
  revisions,
  savePlan,
  undoTarget,
  type LogOutcome,
  type RevisionHead,
} from '@/db/queries/jobs'
import { vehicleFile } from '@/db/queries/vehicles'
import { currentMember } from './session'
import { brokenConstraint } from '@/db/queries/rack'
import { summarise } from '@/web/words/summary'
import { answer, no, type Answer } from './answer'

const NewJob = z.strictObject({
  id: z.uuid(),
  name: Name,
  customerRef: z.string().trim().max(120),
  vehicle: Name,
  kind: z.enum(VEHICLE_KINDS),
  colourName: Name,
  colourHex: z.string().regex(/^#[0-9a-f]{6}$/),
  /** What it starts with: its body style's panels for the key lengths typed, a vehicle measured before, or nothing. */
  start: z
    .discriminatedUnion('from', [
      z.strictObject({ from: z.literal('nothing') }),
      z.strictObject({ from: z.literal('style'), keys: z.record(z.string().max(40), z.number()) }),
      z.strictObject({ from: z.literal('vehicle'), vehicleId: z.uuid() }),
    ])
    .default({ from: 'nothing' }),
})

export async function createJob(raw: unknown): Promise<Answer<{ id: string }>> {
  return answer(NewJob, raw, async (who, input) => {
    const { start } = input
    const empty = newPlan(input.name, input.customerRef, {
      name: input.vehicle,
      kind: input.kind,
      colour: { name: input.colourName, hex: input.colourHex },
    })
    const method = Method.safeParse((await currentMember())?.shop.method)
    let plan: Plan = { ...empty, method: method.success ? method.data : empty.method }
    if (start.from === 'style' && input.kind !== 'other') {
      const keys = keysOf(input.kind, start.keys)
      if (!keys.ok) return keys
      const panels = familyPanels(input.kind, keys.value.keys)
      plan = {
        ...plan,
        vehicle: { ...plan.vehicle, keys: keys.value.keys, keysAssumed: keys.value.assumed },
        panels,
        walkaround: { ...plan.walkaround, neverCover: neverCoverOf(panels), hardware: hardwareOf(panels, []) },
      }
    } else if (start.from === 'vehicle') {
      const file = await vehicleFile(who, start.vehicleId)
      if (!file) return no('not_found')
      plan = startFrom(plan, file.measured, start.vehicleId)
    }
    plan = Plan.parse(plan)
    await insertJob(who, input.id, plan, 'Taken in', new Date())
    return { ok: true, value: { id: input.id } }
  })
}

export type Revision = RevisionHead
export type Saved =
  | { kind: 'saved' | 'merged'; number: number; plan: Plan; theirParts: string[] }
  | { kind: 'unchanged'; number: number }
  | { kind: 'clash'; number: number; theirs: Plan; clashes: Clash[]; by: string; summary: string }

const Save = z.strictObject({ jobId: z.uuid(), basedOn: z.number().int().min(1), plan: Plan })

export async function saveJob(raw: unknown): Promise<Answer<Saved>> {
  return answer(Save, raw, async (who, input) => {
    const out = await savePlan(
      who,
      { ...input, summary: (before, after) => summarise(planEdits(before, after)) },
      new Date(),
    )
    if (out.kind === 'not_found' || out.kind === 'invalid')
      return no(out.kind === 'invalid' ? 'not_a_valid_plan' : 'not_found')
    return { ok: true, value: out }
  })
}

const Ref = z.strictObject({ jobId: z.uuid() })

export async function undoJob(raw: unknown): Promise<Answer<Saved>> {
  return answer(Ref, raw, async (who, { jobId }) => {
    const found = await undoTarget(who, jobId)
    if (!found) return no('nothing_to_undo')
    return bringBack(who, jobId, found.target, found.head, 'Undid')
  })
}

export async function restoreRevision(raw: unknown): Promise<Answer<Saved>> {
  return answer(
    Ref.extend({ number: z.number().int().min(1), basedOn: z.number().int().min(1) }),
    raw,
    (who, { jobId, number, basedOn }) => bringBack(who, jobId, number, basedOn, 'Brought back'),
  )
}

async function bringBack(
  who: Parameters<typeof savePlan>[0],
  jobId: string,
  number: number,
  basedOn: number,
  verb: string,
): Promise<Answer<Saved>> {
  const plan = await planAt(who, jobId, number)
  if (!plan) return no('not_found')
  const out = await savePlan(
    who,
    { jobId, basedOn, plan, restores: number, summary: () => `${verb}: back to revision ${number}` },
    new Date(),
  )
  return out.kind === 'not_found' || out.kind === 'invalid' ? no('not_found') : { ok: true, value: out }
}

export async function jobHistory(raw: unknown): Promise<Answer<RevisionHead[]>> {
  return answer(Ref, raw, async (who, { jobId }) => ({ ok: true, value: await revisions(who, jobId) }))
}

const Log = z.strictObject({ jobId: z.uuid(), entries: z.array(LogEntry).min(1).max(200) })
export type LogAnswer = { id: string; outcome: LogOutcome | 'not_enough_film' }

export async function logEntries(raw: unknown): Promise<Answer<LogAnswer[]>> {
  return answer(Log, raw, async (who, { jobId, entries }) => {
    const out: LogAnswer[] = []
    for (const entry of entries) {
      try {
        const [outcome] = await appendLog(who, jobId, [entry], new Date())
        out.push({ id: entry.id, outcome: outcome ?? 'not_found' })
      } catch (error) {
        if (brokenConstraint(error) !== 'stock_never_below_zero') throw error
        out.push({ id: entry.id, outcome: 'not_enough_film' })
      }
    }
    return { ok: true, value: out }
  })
}
