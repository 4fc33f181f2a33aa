import { health } from '@/db/queries/health'

/** For whoever watches the server: no sign-in, no secrets. */
export async function GET(): Promise<Response> {
  const state = await health()
  return Response.json(state, { status: state.ok ? 200 : 503, headers: { 'cache-control': 'no-store' } })
}
