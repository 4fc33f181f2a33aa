import type { StageVerdict } from '../../model/finding/stage'
import type { Plan } from '../../model/plan/schema'

export function walkaroundState({ walkaround: { paint, damage } }: Plan): StageVerdict {
  if (paint.origin === 'unknown' || paint.condition === 'unknown')
    return { state: 'missing', why: 'paint_not_looked_at', facts: {} }
  return { state: 'settled', why: 'looked_at', facts: { damage: damage.length } }
}
