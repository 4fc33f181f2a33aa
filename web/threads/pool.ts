import type { Worker } from 'node:worker_threads'
import type { Jobs, ThreadAnswer, ThreadAsk } from './jobs'

/** Work that waits beyond this is refused at once. */
const MOST_WAITING = 40
/** One piece of work may take this long, ms; its thread is ended then. */
const TIME_LIMIT_MS = 60_000

export type ThreadFaultCode = 'too_much_at_once' | 'took_too_long' | 'thread_ended'
/** Why work on a thread gave no answer: a code that a person is told. */
export class ThreadFault extends Error {
  constructor(readonly code: ThreadFaultCode) {
    super(code)
  }
}

interface Waiting {
  ask: ThreadAsk
  timeLimitMs: number
  resolve: (value: never) => void
  reject: (error: Error) => void
}
interface Thread {
  worker: Worker
  doing: Waiting | null
  timer: ReturnType<typeof setTimeout> | null
}

export interface PoolOptions {
  /** Told of an error that a thread did not catch itself. */
  broke?: (error: unknown) => void
  size: number
  mostWaiting?: number
  timeLimitMs?: number
  open: () => Worker
}

/**
 * Threads beside the server's own, each with one piece of work at a time, and a queue of bounded length before them.
 * Work that takes too long ends with its thread; a thread that ends is replaced when there is work again.
 */
export class ThreadPool {
  private readonly threads: Thread[] = []
  private readonly waiting: Waiting[] = []
  private count = 0

  constructor(private readonly options: PoolOptions) {}

  /**
   * Errors: ThreadFault with too_much_at_once, took_too_long or thread_ended; what the work itself throws, as an
   * Error.
   */
  run<K extends keyof Jobs>(
    kind: K,
    input: Jobs[K]['input'],
    { timeLimitMs = this.options.timeLimitMs ?? TIME_LIMIT_MS } = {},
  ): Promise<Jobs[K]['output']> {
    if (this.waiting.length >= (this.options.mostWaiting ?? MOST_WAITING))
      return Promise.reject(new ThreadFault('too_much_at_once'))
    return new Promise((resolve, reject) => {
      this.waiting.push({ ask: { id: ++this.count, kind, input } as ThreadAsk, timeLimitMs, resolve, reject })
      this.next()
    })
  }

  async close(): Promise<void> {
    for (const work of this.waiting.splice(0)) work.reject(new ThreadFault('thread_ended'))
    await Promise.all(this.threads.splice(0).map((thread) => this.end(thread, 'thread_ended')))
  }

  private next(): void {
    const work = this.waiting[0]
    if (!work) return
    const thread = this.threads.find((t) => t.doing === null) ?? this.another()
    if (!thread) return
    this.waiting.shift()
    thread.doing = work
    thread.timer = setTimeout(() => void this.end(thread, 'took_too_long'), work.timeLimitMs)
    try {
      thread.worker.postMessage(work.ask)
    } catch (error) {
      this.free(thread)?.reject(error as Error) // what cannot be sent to a thread
      this.next()
    }
  }

  private another(): Thread | null {
    if (this.threads.length >= this.options.size) return null
    const thread: Thread = { worker: this.options.open(), doing: null, timer: null }
    thread.worker.on('message', (answer: ThreadAnswer) => {
      const work = this.free(thread)
      if (answer.ok) work?.resolve(answer.value as never)
      else work?.reject(new Error(answer.message))
      this.next()
    })
    thread.worker.on('error', (error) => {
      this.options.broke?.(error)
      void this.end(thread, 'thread_ended')
    })
    thread.worker.on('exit', () => void this.end(thread, 'thread_ended'))
    // Idle threads do not keep a process from ending.
    thread.worker.unref()
    this.threads.push(thread)
    return thread
  }

  private free(thread: Thread): Waiting | null {
    const { doing } = thread
    if (thread.timer) clearTimeout(thread.timer)
    Object.assign(thread, { doing: null, timer: null })
    return doing
  }

  private async end(thread: Thread, code: ThreadFaultCode): Promise<void> {
    const at = this.threads.indexOf(thread)
    if (at >= 0) this.threads.splice(at, 1)
    this.free(thread)?.reject(new ThreadFault(code))
    await thread.worker.terminate()
    this.next()
  }
}
