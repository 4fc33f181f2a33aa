import type { Who } from '@/db/client'
import { jobs, keepYard, yardInput, type JobHead } from '@/db/queries/jobs'
import { broken } from './answer'
import { threads } from './threads'

/**
 * Changes that come close together are read off once; a job that takes long to reckon leaves the machine to others in
 * between.
 */
const PAUSE_MS = 400
const REST_SHARE = 4
const LONGEST_PAUSE_MS = 4000
const MOST_KNOWN = 5000
const cost = new Map<string, number>()
const pauseOf = (jobId: string) => Math.min(LONGEST_PAUSE_MS, Math.max(PAUSE_MS, REST_SHARE * (cost.get(jobId) ?? 0)))
/** How long the yard's page waits for columns that are behind before it shows them as they are. */
const PAGE_WAIT_MS = 4000

const running = new Map<string, Promise<void>>()
/** Once more after the one under way, for all that changed meanwhile. */
const following = new Map<string, Promise<void>>()
const planned = new Map<string, ReturnType<typeof setTimeout>>()

/** The yard's columns of a job read off anew on a thread; one at a time a job. */
function settle(who: Who, jobId: string): Promise<void> {
  const under = running.get(jobId)
  // What is under way began before the newest change: it is done once more after it.
  if (under) {
    const after =
      following.get(jobId) ??
      under
        .catch(() => {})
        .then(() => {
          following.delete(jobId)
          return settle(who, jobId)
        })
    following.set(jobId, after)
    return after
  }
  const since = performance.now()
  const work = (async () => {
    const file = await yardInput(who, jobId, new Date())
    if (!file) return
    const { plan, catalogue, ledger, changes } = file
    await keepYard(who, jobId, changes, await threads().run('yard', { plan, catalogue, ledger }))
  })().finally(() => {
    running.delete(jobId)
    cost.set(jobId, performance.now() - since)
    if (cost.size > MOST_KNOWN) cost.clear()
  })
  running.set(jobId, work)
  return work
}

/** Soon after a change the yard's columns follow; what fails here is made good when the yard is opened. */
export function yardFollows(who: Who, jobId: string): void {
  if (planned.has(jobId)) return
  const timer = setTimeout(() => {
    planned.delete(jobId)
    line.push(() => settle(who, jobId))
    void follow()
  }, pauseOf(jobId))
  timer.unref()
  planned.set(jobId, timer)
}

const line: (() => Promise<void>)[] = []
let isFollowing = false

/**
 * Jobs that changed, one after the other, with rests between: a shop in which every bay logs at once leaves the server to
 * its entries, and the yard follows as fast as there is room.
 */
async function follow(): Promise<void> {
  if (isFollowing) return
  isFollowing = true
  for (let next = line.shift(); next; next = line.shift()) {
    const since = performance.now()
    await next().catch((error: unknown) => void broken(error))
    const took = performance.now() - since
    if (line.length > 0) await new Promise((r) => setTimeout(r, Math.min(LONGEST_PAUSE_MS, REST_SHARE * took)))
  }
  isFollowing = false
}

/** The shop's jobs, with columns that are up to date wherever that can be had in `waitMs`. */
export async function yardJobs(who: Who, { waitMs = PAGE_WAIT_MS } = {}): Promise<JobHead[]> {
  const heads = await jobs(who)
  const behind = heads.filter((head) => head.behind)
  if (behind.length === 0) return heads
  let timer: ReturnType<typeof setTimeout> | undefined
  const enough = new Promise<void>((resolve) => (timer = setTimeout(resolve, waitMs)))
  await Promise.race([Promise.allSettled(behind.map((head) => settle(who, head.id))), enough])
  clearTimeout(timer)
  return jobs(who)
}
