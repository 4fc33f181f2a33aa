import { figure, from, input, type Figure, type FigureInput } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel } from '../../model/vehicle/schema'
import { capStretch, sagittaRadiusMm } from './closed-forms'
import { GEOMETRY, MILNOR } from './sources'

/**
 * A crowned panel as part of a sphere through its straightedge reading; its piece as the cap that covers it (half the
 * diagonal), so that the true least worst stretch is at most this.
 */
export function crownStretch(
  panel: Panel,
  parts: number,
  along: 'width' | 'height',
): { crown: Figure; parts: Figure[] } {
  const id = `stretch/${panel.id}/crown` as const
  const at = (f: string) => `panels/${panel.id}/${f}`
  const none = (formula: string, why: FigureInput) => ({
    crown: figure({ id, value: 0, unit: 'fraction', formula, inputs: [why] }),
    parts: [],
  })
  if (panel.crownMm <= 0 || panel.crownOverMm <= 0)
    return none(
      call('flat', 'crown'),
      input('crown', panel.crownMm, 'mm', measureStanding(panel, 'crownMm'), at('crownMm')),
    )
  const across = sagittaRadiusMm(panel.crownMm, panel.crownOverMm)
  const down = crownDown(panel)
  if (down === 0)
    return none(
      call('curved_one_way', 'down'),
      input('down', 0, 'mm', measureStanding(panel, 'crownDownMm'), at('crownDownMm')),
    )
  // Two curvatures: the sphere of the same product of both bends film as much (Gauss); the stretch is then an estimate.
  const radiusMm = down === null ? across : Math.sqrt(across * down)
  const [w, h] = [
    along === 'width' ? panel.widthMm / parts : panel.widthMm,
    along === 'height' ? panel.heightMm / parts : panel.heightMm,
  ]
  const radius = radiusFigure(panel, radiusMm, down)
  // A reading over a short straightedge can ask for more than a half sphere: no panel is that.
  const alphaRad = Math.min(Math.hypot(w, h) / 2 / radiusMm, Math.PI / 2)
  const alpha = figure({
    id: `stretch/${panel.id}/alpha`,
    value: alphaRad,
    unit: 'rad',
    formula: 'min(√({width}² + {height}²) ÷ 2 ÷ {radius}, π ÷ 2)',
    inputs: [
      input('width', w, 'mm', measureStanding(panel, 'widthMm'), at('widthMm')),
      input('height', h, 'mm', measureStanding(panel, 'heightMm'), at('heightMm')),
      from('radius', radius),
    ],
  })
  const crown = figure({
    id,
    value: capStretch(alphaRad),
    unit: 'fraction',
    formula: '{alpha} ÷ sin({alpha}) − 1',
    inputs: [from('alpha', alpha)],
    source: MILNOR,
    standing: 'published',
  })
  return { crown, parts: [radius, alpha] }
}

/** The crown's radius from its straightedge, both ways where both were taken. */
function radiusFigure(panel: Panel, radiusMm: number, down: number | null): Figure {
  const at = (f: string) => `panels/${panel.id}/${f}`
  const single = '({over}² ÷ 4 + {crown}²) ÷ (2 × {crown})'
  const taken = [
    input('over', panel.crownOverMm, 'mm', measureStanding(panel, 'crownOverMm'), at('crownOverMm')),
    input('crown', panel.crownMm, 'mm', measureStanding(panel, 'crownMm'), at('crownMm')),
  ]
  return figure({
    id: `stretch/${panel.id}/radius`,
    value: radiusMm,
    unit: 'mm',
    formula: down === null ? single : `√(${single} × ({over_down}² ÷ 4 + {down}²) ÷ (2 × {down}))`,
    inputs:
      down === null
        ? taken
        : [
            ...taken,
            input(
              'over_down',
              panel.crownDownOverMm,
              'mm',
              measureStanding(panel, 'crownDownMm'),
              at('crownDownOverMm'),
            ),
            input('down', panel.crownDownMm, 'mm', measureStanding(panel, 'crownDownMm'), at('crownDownMm')),
          ],
    standing: down === null ? 'measured' : 'common_practice',
    source: GEOMETRY,
  })
}

/** Radius along the height; 0 where it was found flat, null where it was not taken. */
function crownDown(panel: Panel): number | null {
  if (panel.crownDownMm === null) return null
  if (panel.crownDownMm === 0 || panel.crownDownOverMm <= 0) return 0
  return sagittaRadiusMm(panel.crownDownMm, panel.crownDownOverMm)
}
