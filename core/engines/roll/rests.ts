import type { StockItem } from '../../model/film/schema'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import { LEAST_REST, type Offcut } from './cuts'
import type { FilmLayout } from './roll-plan'

export interface Rest {
  /** Short mark, unique within the layout and for the roll: where it lies, in cm from the roll's end and edge. */
  key: string
  /** The planned roll it is left over of. */
  rollId: string
  stock: StockItem | null
  /** Where it begins along the roll. */
  yMm: number
  widthMm: number
  lengthMm: number
  /** Kinds of small panel that it takes, by what such panels of this job need. */
  takes: string[]
  /** Everything round it is cut. */
  cut: boolean
}

/** Room that small panels take with their bleed, mm across × along; assumed. */
const SMALL: Record<string, [number, number]> = {
  mirror: [350, 400],
  handle: [120, 320],
  aerial: [260, 260],
  pillar: [180, 700],
  fuel_flap: [250, 250],
}

/** The longest part of what is left over that no damage of its roll lies in. */
function undamaged(o: Offcut, damage: readonly { from: number; to: number }[]): Offcut {
  let [best, at] = [{ ...o, lengthMm: 0 }, o.yMm]
  const end = o.yMm + o.lengthMm
  const offer = (to: number) => {
    if (to - at > best.lengthMm) best = { ...o, yMm: at, lengthMm: to - at }
  }
  for (const d of damage) {
    if (d.to <= o.yMm || d.from >= end) continue
    offer(d.from)
    at = Math.max(at, d.to)
  }
  offer(end)
  return best
}

/** A rest of another layout of the same roll gets another mark: the layout's own is part of it. */
const keyOf = (layout: FilmLayout, roll: number, o: { xMm: number; yMm: number }): string =>
  `${layout.mark.slice(0, 3)}${roll + 1}-${Math.round(o.yMm / 10)}-${Math.round(o.xMm / 10)}`

/** What is left over within the length used, large enough to keep, largest first. */
export function restsOf(layout: FilmLayout): Rest[] {
  const real = new Set(layout.cut.map((c) => c.id))
  const out: Rest[] = []
  layout.rolls.forEach((roll, n) => {
    for (const whole of roll.cutting.offcuts) {
      const o = undamaged(whole, roll.damage)
      const [short, long] = [Math.min(o.widthMm, o.lengthMm), Math.max(o.widthMm, o.lengthMm)]
      if (short < LEAST_REST.short || long < LEAST_REST.long) continue
      const beside = roll.placements.filter(
        (p) => p.yMm < o.yMm + o.lengthMm - 1e-6 && p.yMm + p.lengthMm > o.yMm + 1e-6,
      )
      const takes = Object.entries(SMALL)
        .filter(
          ([kind, [w, l]]) =>
            kind in PANEL_FACTS &&
            ((o.widthMm >= w && o.lengthMm >= l) || (kind !== 'handle' && o.widthMm >= l && o.lengthMm >= w)),
        )
        .map(([kind]) => kind)
      out.push({
        key: keyOf(layout, n, o),
        rollId: roll.id,
        stock: roll.stock,
        yMm: o.yMm,
        widthMm: o.widthMm,
        lengthMm: o.lengthMm,
        takes,
        cut: beside.length > 0 && beside.every((p) => real.has(p.pieceId)),
      })
    }
  })
  return out.sort((a, b) => b.widthMm * b.lengthMm - a.widthMm * a.lengthMm)
}
