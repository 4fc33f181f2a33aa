import { z } from 'zod'
import type { Method } from '../method/schema'
import type { PlanChange } from '../plan/plan-change'
import { KeptLayout } from '../plan/schema'
import { SolvedHeat } from './solved-heat'
import { SolvedStretch } from './solved-stretch'

/**
 * What takes long is solved once and kept: the stretch of a panel, the best ways out of it, the layout of a film, the
 * gun's sweep along its edges. Its
 * key is a hash of everything that it hangs on, the solver's version and fineness among it.
 */
export const SOLUTION_KINDS = ['stretch', 'ways', 'layout', 'heat'] as const
export type SolutionKind = (typeof SOLUTION_KINDS)[number]

/** A way out as it was solved on the panel's surface. `becomes`: the worst stretch then, a fraction. */
export interface FoundWayOut {
  code: 'seam' | 'slits' | 'seam_and_slits' | 'inlay' | 'feed' | 'wider_gap' | 'pre_stretch' | 'relax_first' | 'film'
  change: PlanChange
  becomes: number
  facts: Record<string, string | number>
}

/** The kinds of change that a way out may ask for; what it sets is checked where it is taken, as any edit is. */
const WAY_CHANGES = ['piece', 'recess', 'method', 'panel', 'film'] as const
const FoundWay = z.strictObject({
  code: z.enum(['seam', 'slits', 'seam_and_slits', 'inlay', 'feed', 'wider_gap', 'pre_stretch', 'relax_first', 'film']),
  change: z.custom<PlanChange>(
    (v) => typeof v === 'object' && v !== null && 'kind' in v && WAY_CHANGES.some((kind) => kind === v.kind),
  ),
  becomes: z.number().min(0),
  facts: z.record(z.string().max(60), z.union([z.string().max(200), z.number()])),
})

const Source = z.strictObject({
  id: z.string().max(200),
  kind: z.enum(['shelf', 'new', 'join']),
  lot: z.string().max(120).nullable(),
  joined: z.string().max(120).nullable(),
  widthMm: z.number().min(0),
  covers: z.boolean(),
  lacks: z.enum(['nothing', 'pieces', 'reserve']),
  usedMm: z.number().min(0),
  orderMm: z.number().min(0),
  units: z.number().min(0),
  cost: z.number().min(0),
  leavesMm: z.number(),
})
const Join = z.strictObject({
  first: z.string().max(120),
  second: z.string().max(120),
  panels: z.array(z.string().max(60)).max(400),
  seams: z
    .array(z.strictObject({ a: z.string().max(60), b: z.string().max(60), lengthMm: z.number().min(0) }))
    .max(1000),
  lengthMm: z.number().min(0),
})

/** One film's layout, searched: where its pieces lie, what every source of the film takes, and the proven bound. */
export const SettledLayout = z.strictObject({
  filmId: z.string().max(60),
  /** Of the sources of the film, the one that is taken; null where there is none. */
  sourceId: z.string().max(200).nullable(),
  sources: z.array(Source).max(60),
  join: Join.nullable(),
  rollWidthMm: z.number().min(0),
  usedMm: z.number().min(0),
  boundMm: z.number().min(0),
  rolls: KeptLayout.shape.rolls,
  unplaced: z.array(z.strictObject({ pieceId: z.string().max(120), why: z.string().max(60) })).max(2000),
})
export type SettledLayout = z.infer<typeof SettledLayout>

/** Why something has no solution: a surface that cannot be made from its tape. What stands in for it is final then. */
const SolveFault = z.strictObject({
  code: z.string().max(60),
  facts: z.record(z.string().max(60), z.union([z.string().max(200), z.number()])),
})
export type SolveFault = z.infer<typeof SolveFault>

const Key = z.string().regex(/^[0-9a-f]{16}$/)
/** `fineness`: triangles, or moves of a search. A coarser solution never takes the place of a finer one. */
const fineness = z.number().int().min(0).max(1e9)
/** A solution as the shop keeps it and as files carry it. */
export const Solution = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('stretch'), key: Key, fineness, value: SolvedStretch }),
  z.strictObject({ kind: z.literal('ways'), key: Key, fineness, value: z.array(FoundWay).max(10) }),
  z.strictObject({ kind: z.literal('layout'), key: Key, fineness, value: SettledLayout }),
  z.strictObject({ kind: z.literal('heat'), key: Key, fineness, value: SolvedHeat }),
  z.strictObject({ kind: z.literal('fault'), key: Key, fineness, value: SolveFault }),
])
export type Solution = z.infer<typeof Solution>

/** One thing that a plan hangs on and that is not solved yet. */
export interface Lack {
  kind: SolutionKind
  key: string
  /** The panel, or the film. */
  of: string
  /** Only compared with: the panel in another film, or by another school. */
  as?: { filmId: string } & Pick<Method, 'order' | 'tension'>
}
