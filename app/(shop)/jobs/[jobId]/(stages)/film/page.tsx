import { FilmChoice } from '@/web/film/film-choice'

export const metadata = { title: 'Film' }

export default function FilmRoute() {
  return <FilmChoice />
}
