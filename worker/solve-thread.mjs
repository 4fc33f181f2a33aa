import { fileURLToPath } from 'node:url'
import { register } from 'tsx/esm/api'

process.env.TSX_TSCONFIG_PATH = fileURLToPath(new URL('../tsconfig.json', import.meta.url))
// A thread does not take over how its process reads TypeScript.
register()
await import('./solve.ts')
