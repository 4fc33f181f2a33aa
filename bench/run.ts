import { readFileSync, writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { layoutBench, reckonBench } from './core'
import { pageBench } from './pages'
import { stretchBench } from './stretch'

/** Runs every bench and writes docs/bench.md. Numbers inform; nothing fails on them. `--core` leaves what is measured in the browser as it was. */
const file = new URL('../docs/bench.md', import.meta.url)
const browserParts = () => /## From typing[\s\S]*$/.exec(readFileSync(file, 'utf8'))?.[0] ?? ''
/** `--stretch` measures flat film alone and leaves the rest as it was. */
const before = readFileSync(file, 'utf8')
const rest = /[\s\S]*?(?=## Flat film|## From typing)/.exec(before)?.[0].replace(/^[\s\S]*?(?=## reckon)/, '') ?? ''
const layouts = process.argv.includes('--stretch') ? [rest] : [reckonBench(), layoutBench()]
const parts = [
  ...layouts,
  stretchBench(),
  process.argv.includes('--core') || process.argv.includes('--stretch') ? browserParts() : await pageBench(),
]
const text = `# Benches

Written by \`npm run bench\`; fixed seeds. Times are medians on ${cpus().length} cores (${cpus()[0]?.model.trim() ?? 'unknown'}), Node ${process.versions.node}; read the ratios, not the milliseconds.

${parts.join('\n')}`
writeFileSync(file, text)
console.log(text)
process.exit(0)
