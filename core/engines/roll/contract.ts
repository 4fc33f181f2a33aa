import { z } from 'zod'
import { timeBudget } from '../../kit/budget'
import { seeded } from '../../kit/random'
import { err, ok, type Result } from '../../kit/result'
import { pack, type PackBin, type Packing, type PackItem, type WhyNot } from '../../solve/pack'
import { firstFault } from '../../kit/first-fault'

const size = z.number().gt(0).max(1e7)
const name = z.string().min(1).max(200)
const MAX_COPIES = 20000
/** More than this is no layout for one page or one queued job. */
export const MOST_FLEET_PIECES = 5000
/** Share of the seconds asked for that the search may take; the rest reads and writes. */
const TIME_SHARE = 0.96

/** What `npx cuirass layout` reads. Millimetres and seconds. */
export const LayoutInput = z
  .strictObject({
    format: z.literal('cuirass/layout@1'),
    cutting: z.enum(['guillotine', 'free']).default('guillotine'),
    gap_mm: z.number().min(0).max(1000).default(0),
    seconds: z.number().gt(0).max(600).default(5),
    seed: z.number().int().min(0).max(4294967295).default(1),
    stock: z
      .array(z.strictObject({ id: name, width_mm: size, length_mm: size, lot: name.optional() }))
      .min(1)
      .max(2000),
    pieces: z
      .array(
        z.strictObject({
          id: name,
          width_mm: size,
          height_mm: size,
          count: z.number().int().min(1).max(MAX_COPIES).default(1),
          turn: z.enum(['fixed', 'quarter']).default('fixed'),
          group: name.optional(),
        }),
      )
      .max(MAX_COPIES),
  })
  .superRefine((input, ctx) => {
    for (const key of ['stock', 'pieces'] as const) {
      const seen = new Set<string>()
      input[key].forEach((entry, i) => {
        if (seen.has(entry.id)) ctx.addIssue({ code: 'custom', path: [key, i, 'id'], message: 'duplicate_id' })
        seen.add(entry.id)
      })
    }
    const copies = input.pieces.reduce((sum, p) => sum + p.count, 0)
    if (copies > MAX_COPIES) ctx.addIssue({ code: 'custom', path: ['pieces'], message: 'too_many_pieces' })
  })
export type LayoutInput = z.infer<typeof LayoutInput>

export interface LayoutPlan {
  format: 'cuirass/layout-plan@1'
  used_mm: number
  bound_mm: number
  proven: boolean
  stock: {
    id: string
    used_mm: number
    placements: { piece: string; copy: number; x_mm: number; y_mm: number; turn_deg: 0 | 90 }[]
  }[]
  unplaced: { piece: string; copy: number; why: UnplacedWhy }[]
}

/** Why a piece lies nowhere: as the solver has it, or that only its turn rule keeps it from lying. */
export type UnplacedWhy = WhyNot | 'wider_unless_turned' | 'longer_unless_turned'

export interface ContractOptions {
  better?: (packing: Packing) => void
  sinceStartMs?: number
  /** True once nobody wants the plan any more: the best so far is given. */
  cancelled?: () => boolean
  /** Told the share of the time that is gone, now and then. */
  tick?: (share: number) => void
  /** Stages of straight cuts; any number where it is not given. */
  stages?: number
}

/**
 * A layout by the published contract; `clockMs` drives the budget. `better` sees each better plan; `sinceStartMs` of
 * the seconds are gone already.
 */
export function layoutByContract(
  value: unknown,
  clockMs: () => number,
  { better, sinceStartMs = 0, cancelled, tick, stages }: ContractOptions = {},
): Result<LayoutPlan> {
  const parsed = LayoutInput.safeParse(value)
  if (!parsed.success) return err(firstFault(parsed.error))
  const input = parsed.data
  const items: PackItem[] = input.pieces.flatMap((p) =>
    Array.from({ length: p.count }, (_, i) => ({
      id: p.id,
      copy: i + 1,
      width: p.width_mm,
      length: p.height_mm,
      turn: p.turn,
      group: p.group ?? null,
    })),
  )
  const bins = input.stock.map((s, i) => ({ id: s.id, width: s.width_mm, length: s.length_mm, lot: s.lot ?? `#${i}` }))
  const seconds = Math.max(input.seconds / 2, input.seconds * TIME_SHARE - sinceStartMs / 1000)
  const clock = timeBudget(clockMs, seconds)
  let told = 0
  const budget = {
    ...clock,
    spent: () => {
      const share = clock.elapsed?.() ?? 0
      if (tick && share >= told + 0.01) tick((told = share))
      return cancelled?.() === true || clock.spent?.() === true
    },
  }
  const packing = pack(items, bins, {
    gap: input.gap_mm,
    rule: input.cutting,
    ...(stages === undefined ? {} : { cuts: stages }),
    random: seeded(input.seed),
    budget,
    ...(better ? { better } : {}),
  })
  const used = packing.used.reduce((sum, u) => sum + u.length, 0)
  const byBin = new Map<string, (typeof packing.placed)[number][]>()
  for (const p of packing.placed) byBin.set(p.binId, [...(byBin.get(p.binId) ?? []), p])
  return ok({
    format: 'cuirass/layout-plan@1',
    used_mm: round(used),
    bound_mm: Math.floor(packing.bound * 1e4 + 1e-3) / 1e4,
    proven: packing.proven,
    stock: packing.used.map((u) => ({
      id: u.binId,
      used_mm: round(u.length),
      placements: (byBin.get(u.binId) ?? []).map((p) => ({
        piece: p.item.id,
        copy: p.item.copy,
        x_mm: round(p.x),
        y_mm: round(p.y),
        turn_deg: p.turned ? 90 : 0,
      })),
    })),
    unplaced: packing.unplaced.map((u) => ({ piece: u.item.id, copy: u.item.copy, why: whyNot(u, bins) })),
  })
}

/** Why a piece lies nowhere, and whether a turn that it is not allowed would help. */
function whyNot({ item, why }: Packing['unplaced'][number], bins: readonly PackBin[]): UnplacedWhy {
  const helps = item.turn === 'fixed' && bins.some((b) => item.length <= b.width && item.width <= b.length)
  if (helps && why === 'wider_than_every_bin') return 'wider_unless_turned'
  return helps && why === 'longer_than_every_bin' ? 'longer_unless_turned' : why
}

const round = (mm: number): number => Math.round(mm * 1e6) / 1e6
