import type { FilmLayout } from '../../engines/roll/film-layout'
import type { StageVerdict } from '../../model/finding/stage'

export function rollState(layouts: readonly FilmLayout[]): StageVerdict {
  if (layouts.length === 0) return { state: 'missing', why: 'nothing_to_lay', facts: {} }
  if (layouts.some((l) => l.kept === 'stale')) return { state: 'broken', why: 'layout_stale', facts: {} }
  return layouts.every((l) => l.kept === 'current')
    ? { state: 'settled', why: 'layout_kept', facts: {} }
    : { state: 'open', why: 'layout_not_kept', facts: {} }
}
