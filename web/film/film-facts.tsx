import type { FilmSheet } from '@/core/model/film/schema'
import type { Formatter } from '@/web/words/format'
import { FILM_FIELDS } from '@/web/rack/film-fields'
import { word, STANDING_WORDS } from '@/web/words/names'

/** A film's sheet in words and this member's units. */
export function FilmFacts({ film, fmt }: { film: FilmSheet; fmt: Formatter }) {
  const t = (r: { min: number; max: number }) => `${fmt.temp(r.min).text}–${fmt.text(fmt.temp(r.max))}`
  const pct = (v: number) => fmt.text(fmt.percent(v))
  const long = (mm: number) => fmt.text(fmt.longLength(mm))
  const rows: [string, string][] = [
    [
      'Thickness',
      fmt.units.lengthUnit === 'in' ? `${(film.thicknessUm / 25.4).toFixed(1)} mil` : `${film.thicknessUm} µm`,
    ],
    [
      'Rolls',
      `${film.widthsMm.map((w) => fmt.text(fmt.length(w))).join(', ')} wide, ${film.rollLengthsMm.map(long).join(', ')} long`,
    ],
    [
      'Sold',
      `${word('soldBy', film.soldBy.unit, fmt.units.locale)}${film.soldBy.minimumMm > 0 ? `, from ${long(film.soldBy.minimumMm)}` : ''}`,
    ],
    ['Direction', film.directional ? 'directional: sides and bumpers the same way up' : 'any'],
    ['Stretch limit', `${pct(film.stretchLimit)}; post-heat past ${pct(film.postHeatOver)}`],
    [
      'Pre-stretch',
      film.preStretchMax.warm > 0
        ? `up to ${pct(film.preStretchMax.cold)} cold, ${pct(film.preStretchMax.warm)} warm; heat takes ` +
          `back ${pct(film.recovers)} of a stretch`
        : 'none',
    ],
    ['Heat shrink', pct(film.heatShrink)],
    ['Tension left in the roll', pct(film.rollResidue)],
    ['Shaping', t(film.shapingC)],
    ['Post-heat', t(film.postHeatC)],
    ['Never hotter than', fmt.text(fmt.temp(film.heatLimitC))],
    ['Overlaps', `${t(film.overlapC)}, ${fmt.text(fmt.length(film.overlapMm))} wide`],
    ['Wait before cutting', film.waitBeforeCutMin > 0 ? fmt.text(fmt.minutes(film.waitBeforeCutMin)) : 'none'],
    [
      'Post-heat window',
      film.postHeatUntilMin
        ? `${fmt.text(fmt.minutes(film.postHeatFromMin))} to ${fmt.text(fmt.minutes(film.postHeatUntilMin))} after laying`
        : 'any time',
    ],
    ['Cure', `${film.cureHours} h`],
    ['Air', `${t(film.airC)}; surface at least ${fmt.text(fmt.temp(film.surfaceMinC))}`],
    ['Edges', word('edgeOrder', film.edgeOrder)],
    ['Cap sheet', film.capSheet ? 'on for flats, off for curves' : 'none'],
    ['Warranty', film.warrantyMonths.map((w) => `${w.zone} ${w.surface} ${w.months} months`).join(' · ')],
    ['Care', film.care],
  ]
  return (
    <>
      <dl className="row mt-2 mb-0 g-0">
        {rows.map(([label, text]) => (
          <div key={label} className="col-md-6 d-flex gap-2 border-bottom py-1 pe-3">
            <dt className="label" style={{ width: 130, flex: 'none' }}>
              {label}
            </dt>
            <dd className="mb-0">{text}</dd>
          </div>
        ))}
      </dl>
      <p className="label pt-1 mb-0">{standingLine(film)}</p>
    </>
  )
}

/** How well the sheet's figures are known: the maker's sheet, but for those named. */
function standingLine(film: FilmSheet): string {
  const names = FILM_FIELDS.flatMap((g) => g.fields)
  const other = Object.entries(film.standings).map(
    ([field, standing]) =>
      `${names.find((n) => n.field === field)?.label ?? field}: ${STANDING_WORDS[standing ?? 'assumed']}`,
  )
  return other.length === 0 ? 'Standing: film sheet.' : `Standing: film sheet, but ${other.join('; ')}.`
}
