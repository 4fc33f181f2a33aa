import { formulaWithNumbers } from '../model/figure/figure'
import type { Reckoning } from './reckon'

/** A reckoning by the published contract `cuirass/reckoning@1`. */
export function reckoningJson(r: Reckoning) {
  return {
    format: 'cuirass/reckoning@1' as const,
    figures: [...r.figures.values()].map((f) => ({
      id: f.id,
      value: f.value,
      unit: f.unit,
      formula: f.formula,
      with_numbers: formulaWithNumbers(f),
      inputs: f.inputs,
      limit: f.limit,
      standing: f.standing,
      source: f.source,
      ...(f.settling ? { settling: true } : {}),
    })),
    pieces: r.pieces.map((p) => ({
      id: p.id,
      panel: p.panelId,
      width_mm: p.cutWidthMm,
      height_mm: p.cutHeightMm,
      film: p.filmId,
      turn: p.turn,
    })),
    findings: r.findings.map((f) => ({
      id: f.id,
      code: f.code,
      level: f.level,
      stage: f.stage,
      panel: f.panelId,
      facts: f.facts,
      figure: f.figureId,
      limit: f.limit,
      ways_out: f.waysOut.map((w) => ({ code: w.code, becomes: w.becomes, facts: w.facts, change: w.change })),
    })),
  }
}
