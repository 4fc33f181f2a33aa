import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { Stop } from './say.mjs'

export const isRoot = () => process.getuid?.() === 0
const quiet = { stdio: ['ignore', 'ignore', 'pipe'], encoding: 'utf8' }

/** Installs Debian packages, as root or through sudo; without either, says which ones to install. */
export function installPackages(names) {
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const sudo = isRoot()
    ? []
    : spawnSync('sudo', ['-n', 'true']).status === 0
      ? ['sudo', '-n']
      : process.stdin.isTTY && spawnSync('sudo', ['-v'], { stdio: 'inherit' }).status === 0
        ? ['sudo']
        : null
  if (!sudo)
    throw new Stop(
      `These Debian packages are missing: ${names.join(' ')}\nInstall them as root, then start ` +
        `again:\n  apt-get update && apt-get install -y --no-install-recommends ${names.join(' ')}`,
    )
  for (const words of [
    ['apt-get', 'update', '-q'],
    ['apt-get', 'install', '-y', '-q', '--no-install-recommends', ...names],
  ]) {
    const [command, ...args] = [...sudo, ...words]
    const run = spawnSync(command, args, { ...quiet, env })
    if (run.status !== 0)
      throw new Stop(
        `${words.join(' ')} failed: ` +
          `${run.stderr?.split('\n').filter(Boolean).at(-1) ?? run.error?.message ?? ''}\nInstall by hand: ` +
          `${names.join(' ')}`,
      )
  }
}

/** Folder of PostgreSQL's programs, newest first; installs the package where there is none. */
export function postgresBin() {
  const find = () => {
    const base = '/usr/lib/postgresql'
    const versions = existsSync(base) ? readdirSync(base).filter((v) => existsSync(`${base}/${v}/bin/initdb`)) : []
    const newest = versions.sort((a, b) => Number(b) - Number(a))[0]
    if (newest) return `${base}/${newest}/bin`
    try {
      const bin = execFileSync('pg_config', ['--bindir'], quiet).toString().trim()
      return existsSync(`${bin}/initdb`) ? bin : null
    } catch {
      return null
    }
  }
  const there = find()
  if (there) return { bin: there, installed: false }
  installPackages(['postgresql'])
  const now = find()
  if (!now) throw new Stop('The package postgresql was installed, but its programs are not under /usr/lib/postgresql.')
  return { bin: now, installed: true }
}

export function ensureChromium() {
  if (existsSync('/usr/bin/chromium')) return false
  installPackages(['chromium'])
  return true
}
