import { reckon } from '@/core/reckon/reckon'
import { yardColumnsOf } from '@/core/reckon/yard'
import { edgeMoves } from '@/core/engines/edge/edge-moves'
import { layoutDrawing, layoutSvg } from '@/core/engines/roll/drawing'
import { layoutDxf } from '@/web/roll/layout-dxf'
import { jobCalendar, memberCalendarText } from '@/web/calendar/calendar-text'
import {
  handoverPaper,
  heatRecordPaper,
  inspectionPaper,
  layingCardsPaper,
  measurePaper,
  trimPlanPaper,
} from './papers'
import { layoutFileOf } from './layout-files'
import { remadePhoto } from './photo'
import type { Jobs } from './jobs'

type Work = { [K in keyof Jobs]: (input: Jobs[K]['input']) => Jobs[K]['output'] | Promise<Jobs[K]['output']> }
const WORK: Work = {
  yard: ({ plan, catalogue, ledger }) => yardColumnsOf(plan, catalogue, ledger),
  pieces: ({ plan, catalogue, ledger, filmId }) =>
    reckon(plan, catalogue, ledger).pieces.filter((piece) => piece.filmId === filmId),
  points: ({ plan, catalogue, ledger }) => [...reckon(plan, catalogue, ledger).points],
  drawing: ({ plan, catalogue, ledger, filmId, rollId, as }) => {
    const layout = reckon(plan, catalogue, ledger).layouts.find((l) => l.film.id === filmId)
    const roll = layout?.rolls.find((r) => r.id === rollId)
    if (!layout || !roll) return { kind: 'refused', code: 'no_such_roll' }
    if (layout.kept !== 'current') return { kind: 'refused', code: 'layout_not_kept' }
    const drawing = layoutDrawing({ ...layout, rolls: [roll] })
    return { kind: 'drawing', text: as === 'svg' ? layoutSvg(drawing) : layoutDxf(drawing), mark: layout.mark }
  },
  layoutFile: layoutFileOf,
  handover: handoverPaper,
  inspection: inspectionPaper,
  measure: measurePaper,
  heatRecord: heatRecordPaper,
  trimPlan: trimPlanPaper,
  layingCards: layingCardsPaper,
  edgeMoves: ({ jobs, before, after }) =>
    jobs.flatMap(({ id, plan }) => {
      const moves = edgeMoves(plan, before, after)
      return moves.length > 0 ? [{ jobId: id, name: plan.name, moves }] : []
    }),
  jobCalendar: ({ plan, catalogue, ledger, ...of }) => jobCalendar(reckon(plan, catalogue, ledger), of),
  memberCalendar: memberCalendarText,
  photo: ({ bytes }) => remadePhoto(bytes),
}

/** One piece of work, by its kind. */
export const work = <K extends keyof Jobs>(
  kind: K,
  input: Jobs[K]['input'],
): Jobs[K]['output'] | Promise<Jobs[K]['output']> => WORK[kind](input)
