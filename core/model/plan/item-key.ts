/**
 * What tells the items of a plan's lists apart: their id, or the panel, film or piece that they speak of; null for a
 * bare value.
 */
export function itemKey(item: unknown): string | null {
  if (typeof item !== 'object' || item === null) return null
  const { id, panelId, filmId, pieceId } = item as Record<string, unknown>
  const key = id ?? panelId ?? filmId ?? pieceId
  return typeof key === 'string' ? key : null
}
