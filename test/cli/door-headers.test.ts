import { NextRequest } from 'next/server'
import { afterEach, describe, expect, it } from 'vitest'
import { proxy } from '../../proxy'

const before = process.env.APP_URL
afterEach(() => {
  process.env.APP_URL = before
})
const asked = (appUrl: string, headers: Record<string, string>, path = '/sign-in') => {
  process.env.APP_URL = appUrl
  return proxy(new NextRequest(`http://127.0.0.1:3000${path}`, { headers }))
}

describe('headers at the door', () => {
  it('behind TLS say that it stays so; over plain HTTP they cannot (RFC 6797, 7.2)', () => {
    const tls = asked('https://wrap.example', { host: 'wrap.example' })
    expect(tls.headers.get('strict-transport-security')).toMatch(/^max-age=\d{7,}; includeSubDomains$/)
    expect(asked('http://127.0.0.1:3000', { host: '127.0.0.1:3000' }).headers.has('strict-transport-security')).toBe(
      false,
    )
  })
  it('of another host are refused, also where the origin matches it; a health check may come under any', () => {
    const foreign = { host: 'evil.example', origin: 'https://evil.example' }
    expect(asked('https://wrap.example', foreign).status).toBe(421)
    expect(asked('https://wrap.example', { host: 'wrap.example', 'x-forwarded-host': 'evil.example' }).status).toBe(421)
    expect(asked('https://wrap.example', foreign, '/api/health').status).toBe(200)
    expect(asked('https://wrap.example', { host: 'wrap.example' }).status).toBe(200)
  })
})
