import { mustGet } from '../../kit/known'
import type { Budget } from '../../kit/budget'
import { seeded } from '../../kit/random'
import { lengthBound, pack, type Packing, type PackOptions, type Placed } from '../../solve/pack'
import { sumOf, type LaidParts, type LayoutTask } from './layout-task'
import type { RollPlan, SearchOptions } from './roll-plan'
import type { FilmSource, Part } from './sources'
import { itemsFor, type Unit } from './units'
import { asRoll, sum } from './kept-layout'
import { interlocked, NEST_FROM, outlineBound } from './interlocked'

/** Changes tried while figures are typed: enough for a good plan, few enough to stay live. Falls as pieces grow. */
const liveRounds = (pieces: number): number => (pieces > 150 ? 0 : Math.floor(15000 / Math.max(20, pieces)))

const unitsOf = ({ plan, apart }: LayoutTask, part: Part): Unit[] =>
  itemsFor(plan, part.pieces, { widthMm: Math.max(...part.bins.map((b) => b.width)), apart })

/** Lays the pieces of one part of a source. */
export function lay(task: LayoutTask, part: Part, over: Partial<PackOptions>): { packing: Packing; units: Unit[] } {
  const { plan, cutting, gap } = task
  const units = unitsOf(task, part)
  const packing = pack(
    units.map((u) => u.item),
    part.bins,
    {
      gap,
      random: seeded(plan.layout.seed),
      budget: { rounds: 0 },
      rule: cutting === 'free' ? 'free' : 'guillotine',
      cuts: cutting === 'free' ? Infinity : plan.layout.stages,
      ...over,
    },
  )
  return { packing, units }
}

interface LaidPart {
  part: Part
  packing: Packing
  units: Unit[]
}

/**
 * The plan itself: pieces on rolls, what found no room, and what bounds it. `standIn`: a first try will do, until the
 * searched layout is there.
 */
export function layParts(
  task: LayoutTask,
  taken: FilmSource | undefined,
  { standIn }: { standIn: boolean },
): LaidParts {
  const { plan, context, options, trimMm, cutting, toLay, locked, width } = task
  const parts = taken?.parts ?? []
  const done = parts.map((part, at): LaidPart => {
    const first = taken?.packings[at]
    if (standIn && first) return { part, packing: first, units: unitsOf(task, part) }
    const laid = lay(task, part, searchOf(task, part, { at, of: parts.length }))
    // A search that was cut short does not leave out what a first try had placed.
    const worse = first && locked.length === 0 && first.unplaced.length < laid.packing.unplaced.length
    return { part, units: laid.units, packing: worse ? first : laid.packing }
  })
  let rolls = done.flatMap((laid) => rollsOf(task, laid))
  const unplaced = done.flatMap(({ packing, units }) =>
    packing.unplaced.flatMap((u) =>
      (units.find((x) => x.item.id === u.item.id)?.members ?? []).map(({ piece }) => ({ piece, why: u.why })),
    ),
  )
  if (parts.length === 0) unplaced.push(...toLay.map((piece) => ({ piece, why: 'no_room_left' as const })))
  let boundMm = sumOf(done.map((d) => d.packing.bound))
  // Pairs and joins are the shop's wish: what bounds a plan that keeps to them bounds no other.
  if (taken?.join || plan.layout.together.length > 0) {
    const free = itemsFor(plan, toLay, { apart: new Set(toLay.map((p) => p.id)) }).map((u) => u.item)
    const widest = Math.max(...parts.flatMap((p) => p.bins.map((b) => b.width)), 0)
    boundMm = Math.min(boundMm, lengthBound(free, widest, task.gap))
  }
  if (cutting === 'free' && options.elapsed && unplaced.length === 0 && toLay.some((p) => p.outline)) {
    const nested = interlocked(plan, parts, rolls, locked, options)
    // Outlines may lie closer than their rectangles: their bare area, and the longest of them, is what bounds them.
    boundMm = Math.min(boundMm, outlineBound(parts))
    if (nested)
      rolls = nested.map(({ id, widthMm, usedMm, placements }) =>
        asRoll({ id, widthMm, usedMm, placements, stock: context.stock, film: task.film, cutting, gapMm: task.gap }),
      )
  }
  // The widest that is laid on: a narrow rest beside it does not make the roll narrow.
  const widest = Math.max(0, ...rolls.map((r) => r.widthMm))
  const offered = Math.max(0, ...parts.flatMap((p) => p.bins.map((b) => b.width + 2 * trimMm)))
  return { rollWidthMm: widest || offered || width, boundMm, rolls, usedMm: sum(rolls), unplaced }
}

/** How hard one part is searched, around what is locked on it. */
function searchOf(task: LayoutTask, part: Part, { at, of }: { at: number; of: number }): Partial<PackOptions> {
  const { options, cutting, toLay } = task
  const { spent, elapsed, better } = options
  const budget = sharedBudget({
    rounds: options.rounds ?? liveRounds(toLay.length),
    spent,
    elapsed,
    at,
    of,
    upTo: cutting === 'free' && part.pieces.some((p) => p.outline) ? NEST_FROM : 1,
  })
  return {
    locked: lockedOn(task, part),
    budget,
    ...(better && of === 1 ? { better: (p: Packing) => better(sumOf(p.used.map((u) => u.length)), p.bound) } : {}),
  }
}

/** Pieces that somebody locked where they lie, as the solver takes them. */
function lockedOn({ plan, byId, locked, trimMm, apart }: LayoutTask, part: Part): Placed[] {
  const own = new Set(part.pieces.map((p) => p.id))
  return locked.flatMap(({ rollId, placement: p }) => {
    const piece = byId.get(p.pieceId)
    if (!piece || !own.has(p.pieceId) || !part.bins.some((b) => b.id === rollId)) return []
    const item = itemsFor(plan, [piece], { apart })[0]?.item
    if (!item) return []
    const turned = p.turnDeg % 180 === 90
    return [{ item, binId: rollId, x: p.xMm - trimMm, y: p.yMm, width: p.widthMm, length: p.lengthMm, turned }]
  })
}

/** What the solver placed, as rolls with pieces in place of its items. */
function rollsOf(task: LayoutTask, { part, packing, units }: LaidPart): RollPlan[] {
  const { plan, context, film, cutting, gap, trimMm, byId, locked, apart } = task
  const unitOf = new Map(units.map((u) => [u.item.id, u]))
  const turned = (unit: Unit, p: Placed): 0 | 90 | 180 | 270 => {
    const was = locked.find((l) => l.placement.pieceId === unit.members[0]?.piece.id)
    return was ? was.placement.turnDeg : p.turned ? 90 : 0
  }
  const placementsOn = (binId: string) =>
    packing.placed
      .filter((p) => p.binId === binId)
      .flatMap((p) => {
        const unit = unitOf.get(p.item.id) ?? itemsFor(plan, [mustGet(byId, p.item.id)], { apart })[0]
        if (!unit) return []
        return unit.members.map(({ piece, xMm }) => ({
          pieceId: piece.id,
          xMm: p.x + trimMm + xMm,
          yMm: p.y,
          turnDeg: turned(unit, p),
          widthMm: p.turned ? piece.alongMm : piece.acrossMm,
          lengthMm: p.turned ? piece.acrossMm : piece.alongMm,
          locked: locked.some((l) => l.placement.pieceId === piece.id && l.placement.locked),
        }))
      })
  return packing.used
    .filter((u) => u.length > 0)
    .map((u) =>
      asRoll({
        id: u.binId,
        widthMm: (part.bins.find((b) => b.id === u.binId)?.width ?? 0) + 2 * trimMm,
        usedMm: u.length,
        placements: placementsOn(u.binId),
        stock: context.stock,
        film,
        cutting,
        gapMm: gap,
      }),
    )
}

/** The share of one part of a plan in what may be spent; `upTo`: the share after which something else begins. */
function sharedBudget({
  rounds,
  spent,
  elapsed,
  at,
  of,
  upTo,
}: {
  rounds: number
  spent: SearchOptions['spent']
  elapsed: SearchOptions['elapsed']
  at: number
  of: number
  upTo: number
}): Budget {
  const [from, to] = [(upTo * at) / of, (upTo * (at + 1)) / of]
  return {
    rounds: Math.ceil(rounds / of),
    ...(spent || elapsed ? { spent: () => spent?.() === true || (elapsed !== undefined && elapsed() >= to) } : {}),
    ...(elapsed ? { elapsed: () => Math.min(1, Math.max(0, (elapsed() - from) / (to - from))) } : {}),
  }
}
