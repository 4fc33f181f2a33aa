import type { Point } from '../../kit/plane'
import { panelStretch } from '../../engines/stretch/panel-stretch'
import { waysKey } from '../../engines/stretch/ways-key'
import { keptFor, keptWith } from '../../kit/kept'
import type { SolvedStretch } from '../../model/catalogue/solved-stretch'
import type { Panel } from '../../model/vehicle/schema'
import type { Catalogue } from '../../model/catalogue/catalogue'
import type { Lack } from '../../model/catalogue/solutions'
import type { FilmSheet } from '../../model/film/schema'
import type { Figure } from '../../model/figure/figure'
import type { Finding } from '../../model/finding/finding'
import type { BesidePanels, Plan } from '../../model/plan/schema'
import { panelAreaMm2 } from '../../model/vehicle/outline'
import { stretchFindings } from './stretch-findings'

interface StretchInputs {
  plan: Plan
  beside: BesidePanels
  films: ReadonlyMap<string, FilmSheet>
  /** Of the rack: a way out may be another film. */
  rack: Catalogue['films']
  solutions: Catalogue['solutions']
  scans: Catalogue['scans']
}

type Known = Parameters<typeof panelStretch>[3]
const keptStretch = keptWith(
  (panel: Panel, { beside, film, ...known }: Known & { beside: BesidePanels; film: FilmSheet }) =>
    panelStretch(beside, panel, film, known),
)
const keptRings = keptFor((solved: SolvedStretch): Point[][] =>
  (solved.toPostHeat ?? []).map((ring) => ring.map(([x, y]) => ({ x, y }))),
)

/** The stretch of every wrapped panel that has a film, and what of it is to be solved still: the largest first. */
export function stretchOfPanels({ plan, beside, films, rack, solutions, scans }: StretchInputs) {
  const figures: Figure[] = []
  const findings: Finding[] = []
  const worst: Figure[] = []
  const byPanel = new Map<string, number>()
  const outlines = new Map<string, Point[][]>()
  const lacks: (Lack & { areaMm2: number })[] = []
  /** Solutions that the plan hangs on, there or not. */
  let wanted = 0
  for (const panel of plan.panels) {
    const film = films.get(panel.filmId ?? plan.film.mainId ?? '')
    if (!panel.wrap || !film) continue
    const stretch = keptStretch(panel, {
      beside,
      film,
      solved: solutions?.stretch,
      faults: solutions?.fault,
      scan: scans?.[panel.id],
    })
    const { key, solved, settling } = stretch
    const areaMm2 = panelAreaMm2(panel)
    wanted++
    if (settling) lacks.push({ kind: 'stretch', key, of: panel.id, areaMm2 })
    if (solutions && solved && solved.overMm2 + solved.wrinklesMm2 > 0) {
      const ofWays = waysKey(key, panel.id, rack)
      wanted++
      if (!solutions.ways[ofWays] && !solutions.fault[ofWays])
        lacks.push({ kind: 'ways', key: ofWays, of: panel.id, areaMm2: 0 })
    }
    figures.push(...stretch.all)
    findings.push(...stretchFindings(plan, panel, film, stretch))
    worst.push(stretch.worst)
    byPanel.set(panel.id, Number(stretch.worst.value))
    const rings = solved ? keptRings(solved) : []
    if (rings.length > 0) outlines.set(panel.id, rings)
  }
  lacks.sort((a, b) => b.areaMm2 - a.areaMm2)
  return {
    figures,
    findings,
    worst,
    byPanel,
    outlines,
    wanted,
    lacks: lacks.map(({ kind, key, of }): Lack => ({ kind, key, of })),
  }
}
