import type { FilmSheet } from '../../model/film/schema'
import { learnedRedo, NO_RECORD } from '../../model/log/learned'
import type { ShopRecord } from '../../model/log/shop-record'
import type { Plan } from '../../model/plan/schema'

/** Shares of pieces done twice; assumed, no source. With enough cases a shop's own share takes the place of the second. */
const PAST_LIMIT = 0.35
const NEAR_LIMIT = 0.15
const NEAR_FROM = 0.8
const STIFF_FILM = 0.1
/** From this pace factor on a wrapper is new to the work. */
const NEW_HAND_FROM = 2.5
const NEW_HAND = 1.6

/**
 * Chance [–] that a piece of a panel is laid twice: how near its stretch comes to the film's limit, stiff film, a new
 * hand. Near the limit it is how often this shop had to lay such places again, once it has enough cases.
 */
export function riskOf(
  plan: Plan,
  film: FilmSheet,
  worstStretch: number | null,
  record: ShopRecord = NO_RECORD,
): number {
  const load = worstStretch === null || film.stretchLimit <= 0 ? 0 : worstStretch / film.stretchLimit
  const near = learnedRedo(record, 'over_ten_percent')?.share ?? NEAR_LIMIT
  const stretch = load > 1 ? PAST_LIMIT : load > NEAR_FROM ? near : 0
  const stiff = film.kind === 'hybrid_chrome' && load > 0.3 ? STIFF_FILM : 0
  const hand = plan.runSheet.paceFactor >= NEW_HAND_FROM ? NEW_HAND : 1
  return Math.min(0.9, (stretch + stiff) * hand)
}
