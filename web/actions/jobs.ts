'use server'

import { z } from 'zod'
import { Name } from '@/core/model/values/values'
import { planEdits, type Clash } from '@/core/model/plan/merge'
import { Method } from '@/core/model/method/schema'
import { newPlan } from '@/core/model/plan/new-plan'
import { Plan } from '@/core/model/plan/schema'
import { familyPanels, hardwareOf, keysOf, neverCoverOf } from '@/core/model/vehicle/families'
import { startFrom } from '@/core/model/plan/vehicle-library'
import { VEHICLE_KINDS } from '@/core/model/vehicle/kinds'
import type { Who } from '@/db/client'
import { createJob as insertJob, planAt } from '@/db/queries/jobs'
import { revisions, savePlan, takeBack, type RevisionHead, type SaveOutcome } from '@/db/queries/plans'
import { vehicleFile } from '@/db/queries/vehicles'
import { currentMember } from './session'
import { summarise } from '@/web/words/summary'
import { answer, refuse, type Answer } from './answer'
import { inLine } from './in-line'
import { yardFollows } from './yard'

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
  return answer('newJob', NewJob, raw, async (who, input) => {
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
      if (!file) return refuse('not_found')
      plan = startFrom(plan, file.measured, start.vehicleId)
    }
    plan = Plan.parse(plan)
    await insertJob(who, input.id, plan, 'Taken in', new Date())
    yardFollows(who, input.id)
    return { ok: true, value: { id: input.id } }
  })
}

export type Revision = RevisionHead
export type Saved =
  /** Without the plan where it was saved as it was sent: a large one need not travel back. */
  | { kind: 'saved' | 'merged'; number: number; plan: Plan | null; theirParts: string[] }
  | { kind: 'unchanged'; number: number }
  | { kind: 'clash'; number: number; theirs: Plan; clashes: Clash[]; by: string; summary: string }

const Save = z.strictObject({ jobId: z.uuid(), basedOn: z.number().int().min(1), plan: Plan })

/** A save's outcome as an answer; what may not be or is not there as a code. */
function saved(
  who: Who,
  jobId: string,
  out: SaveOutcome | Extract<Saved, { kind: 'saved' | 'merged' }>,
): Answer<Saved> {
  if (out.kind === 'not_found') return refuse('not_found')
  if (out.kind === 'invalid') return refuse('not_a_valid_plan')
  if (out.kind === 'not_yours') return refuse('not_allowed', { right: 'plan' })
  if (out.kind === 'saved' || out.kind === 'merged') yardFollows(who, jobId)
  return { ok: true, value: out }
}

export async function saveJob(raw: unknown): Promise<Answer<Saved>> {
  // Every role saves some part of a plan; which parts is judged where it is saved.
  return answer('read', Save, raw, async (who, input) => {
    const summary = (before: Plan, after: Plan) => summarise(planEdits(before, after))
    const out = await inLine(input.jobId, () => savePlan(who, { ...input, summary }, new Date()))
    return saved(who, input.jobId, out.kind === 'saved' ? { ...out, plan: null } : out)
  })
}

const Ref = z.strictObject({ jobId: z.uuid() })

/** The member's own last change taken back, or done again; says which. */
export async function takeBackChange(raw: unknown): Promise<Answer<{ number: number; plan: Plan; said: string }>> {
  return answer('read', Ref.extend({ which: z.enum(['undo', 'redo']) }), raw, async (who, { jobId, which }) => {
    const summary = (before: Plan, after: Plan) => summarise(planEdits(before, after))
    const out = await inLine(jobId, () => takeBack(who, { jobId, which, summary }, new Date()))
    if (out.kind === 'nothing') return refuse(which === 'undo' ? 'nothing_to_undo' : 'nothing_to_redo')
    if (out.kind === 'not_found') return refuse('not_found')
    if (out.kind === 'changed_since') return refuse('changed_since', { by: out.by, what: out.what })
    yardFollows(who, jobId)
    return { ok: true, value: { number: out.number, plan: out.plan, said: out.said } }
  })
}

/** An older revision's content as a new one. */
export async function restoreRevision(raw: unknown): Promise<Answer<Saved>> {
  const Restore = Ref.extend({ number: z.number().int().min(1), basedOn: z.number().int().min(1) })
  return answer('plan', Restore, raw, async (who, { jobId, number, basedOn }) => {
    const plan = await planAt(who, jobId, number)
    if (!plan) return refuse('not_found')
    const summary = () => `Brought back: revision ${number}`
    const out = await inLine(jobId, () =>
      savePlan(who, { jobId, basedOn, plan, restores: number, summary }, new Date()),
    )
    return saved(who, jobId, out)
  })
}

export async function jobHistory(raw: unknown): Promise<Answer<RevisionHead[]>> {
  return answer('read', Ref, raw, async (who, { jobId }) => ({ ok: true, value: await revisions(who, jobId) }))
}
