import { filmTable } from '@/core/film/film-table'
import { rack } from '@/db/queries/rack'
import { writeCsv } from '@/web/kit/csv'
import { currentMember } from './session'

/** Every film of the rack with all of its sheet, as JSON or CSV. */
export async function exportFilms(kind: 'json' | 'csv'): Promise<Response> {
  const member = await currentMember()
  if (!member) return new Response('Sign in first', { status: 401 })
  const films = (await rack(member.who)).all.map((f) => f.sheet)
  const body =
    kind === 'json'
      ? `${JSON.stringify({ format: 'cuirass/films@1', films }, null, 2)}\n`
      : `\uFEFF${writeCsv(filmTable(films))}`
  return new Response(body, {
    headers: {
      'content-type': kind === 'json' ? 'application/json' : 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="films.${kind}"`,
    },
  })
}
