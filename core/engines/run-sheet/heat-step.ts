import { CHROME_CLASS } from '../../model/film/film-data'
import { paceFor, paceSeconds } from '../heat/pace'
import type { OnPanel } from './on-panel'
import { stepOf, type Step } from './step'
import { MIRROR_SLOWER, PLACE_MIN, PRESSED_MIN_PER_M, PRESS_MIN_PER_M, READ_MIN, STEAM_MIN } from './step-data'

/** Post-heat of one panel: metres by the gun's pace on what is under the film, places, readings, pressed as it cools. */
export function heatStep({ plan, panel, film, points, way, edges }: OnPanel): Step[] {
  const pressedM = edges.edges.reduce((sum, e) => (e.heat === 'pressed' ? sum + e.lengthMm : sum), 0) / 1000
  if (points.length === 0 && pressedM === 0) return []
  const mirror = CHROME_CLASS.includes(film.kind)
  const along = points.filter((p) => p.lengthMm !== null)
  const pointM = along.reduce((sum, p) => sum + (p.lengthMm ?? 0), 0) / 1000
  const movingS = along.reduce((sum, p) => sum + paceSeconds(paceFor(panel, way, p.lengthMm ?? 0)), 0)
  // What was solved is for this very film.
  const slower = mirror && way?.kind !== 'plan' ? MIRROR_SLOWER : 1
  const minutes =
    (movingS / 60) * slower +
    (points.length - along.length) * PLACE_MIN +
    points.length * READ_MIN +
    pointM * PRESS_MIN_PER_M +
    pressedM * PRESSED_MIN_PER_M +
    (mirror ? STEAM_MIN : 0)
  return [
    stepOf({
      id: `post_heat:${panel.id}`,
      code: 'post_heat',
      panelId: panel.id,
      name: panel.name,
      minutes: minutes * plan.runSheet.paceFactor,
      cautions: ['hot', ...(plan.method.heatSource === 'torch' ? ['torch'] : [])],
      tools: ['gun', 'thermometer', ...(mirror ? ['steamer'] : [])],
      range: film.postHeatC,
      facts: {
        film: film.name,
        points: points.length,
        length_mm: pointM * 1000,
        from_min: film.postHeatFromMin,
        until_min: film.postHeatUntilMin ?? 0,
        ...(mirror ? { steam: 1 } : {}),
      },
    }),
  ]
}
