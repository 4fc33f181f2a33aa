import { redirect } from 'next/navigation'
import { demoLoaded } from '@/db/queries/people'
import { currentMember } from '@/web/actions/session'
import { SignIn } from '@/web/people/sign-in'

export const metadata = { title: 'Sign in' }

export default async function SignInPage() {
  if (await currentMember()) redirect('/')
  return <SignIn demo={await demoLoaded()} />
}
