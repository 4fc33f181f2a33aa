import { figure, input, type Figure } from '../../model/figure/figure'
import { measureStanding } from '../../model/vehicle/measure-standing'
import { outlineOf, panelAreaMm2 } from '../../model/vehicle/outline'
import type { Panel } from '../../model/vehicle/schema'

/** A panel's area by its outline, holes taken out, mm². */
export function areaFigure(panel: Panel): Figure {
  const outline = outlineOf(panel)
  const at = (field: string) => `panels/${panel.id}/${field}`
  const size = (key: 'width' | 'height') =>
    input(key, panel[`${key}Mm`], 'mm', measureStanding(panel, `${key}Mm`), at(`${key}Mm`))
  const holes = panel.holes.reduce((t, h) => t + h.widthMm * h.heightMm, 0)
  // How full the outline makes its box: 1 for a plain rectangle.
  const fill = outline.areaMm2 / (outline.widthMm * outline.heightMm)
  const loose = panel.edges.some((e) => measureStanding(panel, `edges.${e.id}`) === 'assumed')
  const edges = input('outline', fill, 'fraction', loose ? 'assumed' : 'measured', at('edges'))
  const formula = `{width} × {height}${outline.measured ? ' × {outline}' : ''}${holes > 0 ? ' − {holes}' : ''}`
  return figure({
    id: `panel/${panel.id}/area`,
    value: panelAreaMm2(panel),
    unit: 'mm2',
    formula,
    inputs: [
      size('width'),
      size('height'),
      ...(outline.measured ? [edges] : []),
      ...(holes > 0 ? [input('holes', holes, 'mm2', 'measured', at('holes'))] : []),
    ],
  })
}
