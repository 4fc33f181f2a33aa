import type { FaultCode } from '@/core/kit/fault-code'
import type { Right } from '@/core/model/rights/rights'
import { may } from '@/core/model/rights/rights'
import { bodyWithin } from './body'
import { broken, httpStatus, refuse, type Answer } from './answer'
import { fromOutside } from './origin'
import { currentMember } from './session'

export type Member = NonNullable<Awaited<ReturnType<typeof currentMember>>>
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i
export const isUuid = (text: string): boolean => UUID.test(text)

export const answerJson = (answer: Answer<unknown>, status?: number): Response =>
  Response.json(answer, {
    status: status ?? (answer.ok ? 200 : httpStatus(answer.error.code)),
    headers: { 'cache-control': 'private, no-store' },
  })

/**
 * The frame of a route handler that takes something: own origin, signed in, with the right, and only then is a byte of
 * the body read, up to its limit. A limit of 0 takes no body. `bare` answers with the value itself, or with the fault.
 */
export async function takes(
  request: Request,
  {
    right,
    limit,
    tooLarge = 'too_large',
    bare = false,
  }: { right: Right; limit: number; tooLarge?: FaultCode; bare?: boolean },
  work: (member: Member, body: Buffer) => Promise<Answer<unknown>>,
  okStatus = 200,
): Promise<Response> {
  const say = (answer: Answer<unknown>, status?: number): Response => {
    const full = answerJson(answer, status)
    return bare ? Response.json(answer.ok ? answer.value : answer.error, full) : full
  }
  if (fromOutside(request)) return say(refuse('not_allowed'), 403)
  try {
    const member = await currentMember()
    if (!member) return say(refuse('signed_out'))
    if (!may(member.who.role, right)) return say(refuse('not_allowed', { right }))
    const body = limit === 0 ? Buffer.alloc(0) : await bodyWithin(request, limit)
    if (body === null) return say(refuse(tooLarge, { limit }), 413)
    const out = await work(member, body)
    return say(out, out.ok ? okStatus : undefined)
  } catch (error) {
    return say(broken(error))
  }
}

/** The frame of a route handler that gives a file, or the page's words for why not. */
export async function gives(work: (member: Member) => Promise<Response | null>): Promise<Response> {
  try {
    const member = await currentMember()
    if (!member) return new Response('Sign in first', { status: 401 })
    return (await work(member)) ?? new Response('Not found', { status: 404 })
  } catch (error) {
    const { code, facts } = broken(error).error
    const said =
      code === 'went_wrong'
        ? `This could not be made. Reference ${facts?.reference ?? ''}`
        : code === 'took_too_long'
          ? 'This takes longer than the server works at one paper. Ask for a smaller part of the job.'
          : 'The server is busy with other work. Try again in a moment.'
    return new Response(said, { status: httpStatus(code), headers: { 'cache-control': 'private, no-store' } })
  }
}

/** A file to keep or to look at; never kept by anything in between. */
export const fileResponse = (
  body: string | Uint8Array,
  { type, name, inline = false }: { type: string; name: string; inline?: boolean },
): Response =>
  new Response(typeof body === 'string' ? body : (body as Uint8Array<ArrayBuffer>), {
    headers: {
      'content-type': type,
      'content-disposition': `${inline ? 'inline' : 'attachment'}; filename="${name}"`,
      'cache-control': 'private, no-store',
      'x-content-type-options': 'nosniff',
    },
  })
