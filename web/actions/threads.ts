import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { environment } from '@/db/environment'
import { ThreadPool } from '@/web/threads/pool'

const kept = globalThis as unknown as { cuirassThreads?: ThreadPool }
/** Found at run time: a thread reads the sources, it is no part of the bundle. */
const threadFile = () => join(process.env.CUIRASS_ROOT ?? process.cwd(), 'web', 'threads', 'thread.mjs')

/** The one pool of threads of this process; kept over reloads in development. */
export const threads = (): ThreadPool =>
  (kept.cuirassThreads ??= new ThreadPool({
    size: Math.min(environment().THREADS, Math.max(1, availableParallelism())),
    open: () => new Worker(threadFile()),
  }))

export async function closeThreads(): Promise<void> {
  await kept.cuirassThreads?.close()
  delete kept.cuirassThreads
}
