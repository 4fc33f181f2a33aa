import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './cluster.mjs'
import { Stop } from './say.mjs'

const hash = (text) => createHash('sha256').update(text).digest('hex')

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 9))
    throw new Stop(`Node.js 20.9 or later is needed; this is ${process.versions.node}.`)
}

/** npm packages, when the lock changed. */
export function installModules() {
  const mark = join(root, 'node_modules', '.cuirass-lock')
  const now = hash(readFileSync(join(root, 'package-lock.json')) + process.versions.modules)
  if (existsSync(mark) && readFileSync(mark, 'utf8') === now) return 'unchanged'
  const run = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    encoding: 'utf8',
    stdio: ['ignore', 'ignore', 'pipe'],
  })
  if (run.status !== 0) throw new Stop(`npm ci failed:\n${run.stderr.split('\n').slice(-8).join('\n')}`)
  writeFileSync(mark, now)
  return 'installed'
}

function* filesIn(dir) {
  for (const entry of readdirSync(dir, { withFileTypes: true }).sort((a, b) => a.name.localeCompare(b.name))) {
    const path = join(dir, entry.name)
    if (entry.isDirectory()) yield* filesIn(path)
    else yield path
  }
}

function sourcesMark() {
  const sum = createHash('sha256')
  const take = (path) => sum.update(path.slice(root.length)).update(readFileSync(path))
  for (const dir of ['app', 'web', 'core', 'db', 'public'])
    if (existsSync(join(root, dir))) for (const file of filesIn(join(root, dir))) take(file)
  for (const file of ['next.config.ts', 'proxy.ts', 'instrumentation.ts', 'package-lock.json', 'tsconfig.json'])
    if (existsSync(join(root, file)) && statSync(join(root, file)).isFile()) take(join(root, file))
  return sum.digest('hex')
}

/** The production build, when sources changed. */
export function build() {
  const mark = join(root, '.next', 'cuirass-sources')
  const now = sourcesMark()
  if (existsSync(mark) && readFileSync(mark, 'utf8') === now) return 'unchanged'
  const run = spawnSync(process.execPath, ['node_modules/next/dist/bin/next', 'build'], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  if (run.status !== 0)
    throw new Stop(`The build failed:\n${`${run.stdout}\n${run.stderr}`.split('\n').slice(-30).join('\n')}`)
  writeFileSync(mark, now)
  return 'built'
}

/** Runs one of our TypeScript scripts; its last line is the note. */
export function runScript(file, env, args = []) {
  const run = spawnSync(process.execPath, ['--import', 'tsx', join(root, 'scripts', file), ...args], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  if (run.status !== 0) throw new Stop(`${file} failed:\n${run.stderr.split('\n').slice(0, 12).join('\n')}`)
  return run.stdout.trim().split('\n').at(-1)
}

/** The production server. Killing it kills the listener itself: no npx in between. */
export const serve = (port, env, stdio = 'inherit') =>
  spawn(process.execPath, ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(port)], {
    cwd: root,
    stdio,
    env: { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1', ...env },
  })

/** A worker that lays out fleets; any number may run beside one another. */
export const startWorker = (env) =>
  spawn(process.execPath, ['--import', 'tsx', join(root, 'worker', 'main.ts')], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'production', ...env },
  })
/** The simulated cutting table over a folder. */
export const startTable = (dir) =>
  spawn(process.execPath, [join(root, 'scripts', 'cutting-table.mjs'), dir], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, CUIRASS_ROOT: root },
  })

export async function answers(url, seconds = 60, alive = () => true) {
  for (let i = 0; i < seconds * 10 && alive(); i++) {
    try {
      const response = await fetch(url)
      if (response.status < 500) return true
    } catch {
      // Not up yet: asked again below.
    }
    await new Promise((r) => setTimeout(r, 100))
  }
  return false
}
