import type { FilmSheet } from '../../model/film/schema'
import type { Said } from '../../model/finding/finding'
import type { School } from '../../model/method/method-data'
import type { Method } from '../../model/method/schema'

type VetoCode =
  'torch_gloss_only' | 'veto_tack' | `veto_${'edges' | 'too_warm' | 'too_cool' | 'nothing_to_relax' | 'slack_stays'}`

/** Film that shrinks less leaves its slack as wrinkles. Assumed. */
const SLACK_SHRINKS = 0.03

/** What is ruled out: a choice of the method, with the reason. */
export interface Veto {
  field: School
  value: string
  said: Said<VetoCode>
}

/** What a film's own sheet rules out of a method, and why. The sheet wins over the school. */
export function vetoes(method: Method, film: FilmSheet): Veto[] {
  const out: Veto[] = []
  const about = { film: film.name }
  const ruleOut = (field: School, said: Omit<Said<VetoCode>, 'level'>) =>
    out.push({ field, value: String(method[field]), said: { ...said, level: 'warn' } as Said<VetoCode> })
  if (method.heatSource === 'torch' && film.finish !== 'gloss')
    ruleOut('heatSource', { code: 'torch_gloss_only', facts: about })
  if (method.edges !== 'film' && method.edges !== film.edgeOrder)
    ruleOut('edges', { code: 'veto_edges', facts: { ...about, order: film.edgeOrder } })
  if (method.layWarm === 'channel_65' && film.shapingC.max < 65)
    ruleOut('layWarm', { code: 'veto_too_warm', facts: { ...about, max_c: film.shapingC.max, want_c: 65 } })
  if (method.layWarm === 'warm_40' && film.shapingC.min > 40)
    ruleOut('layWarm', { code: 'veto_too_cool', facts: { ...about, min_c: film.shapingC.min, want_c: 40 } })
  if (method.liner === 'whole' && film.firstTack === 'high') ruleOut('liner', { code: 'veto_tack', facts: about })
  if (method.tension === 'relax_first' && film.rollResidue === 0)
    ruleOut('tension', { code: 'veto_nothing_to_relax', facts: about })
  if (method.tension === 'rim_shrunk' && film.heatShrink < SLACK_SHRINKS)
    ruleOut('tension', { code: 'veto_slack_stays', facts: { ...about, shrinks: film.heatShrink } })
  return out
}
