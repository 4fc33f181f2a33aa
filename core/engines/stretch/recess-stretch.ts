import { figure, from, input, type Figure } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel, Recess } from '../../model/vehicle/schema'
import { bridgeStrain, recessProfileMm } from './closed-forms'
import { GEOMETRY } from './sources'

/** Stretch of film over one recess: bridged over its profile, or none where it is fed or inlaid. */
export function recessStretch(panel: Panel, r: Recess): { f: Figure; parts: Figure[] } {
  const id = `stretch/${panel.id}/${r.id}` as const
  const at = (f: string) => `panels/${panel.id}/recesses/${r.id}/${f}`
  const standing = (f: string) => measureStanding(panel, `recesses.${r.id}.${f}`)
  if (r.way !== 'bridge')
    return {
      f: figure({
        id,
        value: 0,
        unit: 'fraction',
        formula: call(r.way === 'feed' ? 'fed' : 'inlaid', 'depth'),
        inputs: [input('depth', r.depthMm, 'mm', standing('depthMm'), at('depthMm'))],
        standing: 'common_practice',
      }),
      parts: [],
    }
  const narrow = r.mouthWidthMm <= r.mouthHeightMm ? 'mouthWidthMm' : 'mouthHeightMm'
  const profileMm = recessProfileMm(r[narrow], r.depthMm, r.wallDeg)
  const profile = figure({
    id: `${id}/profile`,
    value: profileMm,
    unit: 'mm',
    formula: call('profile', 'mouth', 'wall', 'depth'),
    inputs: [
      input('mouth', r[narrow], 'mm', standing(narrow), at(narrow)),
      input('depth', r.depthMm, 'mm', standing('depthMm'), at('depthMm')),
      input('wall', r.wallDeg, 'count', standing('wallDeg'), at('wallDeg')),
    ],
  })
  const bridge = figure({
    id,
    value: bridgeStrain(profileMm, r[narrow], r.gapMm),
    unit: 'fraction',
    formula: '({profile} + 2 × {gap}) ÷ ({mouth} + 2 × {gap}) − 1',
    inputs: [
      from('profile', profile),
      input('mouth', r[narrow], 'mm', standing(narrow), at(narrow)),
      input('gap', r.gapMm, 'mm', 'common_practice', at('gapMm')),
    ],
    source: GEOMETRY,
  })
  return { f: bridge, parts: [profile] }
}
