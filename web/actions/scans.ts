import { isPlainText } from '@/core/kit/plain-text'
import { unpackScan } from '@/core/engines/stretch/scan-file'
import { dropScan, keepScan, scanBytes, scansOf } from '@/db/queries/stretch'
import { broken, refuse } from './answer'
import { answerJson, gives, isUuid, takes } from './routes'
import { currentMember } from './session'

const MAX_SCAN_BYTES = 6_000_000
const PANEL = /^[a-z0-9][a-z0-9-]{0,59}$/

/** Which panels of a job have a scan. */
export async function listScans(jobId: string): Promise<Response> {
  try {
    const member = await currentMember()
    if (!member) return answerJson(refuse('signed_out'))
    const list = isUuid(jobId) ? await scansOf(member.who, jobId) : null
    return answerJson(list ? { ok: true, value: list } : refuse('not_found'))
  } catch (error) {
    return answerJson(broken(error))
  }
}
/** A scan as it was kept. */
export const showScan = (jobId: string, panelId: string): Promise<Response> =>
  gives(async ({ who }) => {
    const bytes = isUuid(jobId) && PANEL.test(panelId) ? await scanBytes(who, jobId, panelId) : null
    if (!bytes) return null
    return new Response(new Uint8Array(bytes), {
      headers: {
        'content-type': 'application/octet-stream',
        'cache-control': 'private, no-store',
        'x-content-type-options': 'nosniff',
      },
    })
  })
/** A cleaned scan sent as the request's body; it takes the place of an older one. */
export const takeScan = (request: Request, jobId: string, panelId: string): Promise<Response> =>
  takes(
    request,
    { right: 'scan', limit: MAX_SCAN_BYTES, tooLarge: 'scan_too_large' },
    async ({ who }, bytes) => {
      if (!isUuid(jobId) || !PANEL.test(panelId)) return refuse('not_found')
      const name = (new URL(request.url).searchParams.get('name') ?? '').trim().slice(0, 120) || 'Scan'
      if (!isPlainText(name)) return { ok: false, error: { code: 'control_character', at: 'name' } }
      const scan = unpackScan(bytes)
      if (!scan.ok) return scan
      const out = await keepScan(who, { jobId, panelId, name, triangles: scan.value.triangles.length / 3, bytes })
      return out === 'done' ? { ok: true, value: null } : refuse(out)
    },
    201,
  )
export const removeScan = (request: Request, jobId: string, panelId: string): Promise<Response> =>
  takes(request, { right: 'scan', limit: 0 }, async ({ who }) => {
    if (!isUuid(jobId) || !PANEL.test(panelId)) return refuse('not_found')
    await dropScan(who, jobId, panelId)
    return { ok: true, value: null }
  })
