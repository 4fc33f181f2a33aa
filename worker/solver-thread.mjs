import { setPriority } from 'node:os'
import { parentPort } from 'node:worker_threads'
import { fileURLToPath } from 'node:url'
import { register } from 'tsx/esm/api'

// People who type come first: what settles behind their plans yields the processor.
try {
  setPriority(0, 10)
} catch {
  // Where the system does not let a thread step back, it works on as it is.
}
process.env.TSX_TSCONFIG_PATH = fileURLToPath(new URL('../tsconfig.json', import.meta.url))
// A thread does not take over how its process reads TypeScript.
register()
const { answer } = await import('./solver.ts')

parentPort.on('message', (ask) => {
  try {
    parentPort.postMessage({ ok: true, value: answer(ask) })
  } catch (error) {
    parentPort.postMessage({
      ok: false,
      message: error instanceof Error ? (error.stack ?? error.message) : String(error),
    })
  }
})
