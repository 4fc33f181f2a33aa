import { describe, expect, it } from 'vitest'
import { Plan } from '@/core/model/plan/schema'
import { CORNER_METHODS } from '@/core/engines/edge/corner-plan'
import { TAPE_KINDS } from '@/core/engines/edge/edge-plan'
import { CUT_RULES, CUT_SIDES, SEAL_TUCK } from '@/core/model/edge/cut-rules'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { drawnPastEdge, sectionMarks } from '@/web/charts/section-marks'
import { word } from '@/web/words/names'
import { catalogue } from '../fixtures/plans'

const edges = DEMO_JOBS.flatMap(({ make }) => reckon(Plan.parse(make()), catalogue, []).edges.edges)

describe('a section through an edge', () => {
  it('is true to scale: film past the edge and gap read back as they are, to 0.1 mm', () => {
    expect(edges.length).toBeGreaterThan(150)
    for (const edge of edges) {
      const marks = sectionMarks(edge)
      if (edge.cut !== 'filament') expect(Math.abs(drawnPastEdge(marks) - edge.leaveMm)).toBeLessThan(0.1)
      const gap = marks.measures.find((m) => m.id === 'gap')
      if (gap && !marks.broken) expect(Math.abs(gap.to.x - gap.from.x - edge.gapMm)).toBeLessThan(0.1)
    }
  })

  it('ends its film where the blade is, and draws nothing outside of its frame', () => {
    for (const edge of edges) {
      const { film, blade, bodies, view } = sectionMarks(edge)
      if (blade) expect(blade[1]).toEqual(film[film.length - 1])
      for (const { y } of [...film, ...bodies.flatMap((b) => b.points)]) {
        expect(y).toBeGreaterThanOrEqual(view.y)
        expect(y).toBeLessThanOrEqual(view.y + view.h)
      }
    }
  })

  it('says when a gap is drawn shorter than it is', () => {
    const [edge] = edges
    if (!edge) throw new Error('no edge')
    expect(sectionMarks({ ...edge, gapMm: 500 }).broken).toBe(true)
    expect(sectionMarks({ ...edge, gapMm: 4 }).broken).toBe(false)
  })
})

it('every cut, tape, method and reason has its words', () => {
  const said = (list: string, codes: readonly string[]) => codes.filter((code) => word(list, code) === code)
  expect(
    said(
      'cutSide',
      CUT_SIDES.filter((c) => c !== 'flush'),
    ),
  ).toEqual([])
  expect(said('supply', [...TAPE_KINDS, 'primer', 'blades', 'felts', 'liner'])).toEqual([])
  expect(
    said(
      'cornerMethod',
      CORNER_METHODS.filter((c) => c !== 'seam'),
    ),
  ).toEqual([])
  expect(said('edgeWhy', [...CUT_RULES.map((r) => r.id), ...SEAL_TUCK.map((s) => s.code), 'front_deeper'])).toEqual([])
})
