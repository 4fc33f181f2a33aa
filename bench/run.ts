import { readFileSync, writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { layoutBench, reckonBench } from './core'
import { pageBench } from './pages'

/** Runs every bench and writes docs/bench.md. Numbers inform; nothing fails on them. `--core` leaves what is measured in the browser as it was. */
const file = new URL('../docs/bench.md', import.meta.url)
const browserParts = () => /## From typing[\s\S]*$/.exec(readFileSync(file, 'utf8'))?.[0] ?? ''
const parts = [reckonBench(), layoutBench(), process.argv.includes('--core') ? browserParts() : await pageBench()]
const text = `# Benches

Written by \`npm run bench\`; fixed seeds. Times are medians on ${cpus().length} cores (${cpus()[0]?.model.trim() ?? 'unknown'}), Node ${process.versions.node}; read the ratios, not the milliseconds.

${parts.join('\n')}`
writeFileSync(file, text)
console.log(text)
process.exit(0)
