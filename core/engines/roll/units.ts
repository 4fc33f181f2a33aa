import type { Plan } from '../../model/plan/schema'
import type { PackItem } from '../../solve/pack'
import type { Piece } from '../pieces/pieces'

/** What is laid as one rectangle: a piece, or two that are cut side by side from one length. */
export interface Unit {
  item: PackItem
  members: { piece: Piece; xMm: number }[]
}

const itemOf = (p: Piece): PackItem => ({
  id: p.id,
  copy: 1,
  width: p.acrossMm,
  length: p.alongMm,
  turn: p.turn,
  group: null,
})

/** Pieces as items to be packed. Pairs of the plan that fit side by side across `widthMm` are one item. */
export function itemsFor(
  plan: Plan,
  pieces: readonly Piece[],
  { widthMm = Infinity, apart = new Set<string>() }: { widthMm?: number; apart?: ReadonlySet<string> } = {},
): Unit[] {
  const gap = plan.layout.gapMm
  const paired = new Map<string, Unit>()
  const gone = new Set<string>()
  for (const [a, b] of plan.layout.together) {
    const two = [a, b].map((id) => pieces.filter((p) => p.panelId === id))
    const [p, q] = [two[0]?.[0], two[1]?.[0]]
    if (
      !p ||
      !q ||
      two.some((l) => l.length !== 1) ||
      apart.has(p.id) ||
      apart.has(q.id) ||
      gone.has(p.id) ||
      gone.has(q.id)
    )
      continue
    const width = p.acrossMm + gap + q.acrossMm
    if (width > widthMm + 1e-6) continue
    gone.add(p.id).add(q.id)
    paired.set(p.id, {
      item: {
        id: `${p.id}+${q.id}`,
        copy: 1,
        width,
        length: Math.max(p.alongMm, q.alongMm),
        turn: 'fixed',
        group: null,
      },
      members: [
        { piece: p, xMm: 0 },
        { piece: q, xMm: p.acrossMm + gap },
      ],
    })
  }
  return pieces.flatMap((piece) => {
    const pair = paired.get(piece.id)
    if (pair) return [pair]
    return gone.has(piece.id) ? [] : [{ item: itemOf(piece), members: [{ piece, xMm: 0 }] }]
  })
}
