import type { Fault } from '@/core/kit/result'

/** Somebody who has a PIN on this tablet. */
export interface TabletPerson {
  memberId: string
  name: string
  role: string
}

/** Ends the session of this browser; what it keeps of jobs and waiting entries stays. */
export const endSession = (): Promise<unknown> =>
  fetch('/api/auth/sign-out', { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' })

export async function peopleHere(): Promise<TabletPerson[]> {
  const response = await fetch('/api/tablet', { cache: 'no-store' })
  return response.ok ? ((await response.json()) as { people: TabletPerson[] }).people : []
}

async function send(method: 'PUT' | 'POST' | 'DELETE', body: object): Promise<Fault | null> {
  try {
    const response = await fetch('/api/tablet', {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
    if (response.ok) return null
    const said = (await response.json()) as { error?: Fault }
    return said.error ?? { code: 'went_wrong', facts: { reference: '-' } }
  } catch {
    return { code: 'no_answer' }
  }
}
/** The signed-in member's own PIN on this tablet. Null: it is set. */
export const setOwnPin = (pin: string) => send('PUT', { pin })
export const forgetOwnPin = () => send('DELETE', {})
/** Another person comes in by their PIN. Null: they are in. */
export const changeIn = (memberId: string, pin: string) => send('POST', { memberId, pin })
