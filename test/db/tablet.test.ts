import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sessionUser } from '@/db/auth'
import { closeDatabase } from '@/db/client'
import { PIN_TRIES } from '@/db/tablet-pins'
import { changeInAtTablet, forgetTabletPin, setTabletPin, tabletPeople } from '@/web/actions/tablet'
import { signIn } from '@/web/actions/sign-in'
import { members, whoIs } from '@/db/queries/people'
import { shopWorld, type ShopWorld } from './world'

let [made, other]: ShopWorld[] = []
beforeAll(async () => {
  made = await shopWorld()
  other = await shopWorld()
})
afterAll(closeDatabase)
const world = (): ShopWorld => {
  if (!made) throw new Error('no shop')
  return made
}

/** A tablet as a browser is one: it keeps what it is given. */
class Tablet {
  private readonly jar = new Map<string, string>()
  get cookie(): string {
    return [...this.jar].map(([k, v]) => `${k}=${v}`).join('; ')
  }
  request(method: string, body?: unknown, headers: Record<string, string> = {}): Request {
    return new Request('http://127.0.0.1:3999/api/tablet', {
      method,
      headers: { host: '127.0.0.1:3999', cookie: this.cookie, 'content-type': 'application/json', ...headers },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
  }
  take(response: Response): Response {
    for (const line of response.headers.getSetCookie()) {
      const [pair = ''] = line.split(';')
      const at = pair.indexOf('=')
      if (/max-age=0/i.test(line)) this.jar.delete(pair.slice(0, at))
      else this.jar.set(pair.slice(0, at), pair.slice(at + 1))
    }
    return response
  }
  async signedIn(): Promise<string | null> {
    const userId = await sessionUser(new Headers({ cookie: this.cookie }))
    return userId ? ((await whoIs(userId))?.who.memberId ?? null) : null
  }
  async fullSignIn(email: string): Promise<void> {
    const body = JSON.stringify({ email, password: 'long-enough-words' })
    const headers = { host: '127.0.0.1:3999', 'content-type': 'application/json' }
    const request = new Request('http://127.0.0.1:3999/api/auth/sign-in/email', { method: 'POST', headers, body })
    expect(this.take(await signIn(request)).status).toBe(200)
  }
  pin = async (pin: string) => this.take(await setTabletPin(this.request('PUT', { pin })))
  enter = async (memberId: string, pin: string) =>
    this.take(await changeInAtTablet(this.request('POST', { memberId, pin })))
  people = async () =>
    ((await (await tabletPeople(this.request('GET'))).json()) as { people: { memberId: string }[] }).people.map(
      (p) => p.memberId,
    )
}
const emailOf = async (role: 'lead' | 'installer' | 'owner', w = world()) =>
  (await members(w.who.owner)).find((m) => m.id === w.who[role].memberId)?.email ?? ''
const codeOf = async (response: Response) =>
  ((await response.json()) as { error?: { code: string; facts?: object } }).error

/** A tablet on which lead and installer have set their PINs; the lead is in. */
async function shared(): Promise<Tablet> {
  const tablet = new Tablet()
  await tablet.fullSignIn(await emailOf('installer'))
  expect((await tablet.pin('2580')).status).toBe(200)
  await tablet.fullSignIn(await emailOf('lead'))
  expect((await tablet.pin('7391')).status).toBe(200)
  return tablet
}

describe('a shared tablet', () => {
  it('is changed by four digits: the person before is out, the next one in, with their own rights', async () => {
    const { lead, installer } = world().who
    const tablet = await shared()
    expect((await tablet.people()).sort()).toEqual([lead.memberId, installer.memberId].sort())
    const before = tablet.cookie
    expect((await tablet.enter(installer.memberId, '2580')).status).toBe(200)
    expect(await tablet.signedIn()).toBe(installer.memberId)
    // The session before is ended, not only its cookie replaced.
    expect(await sessionUser(new Headers({ cookie: before }))).toBeNull()
    expect((await tablet.enter(lead.memberId, '7391')).status).toBe(200)
    expect(await tablet.signedIn()).toBe(lead.memberId)
  })

  it('five wrong tries ask for the full sign-in, right ones too; a new PIN after it counts again', async () => {
    const { installer } = world().who
    const tablet = await shared()
    const wrong = async () => codeOf(await tablet.enter(installer.memberId, '0000'))
    for (let left = PIN_TRIES - 1; left > 0; left--)
      expect(await wrong()).toMatchObject({ code: 'wrong_pin', facts: { left } })
    expect(await wrong()).toMatchObject({ code: 'full_sign_in' })
    expect(await codeOf(await tablet.enter(installer.memberId, '2580'))).toMatchObject({ code: 'full_sign_in' })
    expect(await tablet.people()).not.toContain(installer.memberId)
    await tablet.fullSignIn(await emailOf('installer'))
    await tablet.pin('1111')
    expect((await tablet.enter(installer.memberId, '1111')).status).toBe(200)
  })

  it('forty tries at once are no more than five', async () => {
    const { installer } = world().who
    const tablet = await shared()
    const codes = await Promise.all(
      Array.from({ length: 40 }, async () => (await codeOf(await tablet.enter(installer.memberId, '0001')))?.code),
    )
    expect(codes.filter((c) => c === 'wrong_pin').length).toBeLessThanOrEqual(PIN_TRIES - 1)
    expect(await codeOf(await tablet.enter(installer.memberId, '2580'))).toMatchObject({ code: 'full_sign_in' })
  })

  it('a right PIN sets wrong tries back; another person’s PIN is not one’s own', async () => {
    const { lead, installer } = world().who
    const tablet = await shared()
    await tablet.enter(installer.memberId, '9999')
    expect(await codeOf(await tablet.enter(installer.memberId, '7391'))).toMatchObject({ facts: { left: 3 } })
    expect((await tablet.enter(installer.memberId, '2580')).status).toBe(200)
    expect(await codeOf(await tablet.enter(installer.memberId, '9999'))).toMatchObject({ facts: { left: 4 } })
    expect(await codeOf(await tablet.enter(lead.memberId, '2580'))).toMatchObject({ code: 'wrong_pin' })
    expect(await tablet.signedIn()).toBe(installer.memberId)
  })

  it('on another tablet the same PIN is none; without a tablet nobody is told who there is', async () => {
    const { lead } = world().who
    await shared()
    const strange = new Tablet()
    expect(await strange.people()).toEqual([])
    expect(await codeOf(await strange.enter(lead.memberId, '7391'))).toMatchObject({ code: 'full_sign_in' })
    await strange.fullSignIn(await emailOf('owner'))
    await strange.pin('4444')
    expect(await codeOf(await strange.enter(lead.memberId, '7391'))).toMatchObject({ code: 'full_sign_in' })
  })

  it('a PIN is set only by who is signed in, is four digits, and never by a page from elsewhere', async () => {
    const { lead } = world().who
    const nobody = new Tablet()
    expect((await nobody.pin('1234')).status).toBe(401)
    const tablet = await shared()
    for (const bad of ['123', '12345', 'abcd', '', '12 4'])
      expect(await codeOf(await tablet.pin(bad))).toMatchObject({ code: 'no_pin' })
    const evil = { origin: 'https://elsewhere.example' }
    expect((await setTabletPin(tablet.request('PUT', { pin: '1234' }, evil))).status).toBe(403)
    const steal = tablet.request('POST', { memberId: lead.memberId, pin: '7391' }, evil)
    expect((await changeInAtTablet(steal)).status).toBe(403)
    expect((await changeInAtTablet(tablet.request('POST', { memberId: 'x' }))).status).toBe(422)
  })

  it('two shops on one tablet: a member of another shop has no PIN here but their own', async () => {
    const tablet = await shared()
    const theirs = other?.who.lead.memberId ?? ''
    expect(await codeOf(await tablet.enter(theirs, '7391'))).toMatchObject({ code: 'full_sign_in' })
    expect(await tablet.people()).not.toContain(theirs)
  })

  it('one’s own PIN is forgotten when one says so; the others’ stay', async () => {
    const { lead, installer } = world().who
    const tablet = await shared()
    expect((await forgetTabletPin(tablet.request('DELETE', {}))).status).toBe(200)
    expect(await tablet.people()).toEqual([installer.memberId])
    expect(await codeOf(await tablet.enter(lead.memberId, '7391'))).toMatchObject({ code: 'full_sign_in' })
  })
})
