import type { FilmLayout } from '../../engines/roll/film-layout'
import type { Purchase } from '../../engines/roll/purchase'
import { figure, from, input, type Figure, type FigureInput } from '../../model/figure/figure'
import type { RollPart } from '../../model/figure/figure-id'
import { call } from '../../model/figure/formula'
import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'

/** What is bought, and what it is bought for. */
interface Buying {
  layout: FilmLayout
  bought: Purchase
  used: Figure
  reserve: Figure
}

const isWhole = (film: FilmSheet): boolean => film.soldBy.unit === 'roll' || film.soldBy.unit === 'sheet'
const idOf = (film: FilmSheet, part: RollPart) => `roll/${film.id}/${part}` as const
const atOf = (film: FilmSheet, field: string): string => `film/${film.id}/${field}`

/** What to order of one film, and what it costs. */
export function buyingFigures(buying: Buying): Figure[] {
  const { film, unplaced } = buying.layout
  // With pieces that fit no roll, what to order is not known yet: no figure rather than a wrong one.
  if (unplaced.length > 0) {
    const why = [input('missing', unplaced.length, 'count', 'measured', 'layout')]
    const text = call('unknown_while', 'missing')
    return [
      figure({ id: idOf(film, 'order'), value: null, unit: 'mm', formula: text, inputs: why }),
      figure({ id: idOf(film, 'cost'), value: null, unit: 'money', formula: text, inputs: why }),
    ]
  }
  if (buying.bought.covered) return fromTheShelf(buying)
  return film.offers.length > 0 || buying.bought.lines.length > 1 ? byOffers(buying) : bySheet(buying)
}

function fromTheShelf({ layout: { film }, bought, used }: Buying): Figure[] {
  const shelf = bought.shelf[0]
  return [
    figure({
      id: idOf(film, 'order'),
      value: 0,
      unit: 'mm',
      formula: call('shelf_covers', 'used', ...(shelf ? ['shelf'] : [])),
      inputs: [
        ...(shelf ? [input('shelf', shelf.leftMm, 'mm', 'measured', `stock/${shelf.id}`)] : []),
        from('used', used),
      ],
    }),
    figure({ id: idOf(film, 'cost'), value: 0, unit: 'money', formula: call('nothing_to_buy'), inputs: [] }),
  ]
}

/** What has to be covered: the layout, and the reserve where one is set aside. */
const needed = ({ layout, used, reserve }: Buying): FigureInput[] => [
  from('used', used),
  ...(layout.reserveMm > 0 ? [from('reserve', reserve)] : []),
]

/** The cheapest of what is offered: lengths and rolls of several sizes. */
function byOffers(buying: Buying): Figure[] {
  const { layout, bought } = buying
  const { film } = layout
  const need = needed(buying)
  const place = atOf(film, film.offers.length > 0 ? 'offers' : 'soldBy')
  const line = (l: Purchase['lines'][number], i: number, unit: 'mm' | 'money'): FigureInput =>
    input(`part_${i + 1}`, unit === 'mm' ? l.lengthMm : l.cost, unit, filmStanding(film, 'soldBy'), place)
  const lengths = bought.lines.map((l, i) => line(l, i, 'mm'))
  const prices = bought.lines.map((l, i) => line(l, i, 'money'))
  const cheapest = call('cheapest_for', ...need.map((n) => n.key))
  return [
    figure({
      id: idOf(film, 'order'),
      value: bought.orderMm,
      unit: 'mm',
      formula: `${cheapest} = ${lengths.map((l) => `{${l.key}}`).join(' + ')}`,
      inputs: [...need, ...lengths],
    }),
    figure({ id: idOf(film, 'cost'), value: bought.cost, unit: 'money', formula: 'Σ inputs', inputs: prices }),
  ]
}

/** As the film's sheet says that it is sold: whole rolls, or lengths from a least one. */
function bySheet(buying: Buying): Figure[] {
  const { layout, bought } = buying
  const { film } = layout
  const sold = filmStanding(film, 'soldBy')
  const need = needed(buying)
  const at = atOf(film, 'soldBy')
  const whole = isWhole(film)
  const price = input('price', film.soldBy.price, whole ? 'money_each' : 'price_per_m', sold, at)
  const units = input('units', bought.units, 'count', 'measured', 'layout')
  const lengths = film.rollLengthsMm
  const each = input('length', lengths[0] ?? 0, 'mm', filmStanding(film, 'rollLengthsMm'), atOf(film, 'rollLengthsMm'))
  const least = input('minimum', film.soldBy.minimumMm, 'mm', sold, at)
  const step = input('step', film.soldBy.unit === 'metre' ? 1000 : 500, 'mm', sold, at)
  const sum = need.map((n) => `{${n.key}}`).join(' + ')
  const order = figure({
    id: idOf(film, 'order'),
    value: bought.orderMm,
    unit: 'mm',
    formula: whole ? '{units} × {length}' : `max({minimum}, ⌈(${sum}) ÷ {step}⌉ × {step})`,
    inputs: whole ? [units, each, ...need] : [least, ...need, step],
  })
  const cost = figure({
    id: idOf(film, 'cost'),
    value: bought.cost,
    unit: 'money',
    formula: whole ? '{units} × {price}' : '{order} × {price}',
    inputs: whole ? [units, price] : [from('order', order), price],
  })
  return [order, cost]
}
