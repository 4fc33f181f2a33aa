import { filmTable } from '@/core/model/film/film-table'
import { rack } from '@/db/queries/rack'
import { writeCsv } from '@/web/kit/csv'
import { fileResponse, gives } from './routes'

/** Every film of the rack with all of its sheet, as JSON or CSV. */
export const exportFilms = (kind: 'json' | 'csv'): Promise<Response> =>
  gives(async ({ who }) => {
    const films = (await rack(who)).all.map((f) => f.sheet)
    return kind === 'json'
      ? fileResponse(`${JSON.stringify({ format: 'cuirass/films@1', films }, null, 2)}\n`, {
          type: 'application/json',
          name: 'films.json',
        })
      : fileResponse(`\uFEFF${writeCsv(filmTable(films))}`, { type: 'text/csv; charset=utf-8', name: 'films.csv' })
  })
