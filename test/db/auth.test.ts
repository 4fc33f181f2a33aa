import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { auth } from '@/db/auth'
import { closeDatabase } from '@/db/client'
import { demoLoaded } from '@/db/queries/people'
import { shopWorld } from './world'

const base = 'http://127.0.0.1:3999'
let ip = 0
const signIn = (email: string, password: string, headers: Record<string, string> = {}) =>
  auth().handler(
    new Request(`${base}/api/auth/sign-in/email`, {
      method: 'POST',
      body: JSON.stringify({ email, password }),
      headers: { 'content-type': 'application/json', origin: base, 'x-forwarded-for': `10.0.0.${ip}`, ...headers },
    }),
  )

let email = ''
beforeAll(async () => {
  const w = await shopWorld()
  email = `lead@${w.who.lead.name.split(' ')[1]}.example`
})
afterAll(closeDatabase)

describe('sign-in', () => {
  it('right words give an HttpOnly, SameSite cookie; wrong ones 401', async () => {
    ip = 1
    const good = await signIn(email, 'long-enough-words')
    expect(good.status).toBe(200)
    expect(good.headers.get('set-cookie')).toMatch(/HttpOnly/i)
    expect(good.headers.get('set-cookie')).toMatch(/SameSite=Lax/i)
    expect((await signIn(email, 'something-else')).status).toBe(401)
    expect((await signIn('nobody@nowhere.example', 'something-else')).status).toBe(401)
  })
  it('nobody can sign up from outside', async () => {
    const r = await auth().handler(
      new Request(`${base}/api/auth/sign-up/email`, {
        method: 'POST',
        body: JSON.stringify({ email: `x@${randomUUID()}.example`, password: 'long-enough-words', name: 'X' }),
        headers: { 'content-type': 'application/json', origin: base },
      }),
    )
    expect(r.status).toBeGreaterThanOrEqual(400)
  })
  it('attempts from one address are throttled', async () => {
    ip = 3
    const codes: number[] = []
    for (let i = 0; i < 8; i++) codes.push((await signIn(`a${i}@b.example`, 'wrong-words-here')).status)
    expect(codes.slice(0, 5)).toEqual([401, 401, 401, 401, 401])
    expect(codes.at(-1)).toBe(429)
  })
  it('attempts at one person are throttled from whatever address', async () => {
    const codes: number[] = []
    for (let i = 0; i < 13; i++) {
      ip = 10 + i
      codes.push((await signIn('target@b.example', 'wrong-words-here')).status)
    }
    expect(codes[0]).toBe(401)
    expect(codes.at(-1)).toBe(429)
  })
})

it('without demo data there is no one-click sign-in', async () => {
  const { POST } = await import('@/app/api/demo-sign-in/route')
  const loaded = await demoLoaded()
  const r = await POST(new Request(`${base}/api/demo-sign-in`, { method: 'POST', headers: { host: '127.0.0.1:3999' } }))
  expect(r.status === 404).toBe(!loaded)
})
