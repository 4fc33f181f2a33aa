import type { FaultCode } from '@/core/kit/fault-code'
import { z } from 'zod'
import { may } from '@/core/model/rights/rights'
import { thermometer } from '@/outside/thermometer'
import { broken, httpStatus, refuse } from './answer'
import { currentMember } from './session'

/** A thermometer that was forgotten is switched off. */
const LONGEST_MS = 180_000

const Asked = z.object({
  film: z.coerce.number().min(-40).max(400),
  away: z.coerce.number().min(-600).max(3600),
  mirror: z.stringbool(),
  dulled: z.stringbool(),
})

/** Figures of the shop's infrared thermometer as server-sent events, until the page closes the stream. */
export async function readThermometer(request: Request): Promise<Response> {
  try {
    const member = await currentMember()
    if (!member) return refused('signed_out')
    if (!may(member.who.role, 'log')) return refused('not_allowed')
    const device = thermometer()
    if (!device) return refused('no_thermometer')
    const query = new URL(request.url).searchParams
    if (query.has('there')) return new Response(null, { status: 204 })
    const asked = Asked.safeParse(Object.fromEntries(query))
    if (!asked.success) return refused('bad_input')
    const { film, away, ...seen } = asked.data
    const text = new TextEncoder()
    let off = () => {}
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        const stop = device.start({ filmC: film, awayS: away, ...seen }, (figure) =>
          controller.enqueue(text.encode(`data: ${JSON.stringify(figure)}\n\n`)),
        )
        const timer = setTimeout(() => end(), LONGEST_MS)
        const end = () => {
          off = () => {}
          stop()
          clearTimeout(timer)
          try {
            controller.close()
          } catch {
            // The browser closed it first.
          }
        }
        off = end
      },
      cancel: () => off(),
    })
    request.signal.addEventListener('abort', () => off())
    return new Response(stream, {
      headers: {
        'content-type': 'text/event-stream; charset=utf-8',
        'cache-control': 'no-store, no-transform',
        'x-accel-buffering': 'no',
      },
    })
  } catch (error) {
    const answer = broken(error)
    return Response.json(answer, { status: httpStatus(answer.error.code) })
  }
}

const refused = (code: FaultCode) => Response.json(refuse(code), { status: httpStatus(code) })
