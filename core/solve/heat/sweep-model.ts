import { footprintScale, type Footprint } from './footprint'
import type { Sweep } from './gun-path'
import type { Crossing } from './history'
import { depthMesh, nodeAt, radiatedSlope, type DepthMesh, type Exchange, type Layer, type Radiation } from './layers'
import type { LineSummary } from './line-summary'
import { waveModes, type WaveModes } from './propagator'
import { sideOf, type Side } from './waves'

export interface SweepRun {
  startC: number
  layers: readonly Layer[]
  panel: { lengthM: number; widthM: number }
  room: Exchange
  back: Exchange
  radiation: Radiation | null
  gun: Exchange & { footprint: Footprint }
  sweep: Sweep & { yM: number }
  coolS: number
  timesS: readonly number[]
  probes: readonly { xM: number; yM: number; depthM: number }[]
  thresholdsC: readonly number[]
  windowC: readonly [number, number] | null
  windowDepthM: number
}

export interface SweepResult {
  /** The hottest that each cell along the edge became, °C, and how long it was at the window's begin or over it, s. */
  peaks: Float64Array
  aboveS: Float64Array
  heatEndS: number
  endS: number
  probes: { tempsC: number[]; peakC: number; peakS: number; finalC: number; crossings: readonly Crossing[] }[]
  edge: LineSummary
  /** J over the whole panel, counted into it. */
  energy: { gun: number; room: number; back: number; stored: number }
}

/** How fine a sweep is solved. */
export interface SweepFineness {
  /** Cells for each sigma or radius of the footprint, along and across the edge. */
  cells: { along: number; across: number }
  /** A step moves the gun by this share of the footprint's scale, at most. */
  move: number
  /** Of the depth. */
  growth: number
  least: number
  /** Two answers for the flux of a step that part by less than this are one, °C. */
  sameC: number
}
export const FINE: SweepFineness = { cells: { along: 5, across: 3.5 }, move: 0.35, growth: 0.08, least: 7, sameC: 6e-3 }
/** An edge of a disc is sharp: it wants more cells. */
const DISC_TIMES = { along: 3, across: 2 }
/** Within some tenths of a kelvin. */
export const MEDIUM: SweepFineness = { cells: { along: 4, across: 3 }, move: 0.5, growth: 0.12, least: 5, sameC: 0.02 }
/** Enough to see which of two sweeps is the better one. */
export const ROUGH: SweepFineness = { cells: { along: 1.8, across: 1.6 }, move: 0.9, growth: 0.4, least: 2, sameC: 0.2 }

/** The shortest time that the depth follows, s. */
const SHORTEST_S = 1.5
const MOST_NODES = 40_000
const LEAST_CELLS = 6

/** A gun along the middle of a panel heats both halves alike: one is solved. Places that count as the middle, m. */
const MIDDLE_TOLERANCE_M = 1e-7
const alongMiddle = (run: PanelOf): boolean => Math.abs(run.sweep.yM - run.panel.widthM / 2) < MIDDLE_TOLERANCE_M

/** What of a run does not hang on the gun's path: runs on one panel with guns of one footprint share it. */
export interface PreparedPanel {
  x: Side
  y: Side
  /** Depths that are read, m; the first is the surface. */
  depths: number[]
  modes: WaveModes
}

type PanelOf = Pick<
  SweepRun,
  'layers' | 'panel' | 'room' | 'back' | 'radiation' | 'startC' | 'probes' | 'windowDepthM'
> & { gun: { footprint: Footprint }; sweep: { yM: number } }

export function preparePanel(run: PanelOf, fineness: SweepFineness): PreparedPanel {
  const depths = [...new Set([0, run.windowDepthM, ...run.probes.map((p) => p.depthM)])]
  const mesh = depthMesh(run.layers, depths, { shortestS: SHORTEST_S, ...fineness })
  const sides = gridOf(run, fineness)
  const front = run.room.coefficient + (run.radiation ? radiatedSlope(run.radiation, run.startC) : 0)
  const rows = depths.map((d) => nodeRow(mesh, nodeAt(mesh, d)))
  return { ...sides, depths, modes: waveModes(mesh, sides, { front, back: run.back.coefficient }, rows) }
}

/** The row that reads one node. */
export const nodeRow = (mesh: DepthMesh, node: number): Float64Array =>
  Float64Array.from(mesh.depths, (_, i) => (i === node ? 1 : 0))

function gridOf(run: PanelOf, { cells }: SweepFineness): { x: Side; y: Side } {
  const { footprint } = run.gun
  const half = alongMiddle(run)
  const [lengthM, widthM] = [run.panel.lengthM, run.panel.widthM / (half ? 2 : 1)]
  const scale = footprintScale(footprint)
  const times = footprint.shape === 'disc' ? DISC_TIMES : { along: 1, across: 1 }
  const count = (sideM: number, perScale: number) => Math.max(LEAST_CELLS, Math.ceil((sideM / scale) * perScale))
  const nx = count(lengthM, cells.along * times.along)
  const ny = count(widthM, cells.across * times.across)
  const coarser = Math.max(1, Math.sqrt((nx * ny) / MOST_NODES))
  return { x: sideOf(lengthM, Math.ceil(nx / coarser)), y: sideOf(widthM, Math.ceil(ny / coarser), half) }
}
