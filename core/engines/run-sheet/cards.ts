import { civilToMinutes } from '../../kit/civil'
import { groupedBy } from '../../kit/grouped'
import type { LogRow } from '../../model/log/schema'
import { isOnPanel } from './waits'
import type { Step } from './step'

/** What is done in one go, as the bay shows it: one step, or all that is done on one panel. */
export interface Card {
  /** The panel, or the step. */
  id: string
  panelId: string | null
  /** Panel steps in their order; else the one step. */
  parts: readonly Step[]
  state: 'to_do' | 'running' | 'done'
}

/** The planned steps of a job as cards, in their order: one panel is one card. */
export function cardsOf(planned: readonly Step[]): Card[] {
  const groups = groupedBy(planned, (s) => (isOnPanel(s) ? `panel:${s.panelId}` : s.id))
  return [...groups].map(([key, parts]): Card => {
    const onPanel = key.startsWith('panel:')
    return {
      id: onPanel ? key.slice('panel:'.length) : key,
      panelId: parts[0]?.panelId ?? null,
      parts,
      state: stateOf(parts),
    }
  })
}

function stateOf(parts: readonly Step[]): Card['state'] {
  if (parts.every((s) => s.state === 'done')) return 'done'
  return parts.some((s) => s.state !== 'to_do') ? 'running' : 'to_do'
}

/** Who works, and who began each step that was begun. */
export interface Hands {
  me: string
  beganBy: ReadonlyMap<string, string>
}

/** Who began each step, by the ledger. */
export const beganBy = (ledger: readonly LogRow[]): ReadonlyMap<string, string> =>
  new Map(ledger.flatMap((r) => (r.payload.kind === 'step_started' ? [[r.payload.stepId, r.by] as const] : [])))

/** Whoever began the newest part of a card; null where nobody did. */
export const whoIsAt = (card: Card, { beganBy }: Hands): string | null =>
  [...card.parts].reverse().flatMap((s) => beganBy.get(s.id) ?? [])[0] ?? null

/**
 * The card to begin with: what was begun last and is not done, else the first that nobody began. With `hands`, one's own
 * come first, and what somebody else is at comes last.
 */
export function currentCard(cards: readonly Card[], hands: Hands | null = null): Card | null {
  if (hands) {
    const others = cards.filter((c) => c.state === 'running' && whoIsAt(c, hands) !== hands.me)
    const own = currentCard(cards.filter((c) => !others.includes(c)))
    return own ?? currentCard(others)
  }
  const begun = (c: Card) => Math.max(...c.parts.map((s) => civilToMinutes((s.startedAt ?? '').slice(0, 16)) ?? 0))
  const running = cards.filter((c) => c.state === 'running')
  const [latest] = [...running].sort((a, b) => begun(b) - begun(a))
  return latest ?? cards.find((c) => c.state === 'to_do') ?? null
}

/** The part of a card that comes next: what runs, else the first that is not done. */
export const nextPart = (card: Card): Step | null =>
  card.parts.find((s) => s.state === 'running') ?? card.parts.find((s) => s.state === 'to_do') ?? null
