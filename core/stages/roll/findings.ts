import { filmStanding } from '../../model/film/film-data'
import type { FilmLayout, Purchase } from '../../engines/roll/film-layout'
import type { Plan } from '../../model/plan/schema'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Panel } from '../../model/vehicle/schema'
import { finding, type Finding } from '../../model/finding/finding'

/** A moulding that runs over this share of a panel hides a seam under it; assumed. */
const HIDES_SHARE = 0.8

/** What is wrong with one film's layout, and what would mend it. */
export function layoutFindings(
  layout: FilmLayout,
  bought: Purchase,
  panels: ReadonlyMap<string, Panel>,
  taken: ReadonlyMap<string, number>,
): Finding[] {
  const { film } = layout
  const out: Finding[] = []
  for (const { piece, why } of layout.unplaced) {
    const panel = panels.get(piece.panelId)
    const facts = {
      piece: piece.name,
      across_mm: piece.turn === 'quarter' ? Math.min(piece.acrossMm, piece.alongMm) : piece.acrossMm,
      roll_mm: layout.rollWidthMm,
      film: film.name,
      why,
    }
    const along: 'width' | 'height' = panel && piece.acrossMm === piece.cutWidthMm ? 'width' : 'height'
    const size = along === 'width' ? piece.cutWidthMm : piece.cutHeightMm
    const parts = Math.min(12, piece.parts * Math.max(2, Math.ceil(size / layout.rollWidthMm)))
    const line =
      panel && piece.parts === 1
        ? seamLine(panel, along, layout.rollWidthMm - (size - panel[`${along}Mm`]) - film.overlapMm)
        : null
    out.push(
      finding('piece_wider_than_roll', 'stop', 'roll', {
        id: `piece_wider_than_roll/${piece.id}`,
        panelId: piece.panelId,
        facts,
        limit: {
          value: layout.rollWidthMm,
          unit: 'mm',
          kind: 'max',
          standing: filmStanding(film, 'widthsMm'),
          at: `film/${film.id}/widthsMm`,
        },
        figureId: piece.acrossMm === piece.cutWidthMm ? piece.figures.width.id : piece.figures.height.id,
        waysOut: [
          ...(line
            ? [
                {
                  code: 'seam_on_line',
                  change: {
                    kind: 'piece' as const,
                    panelId: piece.panelId,
                    set: { parts: 2, along, seamsAtMm: [line.atMm] },
                  },
                  becomes: null,
                  facts: {
                    line: line.name,
                    at_mm: line.atMm,
                    overlap_mm: film.overlapMm,
                    first: laidFirst(panel, along),
                  },
                },
              ]
            : []),
          {
            code: 'seam',
            change: { kind: 'piece', panelId: piece.panelId, set: { parts, along, seamsAtMm: [] } },
            becomes: null,
            facts: { parts, along, overlap_mm: film.overlapMm, first: laidFirst(panel, along) },
          },
        ],
      }),
    )
  }
  if (layout.kept === 'stale')
    out.push(
      finding('layout_stale', 'warn', 'roll', {
        id: `layout_stale/film:${film.id}`,
        facts: { film: film.name },
        waysOut: [{ code: 'lay_again', change: { kind: 'drop_kept_layout' }, becomes: null, facts: {} }],
      }),
    )
  for (const r of layout.rolls) {
    const need = r.stock ? r.usedMm - (layout.kept === 'current' ? (taken.get(r.stock.id) ?? 0) : 0) : 0
    if (r.stock && need > r.stock.leftMm + 1)
      out.push(
        finding('stock_short', 'stop', 'roll', {
          id: `stock_short/${r.stock.id}`,
          facts: { label: r.stock.label, left_mm: r.stock.leftMm, need_mm: need },
          waysOut: [{ code: 'lay_again', change: { kind: 'drop_kept_layout' }, becomes: null, facts: {} }],
        }),
      )
  }
  for (const c of layout.spoiled)
    out.push(
      finding('cut_spoiled', 'stop', 'roll', {
        id: `cut_spoiled/${c.id}`,
        facts: {
          piece: layout.pieces.find((p) => p.id === c.id)?.name ?? c.id,
          across_mm: c.acrossMm,
          along_mm: c.alongMm,
          gone: layout.pieces.some((p) => p.id === c.id) ? 0 : 1,
        },
      }),
    )
  for (const r of layout.rolls)
    for (const knot of r.cutting.knots)
      out.push(
        finding('knot', 'warn', 'roll', {
          id: `knot/${knot.join('+')}`,
          facts: {
            film: film.name,
            pieces: knot.map((id) => layout.pieces.find((p) => p.id === id)?.name ?? id).join(', '),
          },
          waysOut: [{ code: 'lay_again', change: { kind: 'drop_kept_layout' }, becomes: null, facts: {} }],
        }),
      )
  if (!bought.covered && bought.shelf.reduce((s, i) => s + i.leftMm, 0) >= layout.usedMm && bought.shelf.length > 1)
    out.push(
      finding('two_lots', 'warn', 'roll', {
        id: `two_lots/film:${film.id}`,
        facts: { film: film.name, lots: new Set(bought.shelf.map((s) => s.lot)).size },
      }),
    )
  if (layout.rolls.length > 1 && film.kind !== 'sheet_goods')
    out.push(
      finding('several_rolls', 'warn', 'roll', {
        id: `several_rolls/film:${film.id}`,
        facts: { film: film.name, rolls: layout.rolls.length },
      }),
    )
  return out
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
        ? [{ name: r.name, atMm: r[across] as number }]
        : [],
    ),
  ]
  const able = places.filter((l) => l.atMm > 0 && l.atMm < whole && Math.max(l.atMm, whole - l.atMm) <= mostMm)
  const best = able.sort((a, b) => Math.abs(a.atMm - whole / 2) - Math.abs(b.atMm - whole / 2))[0]
  return best ?? null
}

/** What would save film, or should be known: two-piece roofs, bumpers from one length, two lots. */
export function layoutNotes(plan: Plan, layout: FilmLayout, panels: ReadonlyMap<string, Panel>): Finding[] {
  const { film } = layout
  const out: Finding[] = []
  if (layout.join)
    out.push(
      finding('lots_joined', 'warn', 'roll', {
        id: `lots_joined/film:${film.id}`,
        figureId: `roll/${film.id}/join`,
        facts: {
          film: film.name,
          first: layout.join.first,
          second: layout.join.second,
          length_mm: layout.join.lengthMm,
          where: layout.join.seams.map((s) => `${s.a} and ${s.b}`).join(', '),
          panels: layout.join.panels.map((id) => panels.get(id)?.name ?? id).join(', '),
        },
      }),
    )
  const whole = layout.pieces.filter((p) => p.parts === 1)
  const widest = Math.max(...film.widthsMm) - 2 * plan.layout.trimMm
  const [front, rear] = (['front_bumper', 'rear_bumper'] as const).map((kind) =>
    whole.find((p) => panels.get(p.panelId)?.kind === kind),
  )
  if (front && rear && front.acrossMm + plan.layout.gapMm + rear.acrossMm <= widest) {
    const paired = plan.layout.together.some((t) => t.includes(front.panelId) && t.includes(rear.panelId))
    if (!paired)
      out.push(
        finding('bumpers_together', 'note', 'roll', {
          id: `bumpers_together/film:${film.id}`,
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
      )
  }
  for (const roof of whole) {
    const panel = panels.get(roof.panelId)
    if (panel?.kind !== 'roof') continue
    const line = seamLine(panel, 'height', widest) ?? seamLine(panel, 'width', widest)
    if (!line) continue
    const along = panel.bodyLines.some((l) => l.name === line.name && l.along === 'height') ? 'width' : 'height'
    out.push(
      finding('roof_two_pieces', 'note', 'roll', {
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
      }),
    )
  }
  return out
}
