import { exportFilms } from '@/web/actions/film-files'

export const GET = (): Promise<Response> => exportFilms('json')
