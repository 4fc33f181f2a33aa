import { FINE, preparePanel, type SweepFineness, type SweepResult, type SweepRun } from './sweep-model'
import { SweepSolver } from './sweep-solver'

/**
 * A source of hot air that moves along the edge of a layered panel, with heat spreading sideways. Sideways the field is
 * even waves (the panel's rim is insulated), each exact in depth and time; the air's share varies from place to place
 * and couples them, so each step is found by iteration on the nodes. Depth: finite volumes. Checked against closed forms
 * in test/core/heat.test.ts.
 */
export function sweepHeat(
  run: SweepRun,
  fineness: SweepFineness = FINE,
  panel = preparePanel(run, fineness),
): SweepResult {
  if (!panel.y.mirrored) return new SweepSolver(run, fineness, panel).run()
  const middleM = run.panel.widthM / 2
  const probes = run.probes.map((p) => ({ ...p, yM: Math.abs(p.yM - middleM) }))
  const half = { ...run, panel: { ...run.panel, widthM: middleM }, probes, sweep: { ...run.sweep, yM: 0 } }
  const result = new SweepSolver(half, fineness, panel).run()
  const { gun, room, back, stored } = result.energy
  return { ...result, energy: { gun: 2 * gun, room: 2 * room, back: 2 * back, stored: 2 * stored } }
}
