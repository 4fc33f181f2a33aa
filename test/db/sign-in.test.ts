import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closeDatabase } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { demoLoaded, whoIs } from '@/db/queries/people'
import { addressOf, countFailure, waitAfter, waitBefore } from '@/db/sign-in-tries'
import { demo, shopWorld, type ShopWorld } from './world'

const { POST } = await import('@/app/api/auth/[...all]/route')
const base = 'http://127.0.0.1:3999'
const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
  POST(
    new Request(`${base}/api/auth/${path}`, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json', origin: base, ...headers },
    }),
    { params: Promise.resolve({ all: path.split('/') }) },
  )
const signIn = (email: string, password: string, from: string | null = null) =>
  post('sign-in/email', { email, password }, from ? { 'x-forwarded-for': from } : {})

let world: ShopWorld
let email = ''
beforeAll(async () => {
  process.env.TRUSTED_PROXIES = '127.0.0.1'
  world = await shopWorld()
  email = `lead@${world.who.lead.name.split(' ')[1]}.example`
})
afterAll(async () => {
  await closeWorkQueue()
  await closeDatabase()
})

describe('signing in', () => {
  it('right words give an HttpOnly, SameSite cookie; wrong ones 401, whoever is asked for', async () => {
    const good = await signIn(email, 'long-enough-words', '10.1.0.1')
    expect(good.status).toBe(200)
    expect(good.headers.get('set-cookie')).toMatch(/HttpOnly/i)
    expect(good.headers.get('set-cookie')).toMatch(/SameSite=Lax/i)
    for (const wrong of [
      signIn(email, 'something-else', '10.1.0.1'),
      signIn('nobody@nowhere.example', 'x', '10.1.0.1'),
    ])
      expect((await wrong).status).toBe(401)
  })
  it.each([
    ['no JSON', '{'],
    ['a name of a million letters', JSON.stringify({ email: `${'x'.repeat(1e6)}@x.example`, password: 'p' })],
    ['a NUL in it', JSON.stringify({ email: 'a\u0000@x.example', password: 'p' })],
    ['no fields', '{}'],
  ])('%s is no sign-in, and no error of the server', async (_, body) => {
    const request = new Request(`${base}/api/auth/sign-in/email`, { method: 'POST', body, headers: { origin: base } })
    expect((await POST(request, { params: Promise.resolve({ all: ['sign-in', 'email'] }) })).status).toBe(401)
  })
  it('a page of another origin cannot, also where its Host agrees with it', async () => {
    const answer = await post(
      'sign-in/email',
      { email, password: 'long-enough-words' },
      { origin: 'http://elsewhere.example', host: 'elsewhere.example' },
    )
    expect(answer.status).toBe(403)
  })
})

describe('the sign-in library’s other routes are closed', () => {
  it.each([
    'update-user',
    'sign-up/email',
    'change-email',
    'change-password',
    'delete-user',
    'list-sessions',
    'revoke-sessions',
    'forget-password',
  ])('%s', async (path) => {
    const cookie = (await signIn(email, 'long-enough-words', '10.1.0.2')).headers.get('set-cookie')?.split(';')[0] ?? ''
    expect(cookie).toContain('cuirass')
    expect((await post(path, { name: 'Somebody Else' }, { cookie })).status).toBe(404)
    expect((await whoIs(world.who.lead.userId))?.who.name).toBe(world.who.lead.name)
  })
})

describe('tries', () => {
  it('five are free, then each waits longer: the eleventh comes more than ten minutes after the first', () => {
    expect([0, 4, 5, 6, 7, 20].map((n) => waitAfter(n, 5))).toEqual([0, 0, 15, 30, 60, 480])
    expect([5, 6, 7, 8, 9, 10].reduce((sum, n) => sum + waitAfter(n, 5), 0)).toBeGreaterThan(600)
  })
  it('at one person are counted from whatever address, also as fast as they come; ten in ten minutes', async () => {
    const target = `target-${randomUUID()}@b.example`
    let clock = Date.now()
    let tried = 0
    for (const end = clock + 600_000; clock < end; clock += 500) {
      const trier = { email: target, address: `10.2.${Math.floor(tried / 200)}.${tried % 200}` }
      if ((await waitBefore(trier, new Date(clock))) > 0) continue
      await countFailure(trier, new Date(clock))
      tried++
    }
    expect(tried).toBeGreaterThanOrEqual(5)
    expect(tried).toBeLessThanOrEqual(10)
  }, 120_000)
  it('from elsewhere do not shut out whoever signed in from their own address before', async () => {
    expect((await signIn(email, 'long-enough-words', '10.3.0.1')).status).toBe(200)
    for (let i = 0; i < 9; i++) await countFailure({ email, address: `10.4.0.${i}` }, new Date())
    expect((await signIn(email, 'long-enough-words', '10.4.1.1')).status).toBe(429)
    expect((await signIn(email, 'long-enough-words', '10.3.0.1')).status).toBe(200)
  })
  it('sent all at once are no more than one after the other: five go on of forty, at one person and from anywhere', async () => {
    const target = `burst-${randomUUID()}@b.example`
    const all = await Promise.all(
      Array.from({ length: 40 }, (_, i) => signIn(target, 'wrong-words-here', `10.6.0.${i}`)),
    )
    const statuses = all.map((answer) => answer.status)
    expect(statuses.filter((s) => s === 401).length).toBe(5)
    expect(statuses.filter((s) => s === 429).length).toBe(35)
  })
  it('that were right count as nothing: any number, also at once', async () => {
    const right = email.replace('lead@', 'owner@')
    const all = await Promise.all(Array.from({ length: 4 }, () => signIn(right, 'long-enough-words', '10.7.0.1')))
    for (let i = 0; i < 12; i++) all.push(await signIn(right, 'long-enough-words', '10.7.0.1'))
    expect(all.map((answer) => answer.status)).toEqual(Array.from({ length: 16 }, () => 200))
  })
  it('one that has to wait is told how long', async () => {
    const target = `told-${randomUUID()}@b.example`
    for (let i = 0; i < 5; i++) expect((await signIn(target, 'wrong-words-here', `10.5.0.${i}`)).status).toBe(401)
    const answer = await signIn(target, 'wrong-words-here', '10.5.0.9')
    expect(answer.status).toBe(429)
    expect(Number(answer.headers.get('retry-after'))).toBeGreaterThan(10)
    expect(await answer.json()).toMatchObject({ error: { code: 'too_many_attempts', facts: { seconds: 15 } } })
  })
  it('a made-up X-Forwarded-For is believed only from proxies that are named, and from the right', () => {
    expect(addressOf('1.2.3.4', [])).toBeNull()
    expect(addressOf('1.2.3.4', ['10.0.0.9'])).toBeNull()
    expect(addressOf('1.2.3.4', ['127.0.0.1'])).toBe('1.2.3.4')
    // What a client puts before it is passed over.
    expect(addressOf('6.6.6.6, 1.2.3.4', ['127.0.0.1'])).toBe('1.2.3.4')
    expect(addressOf('6.6.6.6, 1.2.3.4, 10.0.0.9', ['127.0.0.1', '10.0.0.9'])).toBe('1.2.3.4')
    expect(addressOf(null, ['127.0.0.1'])).toBeNull()
  })
})

describe('the demo’s one click', () => {
  it('is not there without demo data, and with it works any number of times', async () => {
    const { POST: enter } = await import('@/app/api/demo-sign-in/route')
    const click = () =>
      enter(new Request(`${base}/api/demo-sign-in?role=lead`, { method: 'POST', headers: { origin: base } }))
    if (!(await demoLoaded())) expect((await click()).status).toBe(404)
    await demo()
    for (let i = 0; i < 12; i++) expect((await click()).status).toBe(200)
  }, 120_000)
})
