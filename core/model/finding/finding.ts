import type { FigureLimit } from '../figure/figure'
import type { PlanChange } from '../plan/plan-change'
import type { FindingCode, FindingFacts, NoFacts, WayOutCode, WayOutFacts } from './finding-facts'
import type { Stage } from './stage'

/** One answer to a finding: a change of the plan as data. A union over its codes, each with its own facts. */
export type WayOut = {
  [C in WayOutCode]: {
    code: C
    change: PlanChange
    /** What the figure at fault becomes; null where it fits then. */
    becomes: number | null
    facts: WayOutFacts[C]
  }
}[WayOutCode]

/** stop: do not go on · warn: go on knowingly · note: good to know. */
export type FindingLevel = 'stop' | 'warn' | 'note'

interface FindingPlace {
  /** Of the finding, the same as long as it is about the same thing. Default: code, and panel where it has one. */
  id: string
  panelId: string | null
  figureId: string | null
  limit: FigureLimit | null
  waysOut: WayOut[]
}

/** What is said, without where: a union over the codes, each with its own facts. */
export type Said<C extends FindingCode = FindingCode> = {
  [K in C]: { code: K; level: FindingLevel; facts: FindingFacts[K] }
}[C]

export type Finding<C extends FindingCode = FindingCode> = Said<C> & FindingPlace & { stage: Stage }

/** Where it is, and its facts: they may be left out only for a code that has none. */
export type FindingDetails<C extends FindingCode, Given extends keyof never = never> = Partial<FindingPlace> &
  (keyof Omit<FindingFacts[C], Given> extends never ? { facts?: NoFacts } : { facts: Omit<FindingFacts[C], Given> })
/** The last argument of whatever makes a finding. */
export type DetailsOf<C extends FindingCode, Given extends keyof never = never> = keyof Omit<
  FindingFacts[C],
  Given
> extends never
  ? [details?: FindingDetails<C, Given>]
  : [details: FindingDetails<C, Given>]

/** A finding from what is said and where. */
export function placed(said: Said, stage: Stage, place: Partial<FindingPlace> = {}): Finding {
  const panelId = place.panelId ?? null
  return {
    ...said,
    id: place.id ?? (panelId ? `${said.code}/${panelId}` : said.code),
    stage,
    panelId,
    figureId: place.figureId ?? null,
    limit: place.limit ?? null,
    waysOut: place.waysOut ?? [],
  }
}

export function finding<C extends FindingCode>(
  code: C,
  level: FindingLevel,
  stage: Stage,
  ...[details]: DetailsOf<C>
): Finding {
  const { facts = {}, ...place } = (details ?? {}) as Partial<FindingPlace> & { facts?: object }
  // Code and facts belong together by the signature; inside, the compiler cannot follow a code that is still open.
  return placed({ code, level, facts } as Said, stage, place)
}
