import { preStretchSteps } from '@/core/engines/stretch/pre-stretch'
import type { FilmSheet } from '@/core/model/film/schema'

/** Shares to choose from, by how the film takes them; one chosen that it does not take stays to be seen. */
export function preStretchGroups(film: FilmSheet | undefined, chosen: number): [string, number[]][] {
  const steps = [...new Set([...(film ? preStretchSteps(film) : [0]), chosen])].sort((a, b) => a - b)
  const { cold, warm } = film?.preStretchMax ?? { cold: 0, warm: 0 }
  const groups: [string, number[]][] = [
    ['cold', steps.filter((v) => v <= cold)],
    ['warmed', steps.filter((v) => v > cold && v <= warm)],
    ['more than the film takes', steps.filter((v) => v > warm && v > cold)],
  ]
  return groups.filter(([, own]) => own.length > 0)
}
