import { spawnSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { readEnvironment } from '@/db/environment'
import { hostIsOurs } from '@/proxy'
import { knownTimeZone } from '@/web/words/format'

const good = {
  DATABASE_URL: 'postgres://app@127.0.0.1/x',
  AUTH_SECRET: 'x'.repeat(32),
  APP_URL: 'https://wrap.example',
}

describe('what a process is started with', () => {
  it('is read with its defaults', () =>
    expect(readEnvironment(good)).toMatchObject({
      AUTH_ATTEMPTS: 5,
      DATABASE_POOL: 10,
      TRUSTED_PROXIES: [],
      THREADS: 2,
    }))
  it('empty values are as if they were not set', () =>
    expect(readEnvironment({ ...good, AUTH_ATTEMPTS: '', DATABASE_OWNER_URL: ' ' })).toMatchObject({
      AUTH_ATTEMPTS: 5,
    }))
  it.each([
    ['AUTH_ATTEMPTS', 'five'],
    ['AUTH_ATTEMPTS', '0'],
    ['AUTH_ATTEMPTS', 'Infinity'],
    ['DATABASE_POOL', '2.5'],
    ['DATABASE_URL', 'mysql://x'],
    ['DATABASE_URL', ''],
    ['APP_URL', 'wrap.example'],
    ['AUTH_SECRET', 'short'],
    ['TRUSTED_PROXIES', '127.0.0.1, proxy'],
    ['THREADS', '-1'],
  ])('%s=%s is named and never shown', (name, value) => {
    const read = readEnvironment({ ...good, [name]: value })
    expect('faults' in read && read.faults).toEqual([expect.stringMatching(new RegExp(`^${name}: `))])
    if (value.length > 3) expect(JSON.stringify(read)).not.toContain(value)
  })
  it('a bad one ends the start with its name', () => {
    const r = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/migrate.ts'], {
      encoding: 'utf8',
      env: { ...process.env, ...good, AUTH_ATTEMPTS: 'five' },
    })
    expect(r.status).toBe(1)
    expect(r.stderr).toMatch(/AUTH_ATTEMPTS: a whole number/)
    expect(r.stderr).not.toMatch(/\n\s+at /)
  })
})

describe('the name a request comes under', () => {
  const ours = (headers: Record<string, string>, path = '/') =>
    hostIsOurs(new Headers(headers), path, 'https://wrap.example')
  it('has to be the server’s own, whatever its Origin says', () => {
    expect(ours({ host: 'wrap.example' })).toBe(true)
    expect(ours({ host: 'evil.example', origin: 'https://evil.example' })).toBe(false)
    expect(ours({ host: 'wrap.example', 'x-forwarded-host': 'evil.example' })).toBe(false)
    expect(ours({ host: '10.0.0.3:3000' }, '/api/health')).toBe(true)
    expect(hostIsOurs(new Headers({ host: 'localhost:3000' }), '/', 'http://127.0.0.1:3000')).toBe(true)
  })
})

it('a time zone that is none is read as UTC, so that no page breaks on it', () => {
  expect(knownTimeZone('Europe/Dublin')).toBe('Europe/Dublin')
  expect(knownTimeZone('Mars/Olympus')).toBe('UTC')
})
