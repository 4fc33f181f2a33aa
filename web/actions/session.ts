import { headers } from 'next/headers'
import { redirect } from 'next/navigation'
import { cache } from 'react'
import { sessionUser } from '@/db/auth'
import { whoIs } from '@/db/queries/people'

/** The signed-in member, or null. Once per request. */
export const currentMember = cache(async () => {
  const userId = await sessionUser(await headers())
  return userId ? whoIs(userId) : null
})

/** For pages: the signed-in member, or off to the door. */
export async function requireMember() {
  const member = await currentMember()
  if (!member) redirect('/sign-in')
  return member
}
