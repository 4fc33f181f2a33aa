import type { StageVerdict } from '../../model/finding/stage'
import type { Plan } from '../../model/plan/schema'

export function tapeState({ panels }: Plan): StageVerdict {
  const assumed = panels.filter((p) => p.assumed.length > 0).length
  if (panels.length === 0) return { state: 'missing', why: 'nothing_taped', facts: {} }
  return assumed > 0
    ? { state: 'open', why: 'some_assumed', facts: { count: assumed } }
    : { state: 'settled', why: 'all_taped', facts: { count: panels.length } }
}
