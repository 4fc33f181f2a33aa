import type { FigureId } from './figure-id'

/** How well a number is known, best first. A figure stands no higher than the weakest of its inputs. */
export const STANDINGS = ['measured', 'film_sheet', 'published', 'common_practice', 'assumed'] as const
export type Standing = (typeof STANDINGS)[number]

/**
 * Lengths mm, areas mm², fractions, °C, minutes, money in the shop's currency, ΔE00, local wall time; of the gun s, mm/s and
 * W/(m² K).
 */
export type FigureUnit =
  | 'mm'
  | 'mm2'
  | 'fraction'
  | 'rad'
  | 'C'
  | 'min'
  | 's'
  | 'mm_s'
  | 'w_m2k'
  | 'count'
  | 'money'
  | 'delta_e'
  | 'wall_time'
  | 'price_per_m'
  | 'money_each'

export interface FigureInput {
  /** Name of the term in the formula. */
  key: string
  value: number | string | null
  unit: FigureUnit
  standing: Standing
  /**
   * Where it was entered: a path in the plan (`panels/bonnet/widthMm`, `film/fen/stretchLimit`, `method/bleedMm`),
   * `data/…`, or `figure:<id>`.
   */
  at: string
  /** It settles still, and so does what hangs on it. */
  settling?: true
}

export interface FigureLimit {
  value: number
  unit: FigureUnit
  kind: 'max' | 'min'
  standing: Standing
  at: string
}

/** One computed number with all of its working. `formula` names its inputs in braces. */
export interface Figure {
  id: FigureId
  value: number | string | null
  unit: FigureUnit
  formula: string
  inputs: FigureInput[]
  limit: FigureLimit | null
  standing: Standing
  source: string | null
  /** A closed form or a quick layout stands in: the figure moves once what it hangs on is solved. */
  settling?: true
}

export const weakest = (standings: readonly Standing[]): Standing =>
  standings.reduce<Standing>((worst, s) => (STANDINGS.indexOf(s) > STANDINGS.indexOf(worst) ? s : worst), 'measured')

export function input(
  key: string,
  value: FigureInput['value'],
  unit: FigureUnit,
  standing: Standing,
  at: string,
): FigureInput {
  return { key, value, unit, standing, at }
}

/** Its value where it is a number; null where there is none, or a moment. */
export const numberOf = (figure: Figure | undefined): number | null =>
  typeof figure?.value === 'number' ? figure.value : null

/** A figure as the input of another. */
export const from = (key: string, figure: Figure): FigureInput => ({
  key,
  value: figure.value,
  unit: figure.unit,
  standing: figure.standing,
  at: `figure:${figure.id}`,
  ...(figure.settling ? { settling: true } : {}),
})

interface FigureOptions {
  limit?: FigureLimit | null
  /** Standing of the formula itself; a rule of thumb pulls the figure down. */
  standing?: Standing
  source?: string | null
  /** Hangs on what is not solved yet, beside what its inputs say. */
  settling?: boolean
}

/** A value with its working; its standing is no better than that of its weakest input. */
export function figure({
  id,
  value,
  unit,
  formula,
  inputs,
  limit = null,
  standing = 'measured',
  source = null,
  settling = false,
}: Pick<Figure, 'id' | 'value' | 'unit' | 'formula' | 'inputs'> & FigureOptions): Figure {
  return {
    id,
    value,
    unit,
    formula,
    inputs,
    limit,
    standing: weakest([standing, ...inputs.map((i) => i.standing)]),
    source,
    ...(settling || inputs.some((i) => i.settling) ? { settling: true } : {}),
  }
}

/** The formula with its numbers put in, in base units; `{…}` alone lists every input. */
export function formulaWithNumbers(
  f: Figure,
  show: (i: FigureInput) => string = (i) =>
    String(typeof i.value === 'number' ? Number(i.value.toPrecision(7)) : (i.value ?? '?')),
): string {
  const text = f.formula.replace(/\{([a-zA-Z0-9_]+)\}(²?)/g, (whole, key: string, square: string) => {
    const found = f.inputs.find((i) => i.key === key)
    return found ? (square ? `(${show(found)})²` : show(found)) : whole
  })
  return text.replace(/Σ(?= inputs)/, () => f.inputs.map(show).join(' + ')).replace(/ inputs$/, '')
}
