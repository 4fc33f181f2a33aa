import { unpackScan } from '@/core/stretch/scan-file'
import { dropScan, keepScan, scanBytes, scansOf } from '@/db/queries/stretch'
import { bodyWithin } from './body'
import { broken, no, type Answer } from './answer'
import { fromOutside } from './origin'
import { currentMember } from './session'

const MAX_SCAN_BYTES = 6_000_000
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i
const PANEL = /^[a-z0-9][a-z0-9-]{0,59}$/
const json = (body: Answer<unknown>, status: number): Response => Response.json(body, { status })

/** Which panels of a job have a scan. */
export async function listScans(jobId: string): Promise<Response> {
  const member = await currentMember()
  if (!member) return json(no('signed_out'), 401)
  if (!UUID.test(jobId)) return json(no('not_found'), 404)
  const list = await scansOf(member.who, jobId)
  return list ? json({ ok: true, value: list }, 200) : json(no('not_found'), 404)
}
/** A scan as it was kept. */
export async function showScan(jobId: string, panelId: string): Promise<Response> {
  const member = await currentMember()
  if (!member) return new Response('Sign in first', { status: 401 })
  const bytes = UUID.test(jobId) && PANEL.test(panelId) ? await scanBytes(member.who, jobId, panelId) : null
  if (!bytes) return new Response('Not found', { status: 404 })
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'private, no-store', 'x-content-type-options': 'nosniff' },
  }) // prettier-ignore
}
/** A cleaned scan sent as the request's body; it takes the place of an older one. */
export async function takeScan(request: Request, jobId: string, panelId: string): Promise<Response> {
  if (fromOutside(request)) return json(no('not_allowed'), 403)
  const member = await currentMember()
  if (!member) return json(no('signed_out'), 401)
  if (!UUID.test(jobId) || !PANEL.test(panelId)) return json(no('not_found'), 404)
  try {
    const bytes = await bodyWithin(request, MAX_SCAN_BYTES)
    if (!bytes) return json(no('scan_too_large', { limit: MAX_SCAN_BYTES }), 413)
    const scan = unpackScan(bytes)
    if (!scan.ok) return json(no(scan.error.code, scan.error.facts), 422)
    const name = (new URL(request.url).searchParams.get('name') ?? '').trim().slice(0, 120) || 'Scan'
    const out = await keepScan(member.who, { jobId, panelId, name, triangles: scan.value.triangles.length / 3, bytes })
    return out === 'done' ? json({ ok: true, value: null }, 201) : json(no(out), 404)
  } catch (error) {
    const answer = broken(error)
    return json(answer, answer.error.code === 'not_allowed' ? 403 : 500)
  }
}
export async function removeScan(request: Request, jobId: string, panelId: string): Promise<Response> {
  if (fromOutside(request)) return json(no('not_allowed'), 403)
  const member = await currentMember()
  if (!member) return json(no('signed_out'), 401)
  if (!UUID.test(jobId) || !PANEL.test(panelId)) return json(no('not_found'), 404)
  try {
    await dropScan(member.who, jobId, panelId)
    return json({ ok: true, value: null }, 200)
  } catch (error) {
    const answer = broken(error)
    return json(answer, answer.error.code === 'not_allowed' ? 403 : 500)
  }
}
