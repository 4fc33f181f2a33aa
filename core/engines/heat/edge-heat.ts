import { measuredGuns } from '../../model/catalogue/heat-key'
import type { SolvedHeat } from '../../model/catalogue/solved-heat'
import { EDGE_STRIP_MM, HAND, ROOM } from '../../model/heat/heat-data'
import type { FilmSheet } from '../../model/film/schema'
import type { ShopSettings } from '../../model/shop/shop'
import type { Panel } from '../../model/vehicle/schema'
import type { EdgeTask } from '../../solve/heat/edge-task'
import { planSweep } from '../../solve/heat/plan-sweep'
import { wallOf } from './wall'

const MM = 1000
/** Along an edge the pace is the same: so much of one is solved, mm; longer and shorter ones go at that pace. */
const SOLVED_MM = 1000

/** What the gun's sweep along an edge hangs on. */
export interface EdgeHeatAsk {
  panel: Pick<Panel, 'surface'>
  film: Pick<FilmSheet, 'thicknessUm' | 'postHeatC' | 'heatLimitC'>
  guns: ShopSettings['guns']
}

/**
 * The gun that brings an edge into the film's band soonest, and how to move it; null where no gun was measured. Takes a
 * second or two: off the page's thread.
 */
export function solvedHeat(ask: EdgeHeatAsk): SolvedHeat | null {
  const task = edgeTask(ask)
  if (!task) return null
  const plan = planSweep(task)
  if ('code' in plan) return { kind: 'none', code: plan.code }
  const { gun, sweep } = plan
  return {
    kind: 'plan',
    gun,
    holdS: sweep.holdS,
    paceMmS: sweep.speedMmS,
    passes: sweep.passes,
    gapS: sweep.gapS,
    beforeMm: -sweep.fromMm,
    pastMm: sweep.toMm - SOLVED_MM,
    peakC: { min: plan.minPeakC, max: plan.maxPeakC },
    inBand: plan.inBand,
  }
}

/** The task as the solver takes it; null where no gun of the shop was measured. */
export function edgeTask({ panel, film, guns }: EdgeHeatAsk): EdgeTask | null {
  const measured = measuredGuns(guns).map(({ id, airC, coefficient, sigmaMm }) => ({
    id,
    airC,
    coefficient,
    flux: 0,
    footprint: { shape: 'gaussian' as const, sigmaM: sigmaMm / MM },
  }))
  if (measured.length === 0) return null
  return {
    startC: ROOM.airC,
    layers: wallOf(panel.surface, film),
    panel: { lengthM: SOLVED_MM / MM, widthM: EDGE_STRIP_MM / MM },
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
