'use client'

import { keepLayout, type FilmLayout } from '@/core/roll/lay-out'
import { Fig } from '@/web/job/figure'
import { Cautions, Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { word } from '@/web/words/names'
import { RollDrawing } from './roll-drawing'
import { SearchHarder } from './search-harder'

/** How much film, laid how, cut in what order. */
export function Roll() {
  const { reckoning, plan, edit, fmt, mayPlan } = useJob()
  const widths = [...new Set(plan.film.sheets.flatMap((s) => s.widthsMm))].sort((a, b) => b - a)
  const keep = () => edit((p) => ({ ...p, layout: { ...p.layout, kept: reckoning.layouts.map(keepLayout) } }))
  const allKept = reckoning.layouts.length > 0 && reckoning.layouts.every((l) => l.kept === 'current')
  return (
    <>
      <div className="bench-head">
        <h1>Roll</h1>
        <span className="spacer" />
        <fieldset disabled={!mayPlan} className="d-flex gap-2 align-items-end flex-wrap">
          {widths.length > 1 && (
            <span>
              <label className="label d-block" htmlFor="roll-width">
                Roll width
              </label>
              <select
                id="roll-width"
                className="form-select form-select-sm"
                value={plan.layout.rollWidthMm ?? ''}
                onChange={(e) =>
                  edit((p) => ({
                    ...p,
                    layout: { ...p.layout, rollWidthMm: e.target.value ? Number(e.target.value) : null },
                  }))
                }
              >
                <option value="">widest</option>
                {widths.map((w) => (
                  <option key={w} value={w}>
                    {fmt.text(fmt.length(w))}
                  </option>
                ))}
              </select>
            </span>
          )}
          <span style={{ width: 90 }}>
            <label className="label d-block" htmlFor="roll-gap">
              Gap
            </label>
            <LengthInput
              id="roll-gap"
              className="form-control form-control-sm"
              aria-label="Gap between pieces"
              optional
              mm={plan.layout.gapMm}
              unit={fmt.units.lengthUnit}
              format={(mm) => fmt.length(mm).text}
              max={100}
              onValue={(mm) => edit((p) => ({ ...p, layout: { ...p.layout, gapMm: mm ?? 0 } }))}
            />
          </span>
          <SearchHarder />
          <button
            type="button"
            className="btn btn-primary"
            disabled={reckoning.layouts.length === 0 || allKept}
            onClick={keep}
          >
            {allKept ? 'Layout is kept' : 'Keep this layout'}
          </button>
        </fieldset>
      </div>
      <Findings stage="roll" />
      {reckoning.layouts.length === 0 && (
        <p className="plate">Nothing to lay out yet: it takes measured panels and a film.</p>
      )}
      {reckoning.layouts.map((layout) => (
        <OneFilm key={layout.film.id} layout={layout} />
      ))}
    </>
  )
}

function OneFilm({ layout }: { layout: FilmLayout }) {
  const { fmt, reckoning } = useJob()
  const { film } = layout
  const bought = reckoning.purchases.get(film.id)
  const id = (part: string) => `roll/${film.id}/${part}`
  const long = (figureId: string) => {
    const value = reckoning.figures.get(figureId)?.value
    return typeof value === 'number' ? fmt.longLength(value) : undefined
  }
  const missing = layout.unplaced.length
  const above = layout.usedMm > 0 && layout.boundMm > 0 ? layout.usedMm / layout.boundMm - 1 : null
  const used = reckoning.figures.get(id('used'))
  return (
    <section className="plate mb-3">
      <div className="d-flex gap-4 flex-wrap align-items-baseline mb-2">
        <h2 className="mb-0">{film.name}</h2>
        {(
          [
            ['Used', 'used'],
            ['Yield', 'yield'],
            ['To order', 'order'],
            ['To buy', 'cost'],
          ] as const
        ).map(([label, part]) => (
          <span key={part}>
            <span className="label">{label}</span>{' '}
            <span className="fs-5">
              <Fig id={id(part)} as={part === 'used' || part === 'order' ? long(id(part)) : undefined} />
            </span>
          </span>
        ))}
        {used && (
          <span className="label">
            {(layout.usedMm / 1000).toFixed(2)} m = {(layout.usedMm / 914.4).toFixed(2)} yd
          </span>
        )}
      </div>
      <p className="mb-2">
        {above !== null && (
          <>
            {missing > 0 && (
              <b style={{ color: 'var(--stop)' }}>
                {missing} {missing === 1 ? 'piece fits' : 'pieces fit'} no roll; this is without{' '}
                {missing === 1 ? 'it' : 'them'}.{' '}
              </b>
            )}
            {above < 1e-6
              ? 'No plan can be shorter: '
              : `At most ${fmt.text(fmt.percent(above))} above the least possible, `}
            <Fig id={id('bound')} as={fmt.longLength(layout.boundMm)} />.{' '}
          </>
        )}
        Sold {word('soldBy', film.soldBy.unit, fmt.units.locale)}
        {film.soldBy.minimumMm > 0 && `, from ${fmt.text(fmt.longLength(film.soldBy.minimumMm))}`}.{' '}
        {missing > 0 ? null : bought?.covered && bought.shelf[0] ? (
          <b>
            On the shelf: {bought.shelf[0].label}, lot {bought.shelf[0].lot},{' '}
            {fmt.text(fmt.longLength(bought.shelf[0].leftMm))} left. One lot covers it.
          </b>
        ) : bought && bought.shelf.length > 0 ? (
          `On the shelf: ${bought.shelf.map((s) => `${s.label} lot ${s.lot} ${fmt.text(fmt.longLength(s.leftMm))}`).join('; ')}. No single one is long enough.`
        ) : (
          'Nothing of this width on the shelf.'
        )}
      </p>
      {layout.rolls.map((roll, i) => {
        const label = film.kind === 'sheet_goods' ? `sheet ${i + 1}` : `roll ${i + 1}`
        return (
          <div key={roll.id} className="mb-2">
            {layout.rolls.length > 1 && <h3>{label}</h3>}
            <RollDrawing layout={layout} roll={roll} label={`${film.name}, ${label}`} />
            <details>
              <summary>Cutting order, distances from the end</summary>
              <ol className="mb-0">
                {roll.crossCutsMm.map((mm, n) => {
                  const from = roll.crossCutsMm[n - 1] ?? 0
                  const here = roll.placements.filter((p) => p.yMm >= from - 1e-6 && p.yMm < mm - 1e-6)
                  return (
                    <li key={mm}>
                      Across at <b>{fmt.text(fmt.longLength(mm))}</b>, then lengthwise:{' '}
                      {here.map((p) => layout.pieces.find((x) => x.id === p.pieceId)?.name ?? p.pieceId).join(', ')}
                    </li>
                  )
                })}
              </ol>
            </details>
          </div>
        )
      })}
      {layout.unplaced.length > 0 && (
        <p className="text-danger mb-0">
          Not placed: {layout.unplaced.map((u) => u.piece.name).join(', ')}. See the findings above.
        </p>
      )}
      <Cautions codes={['blade']} />
    </section>
  )
}
