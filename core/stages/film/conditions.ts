import { filmStanding } from '../../model/film/film-data'
import { civilToMinutes, minutesToCivil } from '../../kit/civil'
import type { Plan } from '../../model/plan/schema'
import type { Catalogue } from '../../model/catalogue/catalogue'
import { figure, from, input, type Figure } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import { finding, type DetailsOf, type Finding, type FindingLevel } from '../../model/finding/finding'
import type { FindingCode } from '../../model/finding/finding-facts'
import { panelAreaMm2 } from '../../model/vehicle/outline'
import { dewPointC, MAGNUS_A, MAGNUS_B_C, timeConstantMin, warmingMinutes } from '../../engines/conditions/air'
import {
  DEW_MARGIN_K,
  DRYING_MIN,
  HEAT_J_PER_KG_K,
  MASS_KG,
  SURFACE_W_PER_M2_K,
} from '../../engines/conditions/conditions-data'
import { climateOf } from '../../engines/conditions/climate'
import type { FilmSheet } from '@/core/model/film/schema'

/**
 * Dew point, warming and drying, and what they ask for; each figure with its working. `workFrom`: when the first work
 * after bringing the vehicle in is due, by the run sheet; null without a start.
 */
export function conditionsOf(
  plan: Plan,
  climate: Catalogue['climate'],
  workFrom: string | null,
): { figures: Figure[]; findings: Finding[] } {
  const figures: Figure[] = []
  const findings: Finding[] = []
  const keep = (f: Figure): Figure => (figures.push(f), f)
  const add: Add = (code, level, ...details) => void findings.push(finding(code, level, 'film', ...details))
  const { air, humidity, surfaceC } = climateOf(plan, climate)
  const main = plan.film.sheets.find((s) => s.id === plan.film.mainId)
  if (!air) {
    if (main) add('no_climate', 'note')
    return { figures, findings }
  }
  const airInput = input('air', air.value, 'C', air.standing, air.at)
  keep(figure({ id: 'conditions/air', value: air.value, unit: 'C', formula: '{air}', inputs: [airInput] }))
  if (main && (air.value < main.airC.min || air.value > main.airC.max))
    add('air_out_of_range', 'warn', {
      facts: { film: main.name, c: air.value, min_c: main.airC.min, max_c: main.airC.max },
    })
  const dew =
    humidity &&
    keep(
      figure({
        id: 'conditions/dew_point',
        value: dewPointC(air.value, humidity.value),
        unit: 'C',
        formula: `${MAGNUS_B_C} × γ ÷ (${MAGNUS_A} − γ), γ = ln({humidity}) + ${MAGNUS_A} × {air} ÷ (${MAGNUS_B_C} + {air})`,
        inputs: [airInput, input('humidity', humidity.value, 'fraction', humidity.standing, humidity.at)],
        source: 'docs/sources.md#alduchov-eskridge-1996',
        standing: 'published',
      }),
    )
  const dewC = dew ? Number(dew.value) : null
  if (dewC !== null && surfaceC !== null && surfaceC < dewC + DEW_MARGIN_K)
    add('surface_near_dew', 'stop', {
      figureId: 'conditions/dew_point',
      facts: { surface_c: surfaceC, dew_c: dewC, margin: DEW_MARGIN_K },
    })
  if (main && surfaceC !== null && surfaceC < main.surfaceMinC)
    add('surface_too_cold', 'warn', { facts: { film: main.name, c: surfaceC, min_c: main.surfaceMinC } })
  warming(
    plan,
    { workFrom, air: airInput, airC: air.value, dew: dew ?? null, surfaceMinC: main?.surfaceMinC ?? null },
    keep,
    add,
  )
  return { figures, findings }
}

interface Room {
  workFrom: string | null
  air: Figure['inputs'][number]
  airC: number
  dew: Figure | null
  surfaceMinC: number | null
}

type Add = <C extends FindingCode>(code: C, level: FindingLevel, ...details: DetailsOf<C>) => void

function warming(plan: Plan, room: Room, keep: (f: Figure) => Figure, add: Add): void {
  const main = plan.film.sheets.find((s) => s.id === plan.film.mainId)
  const vehicleC = plan.conditions.vehicleC
  if (plan.panels.length === 0) return
  const tau = keepTimeConstant(plan, keep)
  const dewC = room.dew ? Number(room.dew.value) : null
  const targetC = Math.max(room.surfaceMinC ?? -99, dewC === null ? -99 : dewC + DEW_MARGIN_K)
  if (vehicleC === null || targetC < -90) return
  const target = keepTarget({ keep, targetC, dewC, room, main })
  const minutes = warmingMinutes(vehicleC, room.airC, targetC, Number(tau.value))
  const warm = keep(
    figure({
      id: 'conditions/warming',
      value: minutes,
      unit: 'min',
      formula:
        vehicleC >= targetC ? call('warm_enough', 'vehicle') : '{tau} × ln(({air} − {vehicle}) ÷ ({air} − {target}))',
      inputs: [
        from('tau', tau),
        room.air,
        input('vehicle', vehicleC, 'C', 'measured', 'conditions'),
        from('target', target),
      ],
      source: 'docs/sources.md#lumped-capacity',
      standing: 'common_practice',
    }),
  )
  if (minutes === null)
    return add('room_never_warms', 'stop', {
      figureId: 'conditions/warming',
      facts: { air_c: room.airC, target_c: targetC },
    })
  if (dewC !== null && vehicleC < dewC)
    add('vehicle_sweats', 'warn', { figureId: 'conditions/dew_point', facts: { vehicle_c: vehicleC, dew_c: dewC } })
  const wet = plan.conditions.wet || (dewC !== null && vehicleC < dewC)
  const lead = keep(leadFigure(minutes, wet, warm))
  const work = room.workFrom === null ? null : civilToMinutes(room.workFrom)
  if (work === null) return
  const inBy = keep(
    figure({
      id: 'conditions/in_by',
      value: minutesToCivil(Math.floor(work - Number(lead.value))),
      unit: 'wall_time',
      formula: '{work} − {lead}',
      inputs: [input('work', room.workFrom, 'wall_time', 'common_practice', 'steps/hardware_off'), from('lead', lead)],
    }),
  )
  add('bring_in_by', 'note', {
    figureId: 'conditions/in_by',
    facts: { at: inBy.value as string, minutes: Number(lead.value) },
  })
}

/** How long before work it has to stand in the room: until it is warm, and dry. */
const leadFigure = (minutes: number, wet: boolean, warm: Figure): Figure =>
  figure({
    id: 'conditions/lead',
    value: minutes + (wet ? DRYING_MIN : 0),
    unit: 'min',
    formula: wet ? '{warming} + {drying}' : '{warming}',
    inputs: [
      from('warming', warm),
      ...(wet ? [input('drying', DRYING_MIN, 'min', 'common_practice', 'data/conditions')] : []),
    ],
  })

/** How slowly the vehicle takes the room's temperature. */
function keepTimeConstant(plan: Plan, keep: (f: Figure) => Figure) {
  const areaMm2 = plan.panels.reduce((s, p) => s + panelAreaMm2(p), 0)
  const area = keep(
    figure({
      id: 'conditions/area',
      value: areaMm2,
      unit: 'mm2',
      formula: call('area_of_panels', 'panels'),
      inputs: [
        input(
          'panels',
          plan.panels.length,
          'count',
          plan.panels.some((p) => p.assumed.length > 0) ? 'assumed' : 'measured',
          'panels',
        ),
      ],
      standing: 'common_practice',
    }),
  )
  const mass = plan.conditions.massKg ?? MASS_KG[plan.vehicle.kind]
  const tau = keep(
    figure({
      id: 'conditions/tau',
      value: timeConstantMin(mass, HEAT_J_PER_KG_K, SURFACE_W_PER_M2_K, areaMm2 / 1e6),
      unit: 'min',
      formula: '{mass} kg × {heat} J/kgK ÷ ({film} W/m²K × {area})',
      inputs: [
        input('mass', mass, 'count', plan.conditions.massKg === null ? 'assumed' : 'measured', 'conditions'),
        input('heat', HEAT_J_PER_KG_K, 'count', 'assumed', 'data/conditions'),
        input('film', SURFACE_W_PER_M2_K, 'count', 'assumed', 'data/conditions'),
        from('area', area),
      ],
      source: 'docs/sources.md#lumped-capacity',
      standing: 'published',
    }),
  )
  return tau
}

/** The surface temperature to reach: the film's own, and above the dew point. */
function keepTarget({
  keep,
  targetC,
  dewC,
  room,
  main,
}: {
  keep: (f: Figure) => Figure
  targetC: number
  dewC: number | null
  room: Room
  main: undefined | FilmSheet
}) {
  return keep(
    figure({
      id: 'conditions/target',
      value: targetC,
      unit: 'C',
      formula:
        dewC === null
          ? '{surface}'
          : room.surfaceMinC === null
            ? '{dew} + {margin}'
            : 'max({surface}, {dew} + {margin})',
      inputs: [
        ...(room.surfaceMinC === null
          ? []
          : [
              input(
                'surface',
                room.surfaceMinC,
                'C',
                filmStanding(main, 'surfaceMinC'),
                `film/${main?.id ?? ''}/surfaceMinC`,
              ),
            ]),
        ...(room.dew
          ? [from('dew', room.dew), input('margin', DEW_MARGIN_K, 'count', 'published', 'data/conditions')]
          : []),
      ],
      source: 'docs/sources.md#iso-8502-4',
    }),
  )
}
