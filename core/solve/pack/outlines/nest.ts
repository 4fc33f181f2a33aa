import type { Budget } from '../../../kit/budget'
import type { Random } from '../../../kit/random'
import { CELLS_ACROSS, Field, LEAST_CELL, Lie, maskOf, NestBin, NestShape } from './field'

export interface NestPlaced {
  id: string
  binId: string
  x: number
  y: number
  lie: Lie
}

export interface NestOptions {
  /** Clear space between shapes. */
  gap: number
  random: Random
  budget: Budget
  /** What lies already and stays: outlines where they are. */
  still?: readonly { binId: string; points: readonly { x: number; y: number }[] }[]
  /** Orders to begin with. */
  start?: readonly string[]
  better?: (placed: NestPlaced[], used: number) => void
}

/**
 * Outlines of any shape into bins, interlocking where they can. Each shape is a set of cells that covers it wholly,
 * grown by the gap, so a plan is sound whatever the cells' size; shapes go one by one to the lowest free place, and
 * orders and turns are bettered by chance within the budget. Null where not all shapes find room.
 */
export function nest(
  shapes: readonly NestShape[],
  bins: readonly NestBin[],
  options: NestOptions,
): { placed: NestPlaced[]; used: number } | null {
  const { gap, random, budget } = options
  const widest = Math.max(1, ...bins.map((b) => b.width))
  const cell = Math.max(LEAST_CELL, widest / CELLS_ACROSS)
  const masks = shapes.map((s) => s.lies.map((lie) => maskOf(lie, cell, gap)))
  const fields = bins.map(
    (bin) =>
      new Field(
        bin,
        cell,
        gap,
        (options.still ?? []).filter((f) => f.binId === bin.id).map((f) => f.points),
      ),
  )
  const lay = (
    order: readonly number[],
    turns: readonly number[],
    limit: number,
  ): { placed: NestPlaced[]; used: number } | null => {
    for (const f of fields) f.clear()
    const placed: NestPlaced[] = []
    const far = fields.map((f) => f.begun)
    for (const i of order) {
      const shape = shapes[i]
      let found = false
      for (let b = 0; b < fields.length && !found; b++) {
        const field = fields[b]
        let best: { at: { x: number; y: number }; end: number; turn: number } | null = null
        for (let w = 0; w < shape.lies.length; w++) {
          const turn = turns[i]
          if (turn >= 0 && w !== turn % shape.lies.length) continue
          const lie = shape.lies[w]
          const at = field.lowest(masks[i][w], lie)
          if (at && (!best || at.y + lie.length < best.end - 1e-9)) best = { at, end: at.y + lie.length, turn: w }
        }
        if (!best) continue
        const lie = shape.lies[best.turn]
        field.put(masks[i][best.turn], best.at)
        placed.push({ id: shape.id, binId: bins[b].id, x: best.at.x, y: best.at.y, lie })
        far[b] = Math.max(far[b], best.end)
        found = true
        if (far.reduce((s, f) => s + f, 0) >= limit) return null
      }
      if (!found) return null
    }
    return { placed, used: far.reduce((s, f) => s + f, 0) }
  }
  const place = new Map(shapes.map((s, i) => [s.id, i]))
  const size = (i: number) => Math.max(...shapes[i].lies.map((l) => l.width * l.length))
  const bySize = shapes.map((_, i) => i).sort((a, b) => size(b) - size(a))
  const given = (options.start ?? []).flatMap((id) => place.get(id) ?? [])
  const starts = [...(given.length === shapes.length ? [given] : []), bySize]
  const any = shapes.map(() => -1)
  let best: { placed: NestPlaced[]; used: number } | null = null
  let order = bySize
  let turns = any
  const offer = (plan: { placed: NestPlaced[]; used: number } | null): boolean => {
    if (!plan || (best && plan.used >= best.used - 1e-6)) return false
    best = plan
    options.better?.(plan.placed, plan.used)
    return true
  }
  for (const start of starts) if (offer(lay(start, any, Infinity))) order = start
  for (let round = 0; round < budget.rounds && !budget.spent?.() && shapes.length > 1; round++) {
    const next = [...order]
    const turned = [...turns]
    for (let k = 0; k < 1 + (random() < 0.3 ? 2 : 0); k++) {
      const i = Math.floor(random() * next.length)
      if (random() < 0.3) turned[next[i]] = random() < 0.4 ? -1 : Math.floor(random() * 4)
      else {
        const j = Math.floor(random() * next.length)
        const [item] = next.splice(i, 1)
        next.splice(j, 0, item)
      }
    }
    const had: { used: number } | null = best
    if (offer(lay(next, turned, had ? (had as { used: number }).used - 1e-6 : Infinity))) {
      order = next
      turns = turned
    }
  }
  return best
}
