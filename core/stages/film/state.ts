import type { StageVerdict } from '../../model/finding/stage'
import type { Plan } from '../../model/plan/schema'

export const filmState = ({ film }: Plan): StageVerdict =>
  film.mainId
    ? { state: 'settled', why: 'film_chosen', facts: {} }
    : { state: 'missing', why: 'film_not_chosen', facts: {} }
