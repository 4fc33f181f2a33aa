import { auth } from '@/db/auth'
import { DEMO_PASSWORD, DEMO_PEOPLE } from '@/db/demo/people'
import { demoLoaded } from '@/db/queries/people'
import { fromOutside } from '@/web/actions/origin'

/** One click into the demo shop. Exists only where the demo data was loaded. */
export async function POST(request: Request): Promise<Response> {
  if (!(await demoLoaded())) return new Response('Not found', { status: 404 })
  if (fromOutside(request)) return new Response('Wrong origin', { status: 403 })
  const role = new URL(request.url).searchParams.get('role') ?? 'lead'
  const person = DEMO_PEOPLE.find((p) => p.role === role)
  if (!person) return new Response('No such role', { status: 400 })
  return auth().api.signInEmail({
    body: { email: person.email, password: DEMO_PASSWORD },
    asResponse: true,
    headers: request.headers,
  })
}
