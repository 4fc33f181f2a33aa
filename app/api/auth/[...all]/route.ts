import { signIn, signOut } from '@/web/actions/sign-in'

/** Of the sign-in library only what is used is open: in and out. Every other route of it does not exist here. */
export async function POST(request: Request, { params }: { params: Promise<{ all: string[] }> }): Promise<Response> {
  const path = (await params).all.join('/')
  if (path === 'sign-in/email') return signIn(request)
  if (path === 'sign-out') return signOut(request)
  return new Response('Not found', { status: 404 })
}
