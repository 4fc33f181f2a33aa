import { readFileSync, writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { ablationBench } from './ablation'
import { layoutBench, reckonBench } from './core'
import { heatBench } from './heat'
import { pageBench } from './pages'
import { scheduleBench } from './schedule'
import { scriptsBench } from './scripts'
import { liveBench, manyMembers, serverBench } from './server'
import { settleBench } from './settle'
import { stretchBench } from './stretch'

/**
 * Runs every bench and writes docs/bench.md. Numbers inform; nothing fails on them. `--core` leaves what is measured in
 * the browser as it was; `--reckon`, `--layout`, `--settle`, `--stretch`, `--heat`, `--schedule`, `--pages`,
 * `--server`, `--members`, `--live` and `--scripts` measure that alone.
 */
const file = new URL('../docs/bench.md', import.meta.url)
const before = readFileSync(file, 'utf8')
/** A part of the file as it stands. */
const had = (from: string, to: string) =>
  new RegExp(`## ${from}[\\s\\S]*?(?=${to ? `## (?:${to})|` : ''}$(?![\\s\\S]))`).exec(before)?.[0] ?? ''
const PARTS = [
  'core',
  'reckon',
  'layout',
  'settle',
  'stretch',
  'heat',
  'schedule',
  'pages',
  'server',
  'members',
  'live',
  'scripts',
] as const
const asked = PARTS.find((name) => process.argv.includes(`--${name}`))
/** What is measured on a production build. */
const BUILT: readonly string[] = ['pages', 'server', 'members', 'live', 'scripts']
/** Long: only where it is asked for. */
const ablation = process.argv.includes('--ablation')
const wants = (part: Exclude<(typeof PARTS)[number], 'core'>) =>
  asked === undefined || (asked === 'core' ? !BUILT.includes(part) : asked === part)
const parts = [
  wants('reckon') ? reckonBench() : had('reckon', 'Layout'),
  wants('layout') && !ablation ? layoutBench() : had('Layout', 'Ablation|Settling|Flat film'),
  ablation ? ablationBench() : had('Ablation', 'Settling|Flat film'),
  wants('settle') ? settleBench() : had('Settling', 'Flat film'),
  wants('stretch') ? stretchBench() : had('Flat film', 'Heat|Schedules|From typing'),
  wants('heat') ? heatBench() : had('Heat', 'Schedules|From typing'),
  wants('schedule') ? scheduleBench() : had('Schedules', 'From typing'),
  wants('pages') ? await pageBench() : had('From typing', 'The server under work'),
  wants('server') ? await serverBench() : had('The server under work', 'Main pages|Many pages open'),
  wants('members') ? await manyMembers() : had('Main pages', 'Many pages open'),
  wants('live') ? await liveBench() : had('Many pages open', 'First load'),
  wants('scripts') ? scriptsBench() : had('First load', ''),
]
const text = `# Benches

Written by \`npm run bench\`; fixed seeds. Times are medians on ${cpus().length} cores (${cpus()[0]?.model.trim() ?? 'unknown'}),
Node ${process.versions.node}; read the ratios, not the milliseconds.

${parts
  .map((part) => part.trimEnd())
  .filter((part) => part !== '')
  .join('\n\n')}
`
writeFileSync(file, text)
console.log(text)
process.exit(0)
