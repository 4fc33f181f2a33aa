import { freeId } from '../../../kit/ids'
import { err, ok, type Result } from '../../../kit/result'
import type { Panel, Vehicle } from '../schema'
import type { Walkaround } from '../walkaround-schema'
import { boatPanels } from './bodies'
import { motorcyclePanels } from './motorcycle'
import { tankPanels } from './tank'
import { trailerPanels } from './trailer'
import { boxPanels } from './box-body'
import { carPanels } from './car'
import { STYLES, usualKeys, type Keys } from './styles'

export { STYLES, usualKeys, type Keys } from './styles'
export { everyFigure } from './shape'
export type Style = Exclude<Vehicle['kind'], 'other'>

/** Key lengths as typed, the style's own for those left out. Errors: unknown_key, too_small, too_big, bad_number. */
export function keysOf(style: Style, typed: Keys): Result<{ keys: Keys; assumed: string[] }> {
  const known = STYLES[style]
  for (const key of Object.keys(typed))
    if (!known.some((k) => k.key === key)) return err({ code: 'unknown_key', at: key })
  const keys = usualKeys(style)
  const assumed: string[] = []
  for (const { key, unit, min, max } of known) {
    const value = typed[key]
    if (value === undefined) assumed.push(key)
    else if (!Number.isFinite(value) || (unit === 'count' && !Number.isInteger(value)))
      return err({ code: 'bad_number', at: key })
    else if (value < min) return err({ code: 'key_too_small', at: key, facts: { value, limit: min } })
    else if (value > max) return err({ code: 'key_too_big', at: key, facts: { value, limit: max } })
    else keys[key] = value
  }
  return ok({ keys, assumed })
}

/**
 * All panels of a body style for its key lengths: sizes, edges, neighbours and usual features, every figure assumed.
 */
export function familyPanels(style: Style, keys: Keys): Panel[] {
  switch (style) {
    case 'box_body':
      return boxPanels(keys)
    case 'trailer':
      return trailerPanels(keys)
    case 'tank':
      return tankPanels(keys)
    case 'motorcycle':
      return motorcyclePanels(keys)
    case 'boat':
      return boatPanels(keys)
    default:
      return carPanels(style, keys)
  }
}

/**
 * Hardware as the panels name it: what is raised on them, off in its minutes or taped round. Known rows are not given
 * again.
 */
export function hardwareOf(panels: readonly Panel[], known: Walkaround['hardware']): Walkaround['hardware'] {
  const names = new Set(known.map((h) => h.name))
  const ids = known.map((h) => h.id)
  return panels
    .flatMap((p) => p.raised.map((r) => ({ name: `${r.name}, ${p.name}`.slice(0, 120), r })))
    .filter((x) => !names.has(x.name))
    .map(({ name, r }) => {
      const id = freeId('h1', ids)
      ids.push(id)
      return {
        id,
        name,
        way: r.removable ? ('remove' as const) : ('tape' as const),
        minutes: r.removable ? r.minutes : 0,
        who: '',
      }
    })
}

/** Places that such a body usually has and that are never covered. Common practice, no source. */
export function neverCoverOf(panels: readonly Panel[]): Walkaround['neverCover'] {
  const has = (kind: Panel['kind']) => panels.find((p) => p.kind === kind)?.id ?? null
  const rear = panels.find((p) => p.side === 'rear')?.id ?? null
  return [
    { id: 'headlamps', kind: 'lamp', panelId: has('front_bumper'), note: '' },
    { id: 'tail-lamps', kind: 'lamp', panelId: has('rear_bumper') ?? rear, note: '' },
    { id: 'plate', kind: 'plate', panelId: has('hatch') ?? has('boot_lid') ?? has('tailgate') ?? rear, note: '' },
    ...(has('front_bumper')
      ? [{ id: 'sensors', kind: 'sensor' as const, panelId: has('front_bumper'), note: '' }]
      : []),
  ]
}
