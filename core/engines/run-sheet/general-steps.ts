import type { FilmSheet } from '../../model/film/schema'
import { panelAreaMm2 } from '../../model/vehicle/outline'
import {
  AFTER,
  BEFORE,
  COARSE,
  CUT_MIN,
  FILM_WARMS_MIN,
  HARDWARE_ON_SHARE,
  LAMINATE,
  MASK_MIN_PER_M,
  REMOVAL,
  SCUFF_MIN_PER_M2,
  type StepRule,
} from './step-data'
import { stepOf, type Context, type Step } from './step'

/** Minutes of the steps that hang on the job, by their code, on top of what each takes anyway. */
function minutesOf({ plan, edges }: Context): Record<string, number> & { maskedM: number } {
  const { hardware } = plan.walkaround
  // A shop that wraps round its hardware takes none off; the trimming round it is reckoned with each panel.
  const off =
    plan.method.hardware === 'wrap_round'
      ? 0
      : hardware.filter((h) => h.way === 'remove').reduce((sum, h) => sum + h.minutes, 0)
  // What stays on is taped, inlaid or tucked round: that work is done where the rest is masked.
  const stays = hardware.filter((h) => h.way !== 'remove').reduce((sum, h) => sum + h.minutes, 0)
  const masked = maskedM(edges)
  return {
    hardware_off: off,
    hardware_on: off * HARDWARE_ON_SHARE,
    mask: stays + masked * MASK_MIN_PER_M,
    maskedM: masked,
  }
}

const general = (c: Context, rule: StepRule, more: ReturnType<typeof minutesOf>): Step =>
  stepOf({
    id: rule.code,
    code: rule.code,
    minutes: (rule.minutes + (more[rule.code] ?? 0)) * c.plan.runSheet.paceFactor,
    waitMin: rule.waitMin ?? 0,
    cautions: rule.cautions ?? [],
    tools: rule.tools ?? [],
    facts: rule.code === 'mask' ? { length_mm: more.maskedM * 1000 } : {},
  })

/** Masking tape that is laid, m. */
const maskedM = ({ tapes }: Context['edges']): number =>
  tapes.reduce((sum, t) => (t.kind === 'masking' ? sum + t.lengthMm : sum), 0) / 1000

/** Old film comes off before the wash: a trial patch, a warm room, then by area and age. */
function removalSteps({ plan }: Context): Step[] {
  const marks = plan.walkaround.damage.filter((d) => d.kind === 'previous_film')
  if (marks.length === 0) return []
  const named = new Set(marks.flatMap((d) => d.panelId ?? []))
  const whole = marks.some((d) => d.panelId === null)
  const areaM2 = plan.panels.filter((p) => whole || named.has(p.id)).reduce((s, p) => s + panelAreaMm2(p) / 1e6, 0)
  const years = Math.min(10, plan.walkaround.paint.ageYears ?? 3)
  const perM2 = REMOVAL.perM2Min + years * REMOVAL.perM2YearMin + REMOVAL.residuePerM2Min
  const pace = plan.runSheet.paceFactor
  const tools = ['steamer', 'gun', 'remover']
  return [
    stepOf({
      id: 'removal_trial',
      code: 'removal_trial',
      minutes: REMOVAL.trialMin * pace,
      waitMin: REMOVAL.warmMin,
      tools,
    }),
    stepOf({
      id: 'removal',
      code: 'removal',
      minutes: areaM2 * perM2 * pace,
      tools,
      cautions: ['solvent', 'hot'],
      facts: { area_m2: Math.round(areaM2 * 10) / 10, years },
    }),
  ]
}

function scuffSteps({ plan, films }: Context): Step[] {
  const coarse = plan.panels.filter(
    (p) => p.wrap && COARSE.includes(p.kind) && films.get(p.filmId ?? plan.film.mainId ?? '')?.kind === 'sheet_goods',
  )
  if (coarse.length === 0) return []
  const areaM2 = coarse.reduce((sum, p) => sum + panelAreaMm2(p) / 1e6, 0)
  const minutes = areaM2 * SCUFF_MIN_PER_M2 * plan.runSheet.paceFactor
  return [stepOf({ id: 'scuff', code: 'scuff', minutes, tools: ['pads', 'cloths'], cautions: ['dust'] })]
}

/** The vehicle's own preparation, in the trade's order. */
export function beforeSteps(c: Context): Step[] {
  const more = minutesOf(c)
  return [
    ...removalSteps(c),
    ...BEFORE.flatMap((rule) => [...(rule.code === 'decontaminate' ? scuffSteps(c) : []), general(c, rule, more)]),
  ]
}

export function afterSteps(c: Context): Step[] {
  const more = minutesOf(c)
  return AFTER.map((rule) => general(c, rule, more))
}

/** Work on the film, beside the vehicle's: prints gas out and are laminated, film warms in the room, pieces are cut. */
export function filmSteps(c: Context): Step[] {
  const used = [...new Set(c.pieces.map((p) => p.filmId))].flatMap((id) => c.films.get(id) ?? [])
  if (used.length === 0) return []
  const pace = c.plan.runSheet.paceFactor
  return [
    ...used.flatMap((film) => (film.gasOutHours ? printSteps(c, film) : [])),
    stepOf({ id: 'film_in', code: 'film_in', minutes: 5, waitMin: FILM_WARMS_MIN }),
    stepOf({
      id: 'cut',
      code: 'cut',
      minutes: c.pieces.length * CUT_MIN * pace,
      cautions: ['blade'],
      tools: ['table', 'blade', 'labels'],
      facts: { pieces: c.pieces.length },
    }),
  ]
}

function printSteps({ plan, pieces }: Context, film: FilmSheet): Step[] {
  const areaM2 = pieces.reduce((s, p) => (p.filmId === film.id ? s + (p.acrossMm * p.alongMm) / 1e6 : s), 0)
  const of = { name: film.name, facts: { film: film.name, hours: film.gasOutHours?.max ?? 0 } }
  const hours = film.gasOutHours?.max ?? 0
  const gasOut = stepOf({ id: `gas_out:${film.id}`, code: 'gas_out', ...of, minutes: 10, waitMin: hours * 60 })
  if (film.lamination !== 'to_be_laminated') return [gasOut]
  return [
    gasOut,
    stepOf({
      id: `laminate:${film.id}`,
      code: 'laminate',
      name: film.name,
      facts: { film: film.name },
      people: LAMINATE.people,
      aloneFactor: null,
      skills: ['print'],
      minutes: (LAMINATE.setUpMin + areaM2 * LAMINATE.perM2Min) * plan.runSheet.paceFactor,
    }),
  ]
}
