import type { FilmLayout } from '@/core/engines/roll/film-layout'

/** A roll of a layout as people call it. */
export function nameOf(layout: FilmLayout, rollId: string): string {
  const i = layout.rolls.findIndex((r) => r.id === rollId)
  const roll = layout.rolls[i]
  if (roll?.stock) return `${roll.stock.kind === 'rest' ? 'Rest' : 'Roll'} ${roll.stock.label}`
  return layout.film.kind === 'sheet_goods' ? `Sheet ${i + 1}` : `New roll${layout.rolls.length > 1 ? ` ${i + 1}` : ''}`
}
