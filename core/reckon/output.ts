import { pointWindow } from '../engines/heat/point-window'
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
    pieces: r.laid.map((p) => ({
      id: p.id,
      panel: p.panelId,
      width_mm: p.cutWidthMm,
      height_mm: p.cutHeightMm,
      film: p.filmId,
      turn: p.turn,
    })),
    ...edgesJson(r),
    points: pointsJson(r),
    steps: stepsJson(r),
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

/** Heat points with their windows, counted from the laying of their piece. */
function pointsJson(r: Reckoning) {
  const { films, ledger, now } = r.parts
  const filmOf = new Map(r.laid.map((p) => [p.id, films.get(p.filmId)]))
  return r.points.map((p) => {
    const window = pointWindow(p, filmOf.get(p.pieceId), ledger, now)
    return {
      id: p.id,
      piece: p.pieceId,
      panel: p.panelId,
      kind: p.kind,
      length_mm: p.lengthMm,
      target_c: p.range,
      limit_c: p.limitC,
      due_from: window.from,
      due_until: window.until,
      state: window.state,
    }
  })
}

/** Edges and corners as they are decided, and what they use up. */
const edgesJson = (r: Reckoning) => ({
  edges: r.edges.edges.map((e) => ({
    piece: e.pieceId,
    panel: e.panelId,
    edge: e.edgeId,
    meets: e.meets,
    length_mm: e.lengthMm,
    leave_mm: e.leaveMm,
    cut: e.cut,
    blade_deg: e.bladeDeg,
    tuck_mm: e.tuckMm,
    stroke_mm: e.strokeMm,
    warm_before_cut: e.warmBeforeCut,
    before_cut_wait_min: e.waitMin,
    order: e.order,
    heat: e.heat,
    tapes: e.tapes.map((t) => ({ kind: t.kind, length_mm: t.lengthMm })),
    why: e.why,
  })),
  corners: r.edges.corners.map((c) => ({
    piece: c.pieceId,
    panel: c.panelId,
    between: c.between,
    radius_mm: c.radiusMm,
    angle_deg: c.angleDeg,
    leave_mm: c.leaveMm,
    method: c.method,
    squeeze: c.squeeze,
    shrinks: c.shrinks,
    pull: c.pull,
    limit: c.limit,
    why: c.why,
  })),
  consumables: r.edges.consumables.map((c) => ({
    id: c.id,
    kind: c.kind,
    ...('lengthMm' in c ? { length_mm: c.lengthMm } : 'areaMm2' in c ? { area_mm2: c.areaMm2 } : { count: c.count }),
  })),
})

const stepsJson = (r: Reckoning) =>
  r.steps.map((s) => ({
    id: s.id,
    code: s.code,
    panel: s.panelId,
    people: s.people,
    minutes: s.minutes,
    wait_min: s.waitMin,
    from: r.schedule?.times.get(s.id)?.from ?? null,
    to: r.schedule?.times.get(s.id)?.to ?? null,
    state: s.state,
    started_at: s.startedAt,
    done_at: s.doneAt,
  }))
