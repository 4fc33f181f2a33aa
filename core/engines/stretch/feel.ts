import { nth } from '../../kit/known'
import type { FilmSheet } from '../../model/film/schema'
import type { Method } from '../../model/method/schema'
import type { PieceChoice } from '../../model/plan/schema'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Panel } from '../../model/vehicle/schema'
import { FILM_FEEL, SHIFTING_FINISHES, type FilmFeel } from './feel-data'
import { shrinkCapacity, sizeAfterHeat } from './pre-stretch'
import type { SolvedStretch } from '../../model/catalogue/solved-stretch'
import { areaOutlines } from './area-outlines'
import { spotsOver } from './spots'
import type { SurfaceMap } from './surface-map'

export const BANDS = ['slight', 'fine', 'post_heat', 'past_limit', 'wrinkles'] as const
export type Band = (typeof BANDS)[number]

/** What film feels once it lies, triangle by triangle. Fractions. */
export interface Feel {
  /** Stretch that the film has taken, what relaxing or its own memory gave back already off. */
  taken: Float64Array
  /** Of it, what still pulls when heat has done its work: after post-heat, and with none. */
  residual: { heated: Float64Array; cold: Float64Array }
  band: Uint8Array
  /** Area in each band, mm². */
  areaMm2: number[]
  worst: number
  mean: number
  /** Where its look changes, mm². */
  lookMm2: number
  look: FilmFeel['look']
  lookOver: number | null
}

/** Squeeze past what heat can shrink is a wrinkle; so is more than this where nothing shrinks. */
const WRINKLE = 0.002

/**
 * Stretch as the film feels it. *Relax first* takes the roll's residue out along the roll before laying, so that much
 * less of the stretch in that direction counts; *pre-stretch* counts by what heat leaves of it, against the sheet as
 * made. Bands: hardly stretched, fine, to be post-heated, past the film's limit, wrinkles. `limit` overrides the film's
 * own.
 */
export function feelOf({
  map,
  panel,
  film,
  choice,
  method,
  limit = film.stretchLimit,
}: {
  map: SurfaceMap
  panel: Panel
  film: FilmSheet
  choice: PieceChoice
  method: Method
  limit?: number | undefined
}): Feel {
  const residue = method.tension === 'relax_first' ? film.rollResidue : 0
  const kept = sizeAfterHeat(choice.preStretch, film)
  const wrinklesOver = shrinkCapacity(choice.preStretch, film) + WRINKLE
  const count = map.stretch.length
  const taken = new Float64Array(count)
  const band = new Uint8Array(count)
  const areaMm2 = BANDS.map(() => 0)
  // The roll runs up a standing panel, and along one that must shrink lengthwise.
  const facts = PANEL_FACTS[panel.kind]
  const roll = facts.rollAlongWidth || facts.sameWayUp ? 0 : Math.PI / 2
  const own = FILM_FEEL[film.kind]
  const look: FilmFeel['look'] = own.look === 'gloss' && SHIFTING_FINISHES.includes(film.finish) ? 'hue' : own.look
  let [worst, lookMm2, sum, whole] = [0, 0, 0, 0]
  for (let t = 0; t < count; t++) {
    const felt =
      residue > 0
        ? relaxed(1 + nth(map.stretch, t), 1 - nth(map.squeeze, t), nth(map.direction, t) - roll, residue)
        : 1 + nth(map.stretch, t)
    const s = Math.max(0, felt * kept - 1)
    taken[t] = s
    const a = nth(map.area, t)
    // Film that was stretched before it was laid shrinks by so much more before it wrinkles.
    const wrinkles = nth(map.squeeze, t) > wrinklesOver
    const b = wrinkles ? 4 : s > limit ? 3 : s > film.postHeatOver ? 2 : s > film.postHeatOver / 2 ? 1 : 0
    band[t] = b
    areaMm2[b] = (areaMm2[b] as number) + a
    worst = Math.max(worst, s)
    sum += s * a
    whole += a
    if (own.changesOver !== null && s > own.changesOver) lookMm2 += a
  }
  return {
    taken,
    band,
    areaMm2,
    worst,
    mean: whole > 0 ? sum / whole : 0,
    lookMm2,
    look,
    lookOver: own.changesOver,
    residual: { heated: taken.map((s) => s * own.memoryLeft), cold: taken },
  }
}

/**
 * Greatest stretch of film whose natural length along the roll is shorter by `residue` than it was cut: λ1, λ2 of the
 * map, λ1 at `angle` to the roll.
 */
export function relaxed(l1: number, l2: number, angle: number, residue: number): number {
  // M = FᵀF in the roll's frame, then scaled along the roll on both sides.
  const [c, s, k] = [Math.cos(angle), Math.sin(angle), 1 - residue]
  const a = (l1 * l1 * c * c + l2 * l2 * s * s) * k * k
  const b = (l1 * l1 - l2 * l2) * s * c * k
  const d = l1 * l1 * s * s + l2 * l2 * c * c
  return Math.sqrt((a + d) / 2 + Math.hypot((a - d) / 2, b))
}

const POST_HEAT = BANDS.indexOf('post_heat')
const PAST_LIMIT = BANDS.indexOf('past_limit')

/** What is kept of a map once it is solved. */
export function solvedOf(map: SurfaceMap, feel: Feel): SolvedStretch {
  const [, , heat = 0, past = 0, wrinkles = 0] = feel.areaMm2
  const [spot] = spotsOver({ ...map, stretch: feel.taken }, feel.worst * 0.8)
  return {
    worst: feel.worst,
    areaMm2: map.report.area_mm2,
    toPostHeatMm2: heat + past,
    overMm2: past,
    wrinklesMm2: wrinkles,
    triangles: map.report.triangles,
    spot: spot ? { row: spot.row, column: spot.column, stretch: spot.stretch } : null,
    toPostHeat: areaOutlines(map, (t) => feel.band[t] === POST_HEAT || feel.band[t] === PAST_LIMIT).map((ring) =>
      ring.map((p): [number, number] => [p.x, p.y]),
    ),
  }
}
