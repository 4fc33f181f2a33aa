import { NextRequest } from 'next/server'
import { afterEach, describe, expect, it } from 'vitest'
import { answerJson, fileResponse } from '@/web/actions/routes'
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

describe('what a shop keeps to itself', () => {
  it('is kept by nothing in between: papers, tables, JSON (RFC 9111, 5.2.2.5)', () => {
    const paper = fileResponse('x', { type: 'application/pdf', name: 'x.pdf' })
    for (const answer of [
      paper,
      answerJson({ ok: true, value: 1 }),
      answerJson({ ok: false, error: { code: 'busy' } }),
    ])
      expect(answer.headers.get('cache-control')).toBe('private, no-store')
    expect(paper.headers.get('x-content-type-options')).toBe('nosniff')
  })
})
