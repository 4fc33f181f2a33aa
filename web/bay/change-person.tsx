'use client'

import { useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import Button from 'react-bootstrap/Button'
import Spinner from 'react-bootstrap/Spinner'
import { useJob } from '@/web/job/job-state'
import { faultText } from '@/web/words/faults'
import { Keypad } from './keypad'
import { changeIn, endSession, forgetOwnPin, peopleHere, setOwnPin, type TabletPerson } from './tablet'

const DIGITS = 4
const SIGN_IN = '/sign-in'

/**
 * Who works at this tablet: another person by four digits, one's own PIN set after a full sign-in, or the full sign-in.
 * Locked, there is no way back but one of these.
 */
export function ChangePerson({ locked, onBack }: { locked: boolean; onBack: () => void }) {
  const { member } = useJob('member')
  const router = useRouter()
  const [people, setPeople] = useState<TabletPerson[] | null>(null)
  const [who, setWho] = useState<TabletPerson | 'own' | null>(null)
  const [pin, setPin] = useState('')
  const [said, setSaid] = useState('')
  const [busy, setBusy] = useState(false)
  useEffect(() => {
    let there = true
    peopleHere().then(
      (list) => there && setPeople(list),
      () => there && setPeople([]),
    )
    return () => {
      there = false
    }
  }, [])
  const enter = async (whole: string) => {
    if (who === null) return
    setBusy(true)
    const fault = who === 'own' ? await setOwnPin(whole) : await changeIn(who.memberId, whole)
    setBusy(false)
    setPin('')
    if (fault) {
      if (fault.code === 'full_sign_in') setPeople((was) => (was ?? []).filter((p) => p !== who))
      return setSaid(faultText(fault))
    }
    // Another person's page: their name, their rights, their waiting entries.
    if (who !== 'own') return window.location.reload()
    setWho(null)
    setSaid('Your PIN counts on this tablet now.')
    setPeople(await peopleHere().catch(() => people))
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
                      setSaid(fault ? faultText(fault) : 'Your PIN is gone from this tablet.')
                      setPeople(await peopleHere().catch(() => people))
                    })
                  }
                >
                  Forget mine
                </Button>
              )}
              <Button variant="plain" onClick={() => void endSession().finally(() => router.push(SIGN_IN))}>
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
