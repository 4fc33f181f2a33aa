import { USUAL_HANDLING, type FilmSheet } from './schema'

type Raw = Record<string, unknown>
const isThing = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value)
const most = (span: unknown): number => (isThing(span) && typeof span.max === 'number' ? span.max : 0)

/** Heat that a film bears past its hottest range, K, where its sheet does not say. Assumed. */
const PAST_RANGE_K = 15
/**
 * Pre-stretch by kind where a sheet does not say: 20-30 % for cast film, none for chrome. Common practice, no source.
 */
const FORMED = { cold: 0.2, warm: 0.3 }
const NOT_AT_ALL = { cold: 0, warm: 0 }
/** How much of a stretch heat takes back: nearly all in cast film, about half in rolled-out film. Assumed. */
const RECOVERS: Record<FilmSheet['kind'], number> = {
  cast: 0.9,
  colour_shift: 0.9,
  printed_cast: 0.85,
  calendered: 0.5,
  sheet_goods: 0.3,
  hybrid_chrome: 0,
}

/**
 * What a sheet written before these fields were there is taken to say of them: by its kind, each marked with its
 * standing.
 */
export function upgradeSheet(raw: unknown): unknown {
  if (!isThing(raw)) return raw
  const kind = (typeof raw.kind === 'string' && raw.kind in RECOVERS ? raw.kind : 'calendered') as FilmSheet['kind']
  const formed = kind === 'cast' || kind === 'colour_shift' || kind === 'printed_cast'
  const added: Raw = {}
  const standings: Raw = {}
  const fill = (field: string, value: unknown, standing: string) => {
    if (raw[field] !== undefined || field in added) return
    added[field] = value
    standings[field] = standing
  }
  fill('heatLimitC', Math.min(250, Math.max(40, most(raw.postHeatC), most(raw.overlapC)) + PAST_RANGE_K), 'assumed')
  fill('preStretchMax', formed ? FORMED : NOT_AT_ALL, 'common_practice')
  fill('recovers', RECOVERS[kind], 'assumed')
  fill('longLapMm', kind === 'colour_shift' ? 13 : 3, 'common_practice')
  fill('lamination', kind === 'printed_cast' ? 'to_be_laminated' : 'none', 'assumed')
  fill('conforms', formed ? 'complex' : kind === 'hybrid_chrome' ? 'moderate' : 'flat', 'assumed')
  for (const [field, value] of Object.entries(USUAL_HANDLING)) fill(field, value, 'assumed')
  if (Object.keys(added).length === 0) return raw
  return { ...raw, ...added, standings: { ...standings, ...(isThing(raw.standings) ? raw.standings : {}) } }
}
