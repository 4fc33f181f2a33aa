import type { FilmSheet } from '../../model/film/schema'
import type { SolutionTables } from '../../model/catalogue/solution-tables'
import type { Lack } from '../../model/catalogue/solutions'
import { stretchKey } from '../../model/catalogue/stretch-key'
import { SCHOOLS } from '../../model/method/method-data'
import type { Method } from '../../model/method/schema'
import { choiceFor, filmOf } from '../../model/plan/piece-choice'
import type { Plan } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import { shrinkCapacity } from './pre-stretch'
import { stuckFirst } from './sticking-order'

type School = Pick<Method, 'order' | 'tension'>

/** One panel of a plan as it would be in a film and by a school: what its stretch is compared by. */
export interface Variant {
  film: FilmSheet
  school: School
  key: string
  /** Variants of one mark lie on the panel by one and the same map. */
  map: string
}

/** The plan with one panel in a film and all of it by a school. */
export const asVariant = (plan: Plan, panelId: string, { film, school }: Pick<Variant, 'film' | 'school'>): Plan => ({
  ...plan,
  method: { ...plan.method, ...school },
  film: { ...plan.film, sheets: [...plan.film.sheets.filter((s) => s.id !== film.id), film] },
  panels: plan.panels.map((p) => (p.id === panelId ? { ...p, filmId: film.id } : p)),
})

/**
 * What a panel's stretch may be compared with: every film of the rack, and every school of order and tension. The film
 * decides about the map only where some of it is stuck first: what is laid last then shrinks by what that film can.
 */
export function variantsOf(plan: Plan, panel: Panel, rack: readonly FilmSheet[], scan?: string): Variant[] {
  const own = filmOf(plan, panel)
  if (!own) return []
  const films = [own, ...rack.filter((f) => f.id !== own.id)]
  const orders = SCHOOLS.order as readonly Method['order'][]
  const tensions = SCHOOLS.tension as readonly Method['tension'][]
  return films.flatMap((film) =>
    orders
      // In another film the order of the plan is taken, whatever it is.
      .filter((order) => film === own || order === plan.method.order)
      .flatMap((order) =>
        tensions.map((tension): Variant => {
          const school = { order, tension }
          const varied = asVariant(plan, panel.id, { film, school })
          const { parts, along, preStretch } = choiceFor(plan, panel, film)
          const rest = shrinkCapacity(preStretch, film)
          return {
            film,
            school,
            key: stretchKey(varied, panel, film, scan),
            map: `${parts} by ${along}, ${stuckFirst(panel, order) ? `${order}/${rest}` : 'free'}`,
          }
        }),
      ),
  )
}

/** Keys of everything that the panels of a plan are compared by, their own stretch first. */
export const stretchKeysOf = (
  plan: Plan,
  rack: readonly FilmSheet[],
  scans: Readonly<Record<string, string>>,
): string[] => [
  ...new Set(
    plan.panels.filter((p) => p.wrap).flatMap((p) => variantsOf(plan, p, rack, scans[p.id]).map((v) => v.key)),
  ),
]

/** What comparisons of a settled plan still lack, one map at a time. */
export function comparisonLacks(
  plan: Plan,
  rack: readonly FilmSheet[],
  scans: Readonly<Record<string, string>>,
  { stretch, fault }: SolutionTables,
): Lack[] {
  return plan.panels
    .filter((p) => p.wrap)
    .flatMap((panel) => {
      const maps = new Map<string, Lack>()
      for (const { film, school, key, map } of variantsOf(plan, panel, rack, scans[panel.id]))
        if (!stretch[key] && !fault[key] && !maps.has(map))
          maps.set(map, { kind: 'stretch', key, of: panel.id, as: { filmId: film.id, ...school } })
      return [...maps.values()]
    })
}
