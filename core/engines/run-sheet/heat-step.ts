import { CHROME_CLASS } from '../../model/film/film-data'
import { paceFor, paceSeconds } from '../heat/pace'
import type { OnPanel } from './on-panel'
import { stepOf, type Step } from './step'
import { MIRROR_SLOWER, PLACE_MIN, PRESSED_MIN_PER_M, PRESS_MIN_PER_M, READ_MIN, STEAM_MIN } from './step-data'

/** What the post-heat of one panel takes, part by part: s, mm and minutes as an experienced crew takes them. */
export interface PostHeatWork {
  /** The gun along all edges that are read; a mirror is gone over slower where its sweep is not solved. */
  movingS: number
  slower: number
  /** Places that are no edge; all that are read. */
  places: number
  readings: number
  /** Pressed once more as it cools; heated and pressed without a reading. */
  alongMm: number
  pressedMm: number
  steamMin: number
}

/** Null where nothing of the panel is heated. */
export function postHeatWork({
  panel,
  film,
  points,
  sweep,
  edges,
}: Pick<OnPanel, 'panel' | 'film' | 'points' | 'sweep'> & { edges: OnPanel['edges']['edges'] }): PostHeatWork | null {
  const pressedMm = edges.reduce((sum, e) => (e.heat === 'pressed' ? sum + e.lengthMm : sum), 0)
  if (points.length === 0 && pressedMm === 0) return null
  const mirror = CHROME_CLASS.includes(film.kind)
  const along = points.filter((p) => p.lengthMm !== null)
  return {
    movingS: along.reduce((sum, p) => sum + paceSeconds(paceFor(panel, sweep, p.lengthMm ?? 0)), 0),
    // What was solved is for this very film.
    slower: mirror && sweep?.kind !== 'plan' ? MIRROR_SLOWER : 1,
    places: points.length - along.length,
    readings: points.length,
    alongMm: along.reduce((sum, p) => sum + (p.lengthMm ?? 0), 0),
    pressedMm,
    steamMin: mirror ? STEAM_MIN : 0,
  }
}

/** Whole minutes, at the crew's pace. */
export const postHeatMinutes = (work: PostHeatWork, paceFactor: number): number =>
  Math.ceil(
    ((work.movingS / 60) * work.slower +
      work.places * PLACE_MIN +
      work.readings * READ_MIN +
      (work.alongMm / 1000) * PRESS_MIN_PER_M +
      (work.pressedMm / 1000) * PRESSED_MIN_PER_M +
      work.steamMin) *
      paceFactor,
  )

/** Post-heat of one panel: metres by the gun's pace on what is under the film, places, readings, pressed as it cools. */
export function heatStep({ plan, panel, film, points, sweep, edges }: OnPanel): Step[] {
  const work = postHeatWork({ panel, film, points, sweep, edges: edges.edges })
  if (!work) return []
  const mirror = CHROME_CLASS.includes(film.kind)
  return [
    stepOf({
      id: `post_heat:${panel.id}`,
      code: 'post_heat',
      panelId: panel.id,
      name: panel.name,
      minutes: postHeatMinutes(work, plan.runSheet.paceFactor),
      cautions: ['hot', ...(plan.method.heatSource === 'torch' ? ['torch'] : [])],
      tools: ['gun', 'thermometer', ...(mirror ? ['steamer'] : [])],
      range: film.postHeatC,
      facts: {
        film: film.name,
        points: points.length,
        length_mm: work.alongMm,
        from_min: film.postHeatFromMin,
        until_min: film.postHeatUntilMin ?? 0,
        ...(mirror ? { steam: 1 } : {}),
      },
    }),
  ]
}
