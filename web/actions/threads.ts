import { availableParallelism } from 'node:os'
import * as threading from 'node:worker_threads'
import { log } from '@/db/log'
import { environment } from '@/db/environment'
import { ThreadPool } from '@/web/threads/pool'

const kept = globalThis as unknown as { cuirassThreads?: ThreadPool }
// A thread reads the sources at run time and is no part of the bundle: the bundler is kept from following it.
const Thread = Reflect.get<typeof threading, 'Worker'>(threading, 'Worker')
const threadFile = () => [process.env.CUIRASS_ROOT ?? process.cwd(), 'web', 'threads', 'thread.mjs'].join('/')

/** The one pool of threads of this process; kept over reloads in development. */
export const threads = (): ThreadPool =>
  (kept.cuirassThreads ??= new ThreadPool({
    size: Math.min(environment().THREADS, Math.max(1, availableParallelism())),
    open: () => new Thread(threadFile()),
    broke: (err) => log.error({ part: 'threads', err }, 'a thread broke'),
  }))

export async function closeThreads(): Promise<void> {
  await kept.cuirassThreads?.close()
  delete kept.cuirassThreads
}
