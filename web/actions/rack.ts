'use server'

import { z } from 'zod'
import { MAX_FILE_BYTES, readJson } from '@/core/kit/json-guard'
import { filmsFromTable, MAX_IMPORTED_FILMS } from '@/core/model/film/film-table'
import { FilmSheet } from '@/core/model/film/schema'
import { Id } from '@/core/model/values/values'
import { upgradeSheet } from '@/core/model/film/upgrade'
import { firstFault } from '@/core/model/plan/parse'
import { importSheets, saveFilm, setSold } from '@/db/queries/rack'
import { readCsv } from '@/web/kit/csv'
import { tableFault } from '@/web/words/table'
import { answer, refuse, type Answer } from './answer'

/** A film's sheet, new (`basedOn` 0) or changed. */
export async function putFilm(raw: unknown): Promise<Answer<null>> {
  const Put = z.strictObject({ sheet: FilmSheet, basedOn: z.number().int().min(0) })
  return answer('film', Put, raw, async (who, { sheet, basedOn }) => {
    const out = await saveFilm(who, sheet, basedOn)
    return out === 'done' ? { ok: true, value: null } : refuse(out)
  })
}

export async function sellFilm(raw: unknown): Promise<Answer<null>> {
  return answer('film', z.strictObject({ id: Id, sold: z.boolean() }), raw, async (who, { id, sold }) => {
    const out = await setSold(who, id, sold)
    return out === 'done' ? { ok: true, value: null } : refuse(out)
  })
}

/** Film sheets from a JSON or CSV file: all of them or none. */
export async function bringFilms(raw: unknown): Promise<Answer<{ added: number; changed: number }>> {
  const Bring = z.strictObject({ text: z.string().max(MAX_FILE_BYTES), csv: z.boolean() })
  return answer('film', Bring, raw, async (who, { text, csv }) => {
    if (csv) {
      const rows = readCsv(text)
      const films = rows.ok ? filmsFromTable(rows.value) : rows
      if (!films.ok) return refuse('table', { said: tableFault(films.error) })
      return { ok: true, value: await importSheets(who, films.value) }
    }
    const json = readJson(text)
    if (!json.ok) return json
    const Films = z.strictObject({
      format: z.literal('cuirass/films@1'),
      films: z.array(z.unknown().transform(upgradeSheet).pipe(FilmSheet)).min(1).max(MAX_IMPORTED_FILMS),
    })
    const parsed = Films.safeParse(json.value)
    if (!parsed.success) return { ok: false, error: firstFault(parsed.error) }
    const ids = parsed.data.films.map((f) => f.id)
    const twice = ids.findIndex((id, i) => ids.indexOf(id) !== i)
    if (twice >= 0) return { ok: false, error: { code: 'duplicate_id', at: `films[${twice}].id` } }
    return { ok: true, value: await importSheets(who, parsed.data.films) }
  })
}
