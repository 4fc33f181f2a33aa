#!/usr/bin/env node
import { fileURLToPath } from 'node:url'
import { register } from 'tsx/esm/api'

// Wherever it is called from, names of ours are looked up where it lies.
process.env.TSX_TSCONFIG_PATH = fileURLToPath(new URL('../../tsconfig.json', import.meta.url))
register()
const { main } = await import('../main.ts')
process.exitCode = await main(process.argv.slice(2))
