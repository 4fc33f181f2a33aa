import { MAX_FILE_BYTES } from '@/core/kit/json-guard'
import { readPlan, writePlan } from '@/core/plan/parse'
import { createJob, openJob } from '@/db/queries/jobs'
import { bodyWithin } from './body'
import { broken, no, type Answer } from './answer'
import { fromOutside } from './origin'
import { currentMember } from './session'

const json = (body: Answer<unknown>, status: number): Response => Response.json(body, { status })
const isUuid = (text: string): boolean => /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i.test(text)

/** A job file as a new job, or a clear error and nothing at all. */
export async function importJob(request: Request): Promise<Response> {
  if (fromOutside(request)) return json(no('not_allowed'), 403)
  const member = await currentMember()
  if (!member) return json(no('signed_out'), 401)
  try {
    const body = await bodyWithin(request, MAX_FILE_BYTES)
    if (body === null) return json(no('too_large', { limit: MAX_FILE_BYTES }), 413)
    const plan = readPlan(new TextDecoder().decode(body))
    if (!plan.ok) return json(plan, 422)
    const id = crypto.randomUUID()
    await createJob(member.who, id, plan.value, 'Imported from a job file', new Date())
    return json({ ok: true, value: { id } }, 201)
  } catch (error) {
    const answer = broken(error)
    return json(answer, answer.error.code === 'not_allowed' ? 403 : 500)
  }
}

/** The job file: the plan's document, as it stands. */
export async function exportJob(jobId: string): Promise<Response> {
  const member = await currentMember()
  if (!member) return new Response('Sign in first', { status: 401 })
  const file = isUuid(jobId) ? await openJob(member.who, jobId, new Date()) : null
  if (!file) return new Response('Not found', { status: 404 })
  return new Response(writePlan(file.plan), {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="job-${jobId.slice(0, 8)}.json"`,
    },
  })
}
