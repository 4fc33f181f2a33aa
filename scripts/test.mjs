import { spawnSync } from 'node:child_process'
import { root } from './cluster.mjs'
import { ensureChromium, postgresBin } from './packages.mjs'
import { checkNode, installModules } from './prepare.mjs'
import { endWith, step } from './say.mjs'

try {
  checkNode()
  await step('PostgreSQL from Debian', () => (postgresBin().installed ? 'installed' : 'there'))
  await step('Chromium from Debian', () => (ensureChromium() ? 'installed' : 'there'))
  await step('npm packages', installModules)
  process.exitCode = spawnSync('npm', ['run', '--silent', 'check'], { cwd: root, stdio: 'inherit' }).status ?? 1
} catch (error) {
  endWith(error)
}
