import { tryPin } from '@/core/engines/schedule/pins'
import { shopSchedule } from '@/core/engines/schedule/shop-schedule'

/** What a board is made from. */
export interface BoardAsk {
  jobs: Parameters<typeof shopSchedule>[0]
  shop: Parameters<typeof shopSchedule>[1]
  now: string
  /** Work of one job tried at a moment; without it the whole board is laid out. */
  trial?: Pick<Parameters<typeof tryPin>[1], 'jobId' | 'pin'>
}
export type BoardAnswer = { board: ReturnType<typeof shopSchedule> } | { trial: ReturnType<typeof tryPin> }

/** One board, or one trial, off the page's thread. */
self.onmessage = ({ data: { jobs, shop, now, trial } }: MessageEvent<BoardAsk>) => {
  const answer: BoardAnswer = trial
    ? { trial: tryPin(jobs, { shop, now, ...trial }) }
    : { board: shopSchedule(jobs, shop, now) }
  self.postMessage(answer)
}
