'use client'

import { useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import Button from 'react-bootstrap/Button'
import Spinner from 'react-bootstrap/Spinner'
import { useJob } from '@/web/job/job-state'
import { faultText } from '@/web/words/faults'
import type { Fault } from '@/core/kit/result'
import { ROLES } from '@/core/model/rights/rights'
import { endStandIn, setLocked, setStandIn } from '@/web/job/at-this-tablet'
import { Keypad } from './keypad'
import { checkPin, dropPin, keepPin, peopleKept } from './pins-here'
import { changeIn, endSession, forgetOwnPin, peopleHere, setOwnPin, type TabletPerson } from './tablet'

/** In by four digits: at the server, or where no answer comes on this tablet alone, as whoever stands in. */
async function comeIn(
  who: TabletPerson,
  pin: string,
  { isSelf, over }: { isSelf: boolean; over: string },
): Promise<'server' | 'here' | Fault> {
  const fault = await changeIn(who.memberId, pin)
  if (fault === null) {
    endStandIn()
    await keepPin(who, pin).catch(() => {})
    return 'server'
  }
  if (fault.code === 'full_sign_in') await dropPin(who.memberId).catch(() => {})
  if (fault.code !== 'no_answer') return fault
  const here = await checkPin(who.memberId, pin).catch(() => fault)
  if (here) return here
  // Who is on the screen already stays who they are.
  if (isSelf) return 'here'
  const role = ROLES.find((r) => r === who.role)
  if (!role || !setStandIn({ id: who.memberId, name: who.name, role, over })) return { code: 'device_full' }
  setLocked(false)
  return 'here'
}

async function fullSignIn(go: () => void): Promise<void> {
  endStandIn()
  await endSession().catch(() => {})
  go()
}

const DIGITS = 4
const SIGN_IN = '/sign-in'

/**
 * Who works at this tablet: another person by four digits, one's own PIN set after a full sign-in, or the full sign-in.
 * Locked, there is no way back but one of these.
 */
export function ChangePerson({ locked, onBack }: { locked: boolean; onBack: () => void }) {
  const { member, signedInId } = useJob('member', 'signedInId')
  const router = useRouter()
  const [people, setPeople] = useState<TabletPerson[] | null>(null)
  const [who, setWho] = useState<TabletPerson | 'own' | null>(null)
  const [pin, setPin] = useState('')
  const [said, setSaid] = useState('')
  const [busy, setBusy] = useState(false)
  useEffect(() => {
    let there = true
    void peopleHere()
      .catch(peopleKept)
      .catch(() => [])
      .then((list) => there && setPeople(list))
    return () => {
      there = false
    }
  }, [])
  const enter = async (whole: string) => {
    if (who === null) return
    const isSelf = who !== 'own' && who.memberId === member.id
    setBusy(true)
    const out = who === 'own' ? await own(whole) : await comeIn(who, whole, { isSelf, over: signedInId })
    setBusy(false)
    setPin('')
    if (typeof out === 'object' && out !== null) {
      if (out.code === 'full_sign_in') setPeople((was) => (was ?? []).filter((p) => p !== who))
      return setSaid(faultText(out))
    }
    if (out === 'here' && isSelf) return onBack()
    // Another person's page: their name, their rights, their waiting entries.
    if (out !== null) return window.location.reload()
    setWho(null)
    setSaid('Your PIN counts on this tablet now.')
    setPeople(await peopleHere().catch(() => people))
  }
  /** One's own PIN: what the server takes this tablet keeps, to let its person in without it. */
  const own = async (whole: string): Promise<Fault | null> => {
    const fault = await setOwnPin(whole)
    if (!fault) await keepPin({ memberId: member.id, name: member.name, role: member.role }, whole).catch(() => {})
    return fault
  }
  const digit = (d: string) => {
    if (busy || !/^\d$/.test(d)) return
    const next = `${pin}${d}`.slice(0, DIGITS)
    setPin(next)
    setSaid('')
    if (next.length === DIGITS) void enter(next)
  }
  const hasPin = people?.some((p) => p.memberId === member.id) ?? false
  return (
    <div className="bay-dialog" role="dialog" aria-modal aria-label={locked ? 'Locked' : 'Change person'}>
      <div className="plate change-person">
        <h2>{locked ? 'Locked: who goes on?' : 'Who works here now?'}</h2>
        {who === null ? (
          <>
            {people === null && <Spinner aria-label="Looking up who has a PIN here" />}
            <div className="bay-grid">
              {(people ?? []).map((p) => (
                <Button key={p.memberId} variant="plain" onClick={() => setWho(p)}>
                  {p.name}
                </Button>
              ))}
            </div>
            {people?.length === 0 && <p>Nobody has a PIN on this tablet yet.</p>}
            <div className="d-flex gap-2 flex-wrap mt-2">
              {!locked && (
                <Button variant="plain" onClick={() => setWho('own')}>
                  {hasPin ? 'Another PIN for me' : 'A PIN for me here'}
                </Button>
              )}
              {!locked && hasPin && (
                <Button
                  variant="plain"
                  onClick={() =>
                    void forgetOwnPin().then(async (fault) => {
                      if (!fault) await dropPin(member.id).catch(() => {})
                      setSaid(fault ? faultText(fault) : 'Your PIN is gone from this tablet.')
                      setPeople(await peopleHere().catch(() => people))
                    })
                  }
                >
                  Forget mine
                </Button>
              )}
              <Button variant="plain" onClick={() => void fullSignIn(() => router.push(SIGN_IN))}>
                Full sign-in
              </Button>
            </div>
          </>
        ) : (
          <>
            <p className="fs-4 mb-1">{who === 'own' ? 'Four digits for you on this tablet' : who.name}</p>
            <p className="pin-dots" aria-label={`${pin.length} of ${DIGITS} digits`}>
              {'●'.repeat(pin.length)}
              {'○'.repeat(DIGITS - pin.length)}
            </p>
            <Keypad onDigit={digit} onBack={() => setPin(pin.slice(0, -1))} />
            <Button
              variant="plain"
              className="w-100 mt-2"
              onClick={() => {
                setWho(null)
                setPin('')
              }}
            >
              Somebody else
            </Button>
          </>
        )}
        {said !== '' && (
          <p className="fs-5 mt-2 mb-0" role="status">
            {said}
          </p>
        )}
        {!locked && (
          <Button variant="go" className="btn-go w-100 mt-3" onClick={onBack}>
            Back to work
          </Button>
        )}
      </div>
    </div>
  )
}
