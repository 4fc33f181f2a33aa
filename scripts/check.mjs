import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { dataDir, root, startCluster } from './cluster.mjs'
import { build } from './prepare.mjs'

/** The one gate. Every runner runs, also after another has failed; the last lines name what failed and sum them up. */
mkdirSync(dataDir, { recursive: true })
const total = { passed: 0, failed: 0 }
const failedRuns = []
const run = (name, command, args, env = {}) => {
  const began = Date.now()
  console.log(`\n== ${name}`)
  const status = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } }).status
  console.log(`-- ${name}: ${status === 0 ? 'passed' : 'FAILED'} in ${((Date.now() - began) / 1000).toFixed(0)} s`)
  if (status !== 0) failedRuns.push(name)
  return status === 0
}
const count = (good) => (good ? total.passed++ : total.failed++)
const report = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null)

for (const name of ['format:check', 'lint', 'types', 'deps', 'habits', 'unused'])
  count(run(name, 'npm', ['run', '--silent', name]))

const units = join(dataDir, 'vitest.json')
rmSync(units, { force: true })
const unitsGood = run('unit tests', 'npx', [
  'vitest',
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${units}`,
])
const u = report(units)
total.passed += u?.numPassedTests ?? 0
total.failed += u ? u.numFailedTests + (unitsGood || u.numFailedTests > 0 ? 0 : 1) : 1

let built = true
console.log('\n== production build')
try {
  console.log(`-- production build: ${build()}`)
} catch (error) {
  built = false
  failedRuns.push('production build')
  console.log(error.message)
}
count(built)

if (built) {
  const pages = join(dataDir, 'playwright.json')
  rmSync(pages, { force: true })
  const good = run('browser tests', 'npx', ['playwright', 'test'], { PLAYWRIGHT_JSON_OUTPUT_FILE: pages })
  const p = report(pages)
  total.passed += p?.stats.expected ?? 0
  total.failed += p ? p.stats.unexpected + p.stats.flaky + (good || p.stats.unexpected > 0 ? 0 : 1) : 1
} else total.failed++

try {
  ;(await startCluster({ name: 'test-pg', usualPort: 54811, throwaway: true })).stop()
} catch (error) {
  console.log(`The test cluster did not stop: ${error.message}`)
}
if (failedRuns.length > 0) console.log(`\nFailed: ${failedRuns.join(', ')}`)
console.log(`\n${total.passed} passed, ${total.failed} failed`)
process.exitCode = total.failed === 0 && total.passed > 0 ? 0 : 1
