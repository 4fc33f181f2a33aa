import { PACK_TOLERANCE as EPS, type PackBin, type PackItem, type Placed } from './types'

/**
 * A band is a strip across the bin, cut off by one straight cut; columns stand in it, cut apart lengthwise; items lie
 * in a column one behind the other. So every plan falls apart by straight cuts in three stages (and a trim).
 */
interface Column {
  x: number
  width: number
  used: number
  parts: { item: PackItem; turned: boolean; y: number; width: number; length: number }[]
}
interface Band {
  length: number
  usedWidth: number
  columns: Column[]
}
export interface BinFill {
  bin: PackBin
  bands: Band[]
  used: number
}

interface Fit {
  score: number
  fill: BinFill
  band: Band | null
  column: Column | null
  turned: boolean
}

/** One item in the order of filling; `turn` forces how it lies, null leaves it to the fit. */
export interface Wish {
  item: PackItem
  turn: boolean | null
}

/** Items in the order given, each where it wastes least. Left-overs come back. */
export function fillBands(
  order: readonly Wish[],
  bins: readonly PackBin[],
  gap: number,
): { fills: BinFill[]; left: PackItem[] } {
  const fills: BinFill[] = bins.map((bin) => ({ bin, bands: [], used: 0 }))
  const left: PackItem[] = []
  for (const { item, turn } of order) {
    const fit = bestFit(item, turn, fills, gap)
    if (fit) place(item, fit, gap)
    else left.push(item)
  }
  return { fills, left }
}

const turnsOf = (item: PackItem, turn: boolean | null): boolean[] =>
  item.turn === 'fixed' || item.width === item.length ? [false] : turn === null ? [false, true] : [turn]

function bestFit(item: PackItem, turn: boolean | null, fills: BinFill[], gap: number): Fit | null {
  let best: Fit | null = null
  const take = (fit: Fit) => {
    if (!best || fit.score < best.score) best = fit
  }
  const turns = turnsOf(item, turn)
  for (const turned of turns) {
    const [w, l] = turned ? [item.length, item.width] : [item.width, item.length]
    for (const fill of fills) {
      for (const band of fill.bands) {
        if (l > band.length + EPS) continue
        for (const column of band.columns)
          if (w <= column.width + EPS && column.used + gap + l <= band.length + EPS)
            take({
              score: (column.width - w) * l + (band.length - column.used - gap - l) * 0.1,
              fill,
              band,
              column,
              turned,
            })
        if (band.usedWidth + (band.columns.length > 0 ? gap : 0) + w <= fill.bin.width + EPS)
          take({ score: (band.length - l) * w, fill, band, column: null, turned })
      }
    }
  }
  if (best) return best
  for (const turned of turns) {
    const [w, l] = turned ? [item.length, item.width] : [item.width, item.length]
    const fill = fills.find(
      (f) => w <= f.bin.width + EPS && f.used + (f.bands.length > 0 ? gap : 0) + l <= f.bin.length + EPS,
    )
    // A new band costs its whole length; per width filled, the flatter turn is the cheaper one.
    if (fill) take({ score: l * fill.bin.width + fills.indexOf(fill) * 1e9, fill, band: null, column: null, turned })
  }
  return best
}

function place(item: PackItem, fit: Fit, gap: number): void {
  const [width, length] = fit.turned ? [item.length, item.width] : [item.width, item.length]
  let band = fit.band
  if (!band) {
    band = { length, usedWidth: 0, columns: [] }
    fit.fill.used += (fit.fill.bands.length > 0 ? gap : 0) + length
    fit.fill.bands.push(band)
  }
  let column = fit.column
  if (!column) {
    const x = band.usedWidth + (band.columns.length > 0 ? gap : 0)
    column = { x, width, used: 0, parts: [] }
    band.columns.push(column)
    band.usedWidth = x + width
  }
  const y = column.used + (column.parts.length > 0 ? gap : 0)
  column.parts.push({ item, turned: fit.turned, y, width, length })
  column.used = y + length
}

export function placements(
  fills: readonly BinFill[],
  gap: number,
): { placed: Placed[]; crossCuts: { binId: string; y: number }[] } {
  const placed: Placed[] = []
  const crossCuts: { binId: string; y: number }[] = []
  for (const { bin, bands } of fills) {
    let y = 0
    bands.forEach((band, i) => {
      if (i > 0) y += gap
      for (const column of band.columns)
        for (const p of column.parts)
          placed.push({
            item: p.item,
            binId: bin.id,
            x: column.x,
            y: y + p.y,
            width: p.width,
            length: p.length,
            turned: p.turned,
          })
      y += band.length
      crossCuts.push({ binId: bin.id, y })
    })
  }
  return { placed, crossCuts }
}
