import type { FaultCode } from '@/core/kit/fault-code'
import type { memberCalendarText } from '@/web/calendar/calendar-text'
import type { edgeMoves, EdgeMove } from '@/core/engines/edge/edge-moves'
import type { HeatPoint } from '@/core/engines/heat/heat-points'
import type { Piece } from '@/core/engines/pieces/pieces'
import type { YardColumns } from '@/core/reckon/yard'
import type { LogRow } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import type { MemberUnits } from '@/web/words/format'

/** What a reckoning hangs on. */
export interface JobInput {
  plan: Plan
  catalogue: Catalogue
  ledger: LogRow[]
}
/** Who a paper is for, and when it is printed. */
export interface PaperInput extends JobInput {
  jobId: string
  /** The plan that the vehicle was handed over with, once it was. */
  handedOver: Plan | null
  units: MemberUnits
  shop: { name: string; town: string }
  now: string
  /** Where codes on labels lead to. */
  appUrl: string
}
/** What other rules of the shop would move in one open job. */
export interface JobMoves {
  jobId: string
  name: string
  moves: EdgeMove[]
}
type EdgeRules = Parameters<typeof edgeMoves>[1]

export type MadeFile =
  | { kind: 'file'; body: Uint8Array; type: string; name: string; inline: boolean }
  | { kind: 'refused'; status: number; said: string }

/** The kinds of work that a thread does, with what goes in and comes out; all of it can be cloned. */
export interface Jobs {
  yard: { input: JobInput; output: YardColumns }
  pieces: { input: JobInput & { filmId: string }; output: Piece[] }
  points: { input: JobInput; output: HeatPoint[] }
  drawing: {
    input: JobInput & { filmId: string; rollId: string; as: 'svg' | 'dxf' }
    output: { kind: 'drawing'; text: string; mark: string } | { kind: 'refused'; code: FaultCode }
  }
  layoutFile: { input: PaperInput & { name: string; filmId: string | null; size: string | null }; output: MadeFile }
  handover: { input: PaperInput; output: MadeFile }
  inspection: { input: PaperInput & { photos: { id: string; data: Uint8Array }[] }; output: MadeFile }
  measure: { input: PaperInput; output: MadeFile }
  heatRecord: { input: PaperInput; output: MadeFile }
  trimPlan: { input: PaperInput; output: MadeFile }
  layingCards: { input: PaperInput; output: MadeFile }
  edgeMoves: { input: { jobs: { id: string; plan: Plan }[]; before: EdgeRules; after: EdgeRules }; output: JobMoves[] }
  jobCalendar: { input: JobInput & { jobId: string; appUrl: string; timeZone: string }; output: string }
  memberCalendar: { input: Parameters<typeof memberCalendarText>[0]; output: string }
  photo: {
    input: { bytes: Uint8Array }
    output: { data: Uint8Array; width: number; height: number } | { fault: 'not_a_photo' | 'too_many_pixels' }
  }
}
export type ThreadAsk = { [K in keyof Jobs]: { id: number; kind: K; input: Jobs[K]['input'] } }[keyof Jobs]
export type ThreadAnswer = { id: number; ok: true; value: unknown } | { id: number; ok: false; message: string }
