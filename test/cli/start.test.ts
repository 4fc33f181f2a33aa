import { createServer } from 'node:net'
import { spawnSync } from 'node:child_process'
import { statSync } from 'node:fs'
import { expect, it } from 'vitest'

const run = (script: string, env: Record<string, string> = {}) =>
  spawnSync('bin/' + script, { encoding: 'utf8', shell: true, env: { ...process.env, ...env } })

it('a free port is found beside one that is taken', async () => {
  const { freePort } = (await import('../../scripts/cluster.mjs')) as { freePort: (usual: number) => Promise<number> }
  const server = createServer()
  const taken = await new Promise<number>((done) =>
    server.listen(0, '127.0.0.1', () => done((server.address() as { port: number }).port)),
  )
  expect(await freePort(taken)).toBeGreaterThan(taken)
  server.close()
})
it('secrets are made once and are for their owner’s eyes', async () => {
  const { secrets } = (await import('../../scripts/cluster.mjs')) as { secrets: () => { authSecret: string } }
  expect(secrets().authSecret.length).toBeGreaterThanOrEqual(32)
  expect(secrets()).toEqual(secrets())
  expect(statSync('.data/secrets.json').mode & 0o077).toBe(0)
})
it.each([
  ['demo --dance', {}, /Unknown: --dance/],
  ['start --reset', { DATABASE_URL: '' }, /belongs to bin\/demo/],
  ['demo --reset', { DATABASE_URL: 'postgres://x@127.0.0.1:1/x' }, /private cluster only/],
])('bin/%s stops with one clear line', (script, env, why) => {
  const r = run(script, env)
  expect(r.status).toBe(1)
  expect(r.stderr).toMatch(why)
  expect(r.stderr).not.toMatch(/ {4}at /)
})
