import { EDGE_STRIP_MM, ROOM, SAFE_C, type HeatSource } from '../../model/heat/heat-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Panel } from '../../model/vehicle/schema'
import { sweepHeat } from '../../solve/heat/sweep'
import type { SweepFineness } from '../../solve/heat/sweep-model'
import { wallOf } from './wall'

/** How a source is moved along an edge: to be carried out as it stands. mm, mm/s, s. */
export interface SourceSweep {
  beforeMm: number
  pastMm: number
  paceMmS: number
  passes: number
  holdS: number
  gapS: number
}
export interface PictureAsk {
  surface: Panel['surface']
  film: Pick<FilmSheet, 'thicknessUm' | 'postHeatC' | 'heatLimitC'>
  /** Two where films lap. */
  films: 1 | 2
  /** Of the vehicle before the gun comes, °C. */
  startC: number
  source: HeatSource
  sweep: SourceSweep
  lengthMm: number
}

/** What one sweep of a source does to a strip of panel along its edge. */
export interface HeatPicture {
  /** The hottest that each place became, °C, row by row from the edge's middle line outwards. */
  grid: { xMm: number[]; yMm: number[]; peakC: number[] }
  /** Film and panel's back in the middle of the edge, °C by second. */
  curve: { tS: number[]; filmC: number[]; backC: number[] }
  peakC: { min: number; max: number }
  /** Share of the edge whose peak lies in the film's range. */
  inBand: number
  /** The whole edge, s. */
  seconds: number
  /** After the gun is away: until the middle may be lifted, and touched, s; null: not within what was followed. */
  coolS: { lift: number | null; touch: number | null }
}

/** Longer edges go on at the same pace: so much of one is looked at, mm. */
const LOOKED_AT_MM = 600
const COLUMNS = 25
const ROWS_MM = Array.from({ length: 10 }, (_, i) => i * 11)
/** Some tenths of a kelvin: as much as a drawing shows. */
const DRAWN: SweepFineness = { cells: { along: 2.6, across: 2.2 }, move: 0.7, growth: 0.2, least: 4, sameC: 0.08 }
/** Followed so long after the source is away, s. */
const COOL_S = 300
const CURVE_POINTS = 160
const MM = 1000

/** Errors: none; any sweep gives a picture. Takes a second or two: off the page's thread. */
export function heatPicture(ask: PictureAsk): HeatPicture {
  const { source, sweep, film } = ask
  const lengthMm = Math.min(LOOKED_AT_MM, ask.lengthMm)
  const layers = wallOf(ask.surface, film, ask.films)
  const backM = layers.reduce((sum, l) => sum + l.thicknessM, 0)
  const passS = sweep.holdS + (sweep.beforeMm + lengthMm + sweep.pastMm) / sweep.paceMmS
  const heatS = sweep.passes * passS + (sweep.passes - 1) * sweep.gapS
  const middleM = EDGE_STRIP_MM / 2 / MM
  const xMm = Array.from({ length: COLUMNS }, (_, i) => (lengthMm * i) / (COLUMNS - 1))
  const tS = Array.from({ length: CURVE_POINTS }, (_, i) => (heatS + COOL_S) * (i / (CURVE_POINTS - 1)) ** 1.7 || 0)
  const places = ROWS_MM.flatMap((y) => xMm.map((x) => ({ xM: x / MM, yM: middleM + y / MM, depthM: 0 })))
  const middle = { xM: lengthMm / 2 / MM, yM: middleM }
  const result = sweepHeat(
    {
      startC: ask.startC,
      layers,
      panel: { lengthM: lengthMm / MM, widthM: EDGE_STRIP_MM / MM },
      room: { airC: ROOM.airC, coefficient: ROOM.front, flux: 0 },
      back: { airC: ROOM.airC, coefficient: ROOM.behind, flux: 0 },
      radiation: null,
      gun: { ...source, footprint: { shape: 'gaussian', sigmaM: source.sigmaMm / MM } },
      sweep: {
        yM: middleM,
        fromMm: -sweep.beforeMm,
        toMm: lengthMm + sweep.pastMm,
        speedMmS: sweep.paceMmS,
        passes: sweep.passes,
        returns: 'alternate',
        holdS: sweep.holdS,
        gapS: sweep.gapS,
      },
      coolS: COOL_S,
      timesS: tS,
      probes: [{ ...middle, depthM: 0 }, { ...middle, depthM: backM }, ...places],
      thresholdsC: [SAFE_C.lift, SAFE_C.touch],
      windowC: [film.postHeatC.min, Math.min(film.postHeatC.max, film.heatLimitC)],
      windowDepthM: 0,
    },
    DRAWN,
  )
  const [front, behind, ...rest] = result.probes
  const cooled = (c: number): number | null => {
    const at = front?.crossings.find((x) => x.c === c)
    if (!at || at.lastAboveS === null) return 0
    return (front?.finalC ?? 0) >= c ? null : Math.max(0, at.lastAboveS - result.heatEndS)
  }
  return {
    grid: { xMm, yMm: ROWS_MM, peakC: rest.map((p) => p.peakC) },
    curve: { tS, filmC: front?.tempsC ?? [], backC: behind?.tempsC ?? [] },
    peakC: { min: result.edge.minPeakC, max: result.edge.maxPeakC },
    inBand: result.edge.inWindowFraction ?? 0,
    seconds: heatS + (sweep.passes * (ask.lengthMm - lengthMm)) / sweep.paceMmS,
    coolS: { lift: cooled(SAFE_C.lift), touch: cooled(SAFE_C.touch) },
  }
}
