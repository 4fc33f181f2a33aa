import { depthModes, type DepthModes } from './depth-modes'
import type { DepthMesh } from './layers'
import type { SweepRun } from './sweep-model'

/** What room and back alone do to a panel that began at another temperature than theirs: by row, and behind. */
export interface UniformPart {
  row: (row: number, atS: number) => number
  back: (atS: number) => number
}

export function uniformPart(
  run: SweepRun,
  mesh: DepthMesh,
  exchange: { front: number; back: number },
  rows: { read: readonly Float64Array[]; back: Float64Array },
): UniformPart {
  const { room, startC, back: behind } = run
  const all = [...rows.read, rows.back]
  const front = depthModes(mesh, 0, exchange, { rows: all })
  const rear = depthModes(mesh, 0, exchange, { rows: all, enters: mesh.depths.length - 1 })
  const parts = [
    { modes: front, flux: room.coefficient * (room.airC - startC) },
    { modes: rear, flux: behind.coefficient * (behind.airC - startC) },
  ]
  const at = (r: number, atS: number): number =>
    parts.reduce((sum, p) => (p.flux === 0 ? sum : sum + p.flux * afterConstant(p.modes, r, atS)), 0)
  return { row: at, back: (atS: number) => at(rows.read.length, atS) }
}

/** What a row reads after one unit of flux was given all the time. */
export const afterConstant = (modes: DepthModes, row: number, atS: number): number =>
  modes.rates.reduce(
    (sum, rate, j) => sum + modes.weights[row][j] * (rate * atS < 1e-9 ? atS : -Math.expm1(-rate * atS) / rate),
    modes.atOnce[row],
  )
