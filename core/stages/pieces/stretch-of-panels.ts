import { panelStretch } from '../../engines/stretch/panel-stretch'
import type { Catalogue } from '../../model/catalogue/catalogue'
import type { FilmSheet } from '../../model/film/schema'
import type { Figure } from '../../model/figure/figure'
import type { Finding } from '../../model/finding/finding'
import type { Plan } from '../../model/plan/schema'
import { stretchFindings } from './stretch-findings'

interface StretchInputs {
  plan: Plan
  films: ReadonlyMap<string, FilmSheet>
  solved: Catalogue['solved']
  scans: Catalogue['scans']
}

/** The stretch of every wrapped panel that has a film. */
export function stretchOfPanels({ plan, films, solved, scans }: StretchInputs) {
  const figures: Figure[] = []
  const findings: Finding[] = []
  const worst: Figure[] = []
  const byPanel = new Map<string, number>()
  for (const panel of plan.panels) {
    const film = films.get(panel.filmId ?? plan.film.mainId ?? '')
    if (!panel.wrap || !film) continue
    const stretch = panelStretch(plan, panel, film, { solved, scan: scans?.[panel.id] })
    figures.push(...stretch.all)
    findings.push(...stretchFindings(plan, panel, film, stretch))
    worst.push(stretch.worst)
    byPanel.set(panel.id, Number(stretch.worst.value))
  }
  return { figures, findings, worst, byPanel }
}
