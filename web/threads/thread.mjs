import { setPriority } from 'node:os'
import { parentPort } from 'node:worker_threads'
import { fileURLToPath } from 'node:url'
import { register } from 'tsx/esm/api'

// Answers to people come first: this thread alone yields the processor to the server's own.
try {
  setPriority(0, 10)
} catch {
  // Where the system does not let a thread step back, it works on as it is.
}
// Wherever the server was started, names of ours are looked up where they lie.
process.env.TSX_TSCONFIG_PATH = fileURLToPath(new URL('../../tsconfig.json', import.meta.url))
// A thread does not take over how its process reads TypeScript.
register()
const { work } = await import('./work.ts')

parentPort.on('message', async ({ id, kind, input }) => {
  try {
    const value = await work(kind, input)
    parentPort.postMessage({ id, ok: true, value }, value instanceof Uint8Array ? [value.buffer] : [])
  } catch (error) {
    parentPort.postMessage({
      id,
      ok: false,
      message: error instanceof Error ? (error.stack ?? error.message) : String(error),
    })
  }
})
