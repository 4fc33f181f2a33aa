import { shopSchedule } from '@/core/engines/schedule/shop-schedule'

/** What a board is made from. */
export interface BoardAsk {
  jobs: Parameters<typeof shopSchedule>[0]
  shop: Parameters<typeof shopSchedule>[1]
  now: string
}

/** One board, off the page's thread. */
self.onmessage = ({ data: { jobs, shop, now } }: MessageEvent<BoardAsk>) =>
  self.postMessage(shopSchedule(jobs, shop, now))
