import { EDGE_STRIP_MM, FILM_MATTER, HAND, MATTER, ROOM } from '../../model/heat/heat-data'
import type { FilmSheet } from '../../model/film/schema'
import type { ShopSettings } from '../../model/shop/shop'
import type { Panel } from '../../model/vehicle/schema'
import type { EdgePlan, EdgeTask } from '../../solve/heat/edge-task'
import { planSweep } from '../../solve/heat/plan-sweep'

const MM = 1000
/** Along an edge the pace is the same: so much of it is solved, mm, and the rest goes at that pace. */
const SOLVED_MM = 1000

/** What the gun's pace along an edge hangs on. */
export interface EdgeHeatAsk {
  panel: Pick<Panel, 'surface'>
  film: Pick<FilmSheet, 'thicknessUm' | 'postHeatC' | 'heatLimitC'>
  guns: ShopSettings['guns']
  lengthMm: number
}
export type EdgeHeat =
  | {
      kind: 'plan'
      gun: string
      holdS: number
      paceMmS: number
      passes: number
      gapS: number
      /** Begins so far before the edge, and ends so far past it; negative: within. mm. */
      beforeMm: number
      pastMm: number
      peakC: { min: number; max: number }
      inBand: number
      /** For the whole edge. */
      seconds: number
    }
  | { kind: 'none'; code: 'no_gun_measured' | 'limit_below_band' | 'cannot_reach' | 'band_too_narrow' }

/** The gun that brings an edge into the film's band soonest, and how to move it. Takes a second or two: off the page's thread. */
export function edgeHeat(ask: EdgeHeatAsk): EdgeHeat {
  const task = edgeTask(ask)
  if (!task) return { kind: 'none', code: 'no_gun_measured' }
  const plan = planSweep(task)
  if ('code' in plan) return { kind: 'none', code: plan.code }
  return told(plan, ask, task)
}

function told({ gun, way, ...plan }: EdgePlan, { guns, lengthMm }: EdgeHeatAsk, task: EdgeTask): EdgeHeat {
  const solvedMm = task.panel.lengthM * MM
  const passMm = way.toMm - way.fromMm + (lengthMm - solvedMm)
  return {
    kind: 'plan',
    gun: guns.find((g) => g.id === gun)?.name ?? gun,
    holdS: way.holdS,
    paceMmS: way.speedMmS,
    passes: way.passes,
    gapS: way.gapS,
    beforeMm: -way.fromMm,
    pastMm: way.toMm - solvedMm,
    peakC: { min: plan.minPeakC, max: plan.maxPeakC },
    inBand: plan.inBand,
    seconds: way.passes * (way.holdS + passMm / way.speedMmS) + (way.passes - 1) * way.gapS,
  }
}

/** What lies under the gun, from the film inwards; two films where they lap. */
export function wallOf(
  surface: Panel['surface'],
  film: Pick<FilmSheet, 'thicknessUm'>,
  films = 1,
): { thicknessM: number; conductivity: number; heatCapacity: number }[] {
  const matter = MATTER[surface.material]
  return [
    {
      thicknessM: (films * film.thicknessUm) / 1e6,
      conductivity: FILM_MATTER.conductivity,
      heatCapacity: FILM_MATTER.density * FILM_MATTER.specificHeat,
    },
    {
      thicknessM: (surface.thicknessMm ?? matter.usualMm) / MM,
      conductivity: matter.conductivity,
      heatCapacity: matter.density * matter.specificHeat,
    },
  ]
}

/** The task as the solver takes it; null where no gun of the shop was measured. */
export function edgeTask({ panel, film, guns, lengthMm }: EdgeHeatAsk): EdgeTask | null {
  const measured = guns.flatMap((g) =>
    g.airC === null || g.coefficient === null || g.sigmaMm === null
      ? []
      : [
          {
            id: g.id,
            airC: g.airC,
            coefficient: g.coefficient,
            flux: 0,
            footprint: { shape: 'gaussian' as const, sigmaM: g.sigmaMm / MM },
          },
        ],
  )
  if (measured.length === 0) return null
  return {
    startC: ROOM.airC,
    layers: wallOf(panel.surface, film),
    panel: { lengthM: Math.min(SOLVED_MM, lengthMm) / MM, widthM: EDGE_STRIP_MM / MM },
    yM: EDGE_STRIP_MM / 2 / MM,
    room: { airC: ROOM.airC, coefficient: ROOM.front, flux: 0 },
    back: { airC: ROOM.airC, coefficient: ROOM.behind, flux: 0 },
    guns: measured,
    bandC: film.postHeatC,
    limitC: film.heatLimitC,
    speedMmS: { min: HAND.slowest, max: HAND.fastest },
    passesMax: HAND.passes,
    gapMaxS: HAND.gapS,
    holdMaxS: HAND.holdS,
    reachMm: HAND.reachMm,
  }
}
