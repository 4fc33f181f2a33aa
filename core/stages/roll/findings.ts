import { filmStanding } from '../../model/film/film-data'
import type { StockItem } from '../../model/film/schema'
import { lotResidue } from '../../model/film/strip-test'
import type { FilmLayout } from '../../engines/roll/film-layout'
import type { Purchase } from '../../engines/roll/purchase'
import type { Plan } from '../../model/plan/schema'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Panel } from '../../model/vehicle/schema'
import { finding, type Finding, type WayOut } from '../../model/finding/finding'

/** A moulding that runs over this share of a panel hides a seam under it; assumed. */
const HIDES_SHARE = 0.8

const LAY_AGAIN: WayOut = { code: 'lay_again', change: { kind: 'drop_kept_layout' }, becomes: null, facts: {} }

/** What is wrong with one film's layout, and what would mend it. */
export function layoutFindings(
  layout: FilmLayout,
  bought: Purchase,
  panels: ReadonlyMap<string, Panel>,
  taken: ReadonlyMap<string, number>,
): Finding[] {
  const { film } = layout
  const out = layout.unplaced.map((u) => unplacedFinding(layout, u, panels.get(u.piece.panelId)))
  const id = (code: string) => `${code}/film:${film.id}`
  if (layout.kept === 'stale')
    out.push(
      finding('layout_stale', 'warn', 'roll', {
        id: id('layout_stale'),
        facts: { film: film.name },
        waysOut: [LAY_AGAIN],
      }),
    )
  out.push(...stockFindings(layout, taken), ...spoiledFindings(layout), ...knotFindings(layout))
  const lots = new Set(bought.shelf.map((s) => s.lot)).size
  const enough = bought.shelf.reduce((s, i) => s + i.leftMm, 0) >= layout.usedMm
  if (!bought.covered && enough && bought.shelf.length > 1)
    out.push(finding('two_lots', 'warn', 'roll', { id: id('two_lots'), facts: { film: film.name, lots } }))
  if (layout.rolls.length > 1 && film.kind !== 'sheet_goods')
    out.push(
      finding('several_rolls', 'warn', 'roll', {
        id: id('several_rolls'),
        facts: { film: film.name, rolls: layout.rolls.length },
      }),
    )
  return out
}

/** Tested and taken residue differ by less than a strip is read to. */
const SAME_RESIDUE = 0.0015

/** Where film is relaxed first, the lot's own strips count and not the sheet: told until the job takes them. */
export function residueFindings(plan: Plan, { film, source }: FilmLayout, stock: readonly StockItem[]): Finding[] {
  if (plan.method.tension !== 'relax_first' || source?.kind !== 'shelf') return []
  const lot = source.lot ?? ''
  const tested = lotResidue(stock, film.id, lot)
  if (!tested || Math.abs(tested.residue - film.rollResidue) < SAME_RESIDUE) return []
  const { residue, tests } = tested
  return [
    finding('lot_residue', 'warn', 'roll', {
      id: `lot_residue/film:${film.id}`,
      facts: { film: film.name, lot, residue, sheet: film.rollResidue, tests },
      waysOut: [
        {
          code: 'take_residue',
          change: { kind: 'lot_residue', filmId: film.id, residue },
          becomes: null,
          facts: { residue },
        },
      ],
    }),
  ]
}

/** A piece that found no place: how wide it is, and seams that would let it in. */
function unplacedFinding(
  layout: FilmLayout,
  { piece, why }: FilmLayout['unplaced'][number],
  panel: Panel | undefined,
): Finding {
  const { film } = layout
  const along: 'width' | 'height' = panel && piece.acrossMm === piece.cutWidthMm ? 'width' : 'height'
  const size = along === 'width' ? piece.cutWidthMm : piece.cutHeightMm
  const parts = Math.min(12, piece.parts * Math.max(2, Math.ceil(size / layout.rollWidthMm)))
  const { panelId } = piece
  const line =
    panel && piece.parts === 1
      ? seamLine(panel, along, layout.rollWidthMm - (size - panel[`${along}Mm`]) - film.overlapMm)
      : null
  const overlap = { overlap_mm: film.overlapMm, first: laidFirst(panel, along) }
  const onLine: WayOut[] = line
    ? [
        {
          code: 'seam_on_line',
          change: { kind: 'piece', panelId, set: { parts: 2, along, seamsAtMm: [line.atMm] } },
          becomes: null,
          facts: { line: line.name, at_mm: line.atMm, ...overlap },
        },
      ]
    : []
  return finding('piece_wider_than_roll', 'stop', 'roll', {
    id: `piece_wider_than_roll/${piece.id}`,
    panelId,
    facts: {
      piece: piece.name,
      across_mm: piece.turn === 'quarter' ? Math.min(piece.acrossMm, piece.alongMm) : piece.acrossMm,
      roll_mm: layout.rollWidthMm,
      film: film.name,
      why,
    },
    limit: {
      value: layout.rollWidthMm,
      unit: 'mm',
      kind: 'max',
      standing: filmStanding(film, 'widthsMm'),
      at: `film/${film.id}/widthsMm`,
    },
    figureId: piece.acrossMm === piece.cutWidthMm ? piece.figures.width.id : piece.figures.height.id,
    waysOut: [
      ...onLine,
      {
        code: 'seam',
        change: { kind: 'piece', panelId, set: { parts, along, seamsAtMm: [] } },
        becomes: null,
        facts: { parts, along, ...overlap },
      },
    ],
  })
}

/** Rolls of the shelf that hold less than the layout still takes from them. */
function stockFindings(layout: FilmLayout, taken: ReadonlyMap<string, number>): Finding[] {
  return layout.rolls.flatMap(({ stock, usedMm }) => {
    if (!stock) return []
    const need = usedMm - (layout.kept === 'current' ? (taken.get(stock.id) ?? 0) : 0)
    if (need <= stock.leftMm + 1) return []
    return finding('stock_short', 'stop', 'roll', {
      id: `stock_short/${stock.id}`,
      facts: { label: stock.label, left_mm: stock.leftMm, need_mm: need },
      waysOut: [LAY_AGAIN],
    })
  })
}

/** Pieces that were cut and no longer are what the plan asks for. */
function spoiledFindings(layout: FilmLayout): Finding[] {
  return layout.spoiled.map((c) => {
    const asked = layout.pieces.find((p) => p.id === c.id)
    return finding('cut_spoiled', 'stop', 'roll', {
      id: `cut_spoiled/${c.id}`,
      facts: { piece: asked?.name ?? c.id, across_mm: c.acrossMm, along_mm: c.alongMm, gone: asked ? 0 : 1 },
    })
  })
}

/** Pieces that no straight cut parts. */
function knotFindings(layout: FilmLayout): Finding[] {
  const name = (id: string) => layout.pieces.find((p) => p.id === id)?.name ?? id
  return layout.rolls.flatMap((r) =>
    r.cutting.knots.map((knot) =>
      finding('knot', 'warn', 'roll', {
        id: `knot/${knot.join('+')}`,
        facts: { film: layout.film.name, pieces: knot.map(name).join(', ') },
        waysOut: [LAY_AGAIN],
      }),
    ),
  )
}

/**
 * Which part of a divided panel goes on first, so that the overlap faces down or lies with the airflow. Common
 * practice.
 */
const laidFirst = (panel: Panel | undefined, along: 'width' | 'height'): 'lower' | 'rear' =>
  along === 'height' && panel && PANEL_FACTS[panel.kind].surface === 'vertical' ? 'lower' : 'rear'

/**
 * The best usable place for a seam, nearest the middle, that leaves both parts no wider than the roll takes: a body
 * line, or under a moulding that runs across.
 */
function seamLine(panel: Panel, along: 'width' | 'height', mostMm: number): { name: string; atMm: number } | null {
  const whole = panel[`${along}Mm`]
  const [across, over] = along === 'height' ? (['yMm', 'widthMm'] as const) : (['xMm', 'heightMm'] as const)
  const places = [
    ...panel.bodyLines.filter((l) => l.seam && l.along !== along).map((l) => ({ name: l.name, atMm: l.atMm })),
    // Hidden places: a moulding covers the seam where it runs over most of the panel.
    ...panel.raised.flatMap((r) =>
      r.kind === 'moulding' && r[across] !== null && r[over] >= HIDES_SHARE * panel[over]
        ? [{ name: r.name, atMm: r[across] }]
        : [],
    ),
  ]
  const able = places.filter((l) => l.atMm > 0 && l.atMm < whole && Math.max(l.atMm, whole - l.atMm) <= mostMm)
  const best = able.sort((a, b) => Math.abs(a.atMm - whole / 2) - Math.abs(b.atMm - whole / 2))[0]
  return best ?? null
}

/** What would save film, or should be known: two lots joined, bumpers from one length, two-piece roofs. */
export function layoutNotes(plan: Plan, layout: FilmLayout, panels: ReadonlyMap<string, Panel>): Finding[] {
  const widest = Math.max(...layout.film.widthsMm) - 2 * plan.layout.trimMm
  return [
    ...joinNotes(layout, panels),
    ...bumperNotes(plan, layout, panels, widest),
    ...roofNotes(layout, panels, widest),
  ]
}

function joinNotes({ film, join }: FilmLayout, panels: ReadonlyMap<string, Panel>): Finding[] {
  if (!join) return []
  const facts = {
    film: film.name,
    first: join.first,
    second: join.second,
    length_mm: join.lengthMm,
    where: join.seams.map((s) => `${s.a} and ${s.b}`).join(', '),
    panels: join.panels.map((id) => panels.get(id)?.name ?? id).join(', '),
  }
  return [
    finding('lots_joined', 'warn', 'roll', {
      id: `lots_joined/film:${film.id}`,
      figureId: `roll/${film.id}/join`,
      facts,
    }),
  ]
}

/** Both bumpers side by side across the roll are cut from one length. */
function bumperNotes(plan: Plan, layout: FilmLayout, panels: ReadonlyMap<string, Panel>, widestMm: number): Finding[] {
  const whole = layout.pieces.filter((p) => p.parts === 1)
  const [front, rear] = (['front_bumper', 'rear_bumper'] as const).map((kind) =>
    whole.find((p) => panels.get(p.panelId)?.kind === kind),
  )
  if (!front || !rear || front.acrossMm + plan.layout.gapMm + rear.acrossMm > widestMm) return []
  if (plan.layout.together.some((t) => t.includes(front.panelId) && t.includes(rear.panelId))) return []
  return [
    finding('bumpers_together', 'note', 'roll', {
      id: `bumpers_together/film:${layout.film.id}`,
      facts: { front: front.name, rear: rear.name, length_mm: Math.max(front.alongMm, rear.alongMm) },
      waysOut: [
        {
          code: 'one_length',
          change: { kind: 'together', panelIds: [front.panelId, rear.panelId] },
          becomes: null,
          facts: {},
        },
      ],
    }),
  ]
}

/** Roofs that have a usable line for a seam may be two pieces. */
function roofNotes({ pieces, film }: FilmLayout, panels: ReadonlyMap<string, Panel>, widestMm: number): Finding[] {
  return pieces.flatMap((piece) => {
    const panel = panels.get(piece.panelId)
    if (piece.parts !== 1 || panel?.kind !== 'roof') return []
    const line = seamLine(panel, 'height', widestMm) ?? seamLine(panel, 'width', widestMm)
    if (!line) return []
    const along = panel.bodyLines.some((l) => l.name === line.name && l.along === 'height') ? 'width' : 'height'
    return finding('roof_two_pieces', 'note', 'roll', {
      id: `roof_two_pieces/${panel.id}`,
      panelId: panel.id,
      facts: { panel: panel.name, line: line.name },
      waysOut: [
        {
          code: 'seam_on_line',
          change: { kind: 'piece', panelId: panel.id, set: { parts: 2, along, seamsAtMm: [line.atMm] } },
          becomes: null,
          facts: { line: line.name, at_mm: line.atMm, overlap_mm: film.overlapMm, first: 'rear' },
        },
      ],
    })
  })
}
