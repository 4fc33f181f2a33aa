import type { Panel } from '../vehicle/schema'
import { mergePanel } from './merge-panel'
import { CLASH, mergeSection, same } from './merge-section'
import type { Plan } from './schema'

/**
 * What two people changed at once, part by part. A part is one panel, its piece choice, one entry of the walkaround,
 * or one section of the plan.
 */
export interface Clash {
  part: string
  base: unknown
  mine: unknown
  theirs: unknown
}
export type Merge = { clean: true; plan: Plan; theirParts: string[] } | { clean: false; clashes: Clash[] }

/** Sections whose fields stand each for itself. */
const BY_FIELD: readonly string[] = ['runSheet', 'method', 'conditions', 'layout'] satisfies (keyof Plan)[]

/** One part that both changed, put together figure by figure where they did not touch the same one. */
function mergePart(part: string, was: unknown, my: unknown, their: unknown): unknown {
  if (part.startsWith('panels/') && was && my && their)
    return mergePanel(was as Panel, my as Panel, their as Panel) ?? CLASH
  return BY_FIELD.includes(part) ? mergeSection(was, my, their) : CLASH
}

/** The plan as separate parts, so that changes to different ones go together. */
function parts(plan: Plan): Map<string, unknown> {
  const out = new Map<string, unknown>()
  const { panels, pieces, film, walkaround, ...rest } = plan
  for (const [key, value] of Object.entries(rest)) out.set(key, value)
  for (const [key, value] of Object.entries(walkaround))
    if (Array.isArray(value)) for (const item of value) out.set(`walkaround/${key}/${item.id}`, item)
    else out.set(`walkaround/${key}`, value)
  out.set('film/main', film.mainId)
  for (const sheet of film.sheets) out.set(`film/${sheet.id}`, sheet)
  for (const panel of panels) out.set(`panels/${panel.id}`, panel)
  for (const choice of pieces) out.set(`pieces/${choice.panelId}`, choice)
  return out
}

/** A plan put together from its parts: each list in the order of mine, and then what only theirs has. */
function assembled(out: ReadonlyMap<string, unknown>, mine: Plan, theirs: Plan): Plan {
  /** Those of a list's ids whose part is there, in both lists' order. */
  const pick = <T>(prefix: string, lists: readonly (readonly T[])[], id: (x: T) => string): unknown[] =>
    [...new Set(lists.flat().map(id))].map((x) => out.get(`${prefix}/${x}`)).filter((v) => v !== undefined)
  const walkaround = Object.keys(mine.walkaround).map((key) => {
    const [m, t] = [mine, theirs].map((p) => p.walkaround[key as keyof Plan['walkaround']])
    if (!Array.isArray(m)) return [key, out.get(`walkaround/${key}`) ?? null]
    return [key, pick(`walkaround/${key}`, [m, t] as { id: string }[][], (x) => x.id)]
  })
  return {
    ...Object.fromEntries([...out].filter(([part]) => !part.includes('/'))),
    walkaround: Object.fromEntries(walkaround),
    panels: pick('panels', [mine.panels, theirs.panels], (p) => p.id),
    pieces: pick('pieces', [mine.pieces, theirs.pieces], (c) => c.panelId),
    film: {
      mainId: out.get('film/main') ?? null,
      sheets: pick('film', [mine.film.sheets, theirs.film.sheets], (s) => s.id),
    },
  } as unknown as Plan
}

/**
 * Three-way merge: both sides' changes where they touched different parts; the clashes where they touched the same.
 * `prefer` settles every clash for one side.
 * New panels keep the order of *mine*, then *theirs*. The result still has to pass the plan's schema.
 */
export function mergePlans(
  base: Plan,
  mine: Plan,
  theirs: Plan,
  { prefer = null }: { prefer?: 'mine' | 'theirs' | null } = {},
): Merge {
  const [b, m, t] = [parts(base), parts(mine), parts(theirs)]
  const clashes: Clash[] = []
  const theirParts: string[] = []
  const out = new Map<string, unknown>()
  for (const part of new Set([...m.keys(), ...t.keys(), ...b.keys()])) {
    const [was, my, their] = [b.get(part), m.get(part), t.get(part)]
    const differ = !same(my, was) && !same(their, was) && !same(my, their)
    const both = differ ? mergePart(part, was, my, their) : CLASH
    if (both !== CLASH) {
      out.set(part, both)
      theirParts.push(part)
      continue
    }
    const clash = differ
    if (clash && !prefer) clashes.push({ part, base: was ?? null, mine: my ?? null, theirs: their ?? null })
    if (same(my, was) && !same(their, was)) theirParts.push(part)
    const value = clash ? (prefer === 'theirs' ? their : my) : same(my, was) ? their : my
    if (value !== undefined) out.set(part, value)
  }
  if (clashes.length > 0) return { clean: false, clashes }
  const plan = assembled(out, mine, theirs)
  // A panel taken away by one takes its piece choice with it.
  const alive = new Set(plan.panels.map((p) => p.id))
  return { clean: true, plan: { ...plan, pieces: plan.pieces.filter((c) => alive.has(c.panelId)) }, theirParts }
}

/** Whether `after` differs from `before` in the named sections only; each section is held as a whole, order and all. */
export function changesOnly(before: Plan, after: Plan, sections: readonly string[]): boolean {
  const keys = new Set([...Object.keys(before), ...Object.keys(after)])
  return [...keys].every((key) => sections.includes(key) || same(before[key as keyof Plan], after[key as keyof Plan]))
}

export interface PlanEdit {
  part: string
  how: 'added' | 'removed' | 'changed'
  name: string
  field: string | null
  before: unknown
  after: unknown
}

/** What changed between two plans, for a one-line summary and for showing both sides. */
export function planEdits(before: Plan, after: Plan): PlanEdit[] {
  const [b, a] = [parts(before), parts(after)]
  const out: PlanEdit[] = []
  for (const part of new Set([...a.keys(), ...b.keys()])) {
    const [was, is] = [b.get(part), a.get(part)]
    if (same(was, is)) continue
    const how = was === undefined ? 'added' : is === undefined ? 'removed' : 'changed'
    const field = firstDifference(was, is)
    const named = (is ?? was) as { name?: string; panelId?: string }
    const panel = named?.panelId ? after.panels.find((p) => p.id === named.panelId) : undefined
    out.push({
      part,
      how,
      name: panel?.name ?? named?.name ?? part,
      field: field?.key ?? null,
      before: field ? field.a : filmName(before, was),
      after: field ? field.b : filmName(after, is),
    })
  }
  return out
}

/** What a part that is one value says; a film by its name. */
const filmName = (plan: Plan, value: unknown): unknown =>
  typeof value === 'object' || value === undefined
    ? null
    : (plan.film.sheets.find((s) => s.id === value)?.name ?? value)

function firstDifference(a: unknown, b: unknown): { key: string; a: unknown; b: unknown } | null {
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b) return null
  for (const key of Object.keys(b)) {
    const [x, y] = [(a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]]
    if (!same(x, y)) return { key, a: x, b: y }
  }
  return null
}
